import type { DrawnBox, Ends } from './drawn-box';

/** How a box is aligned across the line or column in which it stands. */
export const alignOf = ({ style }: DrawnBox, around: string): string => {
  const own = style.value('align-self');
  return own === 'auto' ? around : own;
};

/** Place across the line of what is aligned there, with so much room left over around it. */
export function crossPlace(align: string, room: number, [before, after]: Ends<number | null>): number {
  const left = room - (before ?? 0) - (after ?? 0);
  if (before === null && after === null) return Math.max(0, left) / 2;
  if (before === null) return Math.max(0, left);
  if (after === null) return before;
  return before + alone(align, left);
}

/** Place of the only thing on an axis, with so much room around it. */
export function alone(alignment: string, room: number): number {
  if (alignment === 'center') return room / 2;
  return alignment === 'flex-end' || alignment === 'end' ? room : 0;
}

export interface Spread {
  readonly at: number;
  readonly between: number;
}

/** Where things in a row begin along it, and what lies between them (CSS Box Alignment 3, sections 4 and 5). */
export function spread(distribution: string, free: number, count: number): Spread {
  if (distribution === 'space-between')
    return { at: 0, between: count > 1 ? Math.max(0, free) / (count - 1) : 0 };
  if (distribution === 'space-around') {
    const share = count > 0 ? Math.max(0, free) / count : 0;
    return { at: share / 2, between: share };
  }
  return { at: alone(distribution, free), between: 0 };
}
