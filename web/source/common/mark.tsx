const PETAL = 'M0-1C3-3 4-7 1-8.6-1.6-8-2.6-4 0-1z';

/** Our mark: five petals. */
export function Mark() {
  return (
    <svg viewBox="0 0 18 18" fill="#5957aa" aria-hidden="true">
      <g transform="translate(9 9)">
        {[0, 72, 144, 216, 288].map(turn => (
          <path key={turn} d={PETAL} transform={`rotate(${turn})`} />
        ))}
        <circle r="1.5" fill="#faf8f3" />
      </g>
    </svg>
  );
}
