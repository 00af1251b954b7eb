import type { ReportedAlike } from '@periwinkle/core/cascade/questions/rules-report';

/** Pairs of values that look the same everywhere. */
export function AlikeList({ alike }: { alike: readonly ReportedAlike[] }) {
  return (
    <ul className="alike">
      {alike.map(({ axis, values }) => (
        <li key={`${axis} ${values.join()}`}>
          <span className="said">{axis}:</span> <b>{values[0]}</b> and <b>{values[1]}</b>
        </li>
      ))}
    </ul>
  );
}
