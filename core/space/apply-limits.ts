import type { LimitRegion } from './limit';

/** So often limits act on one combination; those that never settle are told of where they are written. */
const MOST = 1000;

/** What one limit makes of a combination, or `null` where it is not broken. */
export function appliedOnce(raw: readonly number[], { region, holds }: LimitRegion): number[] | null {
  if (!region.every((mask, axis) => (mask >> raw[axis]!) & 1)) return null;
  const broken = holds.filter(({ axis, allowed }) => !((allowed >> raw[axis]!) & 1));
  if (broken.length === 0) return null;
  const result = [...raw];
  for (const { axis, first } of broken) result[axis] = first;
  return result;
}

/** Applies limits that settle to one combination (value indices) until nothing changes: each time the first that is broken. */
export function withLimitsApplied(raw: readonly number[], limits: readonly LimitRegion[]): readonly number[] {
  let combination = raw;
  for (let index = 0, times = 0; index < limits.length && times < MOST;) {
    const next = appliedOnce(combination, limits[index]!);
    if (next) {
      combination = next;
      index = 0;
      times++;
    } else index++;
  }
  return combination;
}
