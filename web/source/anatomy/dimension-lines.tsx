import type { Dimension } from '@periwinkle/core/layout/dimensions';

/** Where lines of an axis stand, px from the stage's end: sizes on the outer, paddings and gaps on the inner. */
const LANES = { x: { size: 22, inset: 50, gap: 50 }, y: { size: 66, inset: 92, gap: 92 } } as const;
/** Room that they take at the bottom and at the right, px. */
export const DIMENSION_ROOM = { x: 110, y: 64 };
/** Half the length of a line's ends, px. */
const END = 4;

/** The lengths of the chosen part as lines beside the drawing, with their px. */
export function DimensionLines({
  dimensions,
  width,
  height,
  at,
  isAbout,
}: {
  dimensions: readonly Dimension[];
  /** Of the stage, px. */
  width: number;
  height: number;
  /** From the part's px to the stage's. */
  at: Readonly<Record<'x' | 'y', (place: number) => number>>;
  /** Whether its width is only reckoned. */
  isAbout: boolean;
}) {
  return (
    <g className="dimensions">
      {dimensions.map(dimension => {
        const { axis, kind, from, to, said } = dimension;
        const [first, last] = [at[axis](from), at[axis](to)];
        const lane = (axis === 'x' ? height : width) - LANES[axis][kind];
        const point = (along: number, across: number): string =>
          axis === 'x' ? `${along} ${across}` : `${across} ${along}`;
        const ends = [first, last]
          .map(each => `M ${point(each, lane - END)} L ${point(each, lane + END)}`)
          .join(' ');
        const about = axis === 'x' && kind === 'size' && isAbout ? 'about ' : '';
        const px = `${about}${Math.round((to - from) * 100) / 100}`;
        const middle = (first + last) / 2;
        return (
          <g key={`${axis} ${kind} ${from}`} data-dimension={`${axis} ${kind}`}>
            <title>{said === null ? `${px}px` : `${px}px, ${said}`}</title>
            <path d={`M ${point(first, lane)} L ${point(last, lane)} ${ends}`} />
            {axis === 'x' ? (
              <text x={middle} y={lane - END - 2} textAnchor="middle">
                {px}
                {kind === 'size' && said !== null ? <tspan className="token"> {said}</tspan> : null}
              </text>
            ) : (
              <text x={lane + END + 2} y={middle + 4}>
                {px}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
