/**
 * A box: for each axis of a space the set of its values, as a bit mask (bit i = value i). A box stands for all
 * combinations that take one of these values on every axis; it is empty as soon as one mask is 0.
 */
export type Box = readonly number[];

export const isEmpty = (box: Box): boolean => box.includes(0);

export const intersect = (a: Box, b: Box): Box => a.map((mask, axis) => mask & b[axis]!);

/** Whether every combination of `inner` lies in `outer`. */
export const contains = (outer: Box, inner: Box): boolean =>
  inner.every((mask, axis) => (mask & ~outer[axis]!) === 0);

export const disjoint = (a: Box, b: Box): boolean => a.some((mask, axis) => (mask & b[axis]!) === 0);

export const equal = (a: Box, b: Box): boolean => a.every((mask, axis) => mask === b[axis]);

/** The smallest box around both. */
export const hull = (a: Box, b: Box): Box => a.map((mask, axis) => mask | b[axis]!);

export const withMask = (box: Box, axis: number, mask: number): Box =>
  box.map((old, index) => (index === axis ? mask : old));

/** Number of values in a mask. */
export function bitCount(mask: number): number {
  let rest = mask;
  let count = 0;
  for (; rest !== 0; rest &= rest - 1) count++;
  return count;
}

/** Indices of the values in a mask, ascending. */
export function bits(mask: number): number[] {
  const result: number[] = [];
  for (let rest = mask; rest !== 0; rest &= rest - 1) result.push(31 - Math.clz32(rest & -rest));
  return result;
}

/** `a` without `b`, as disjoint boxes: at most one per axis (the classic guillotine cut). */
export function subtract(a: Box, b: Box): Box[] {
  if (disjoint(a, b)) return isEmpty(a) ? [] : [a];
  const pieces: Box[] = [];
  let rest = a;
  for (let axis = 0; axis < a.length; axis++) {
    const outside = rest[axis]! & ~b[axis]!;
    if (outside !== 0) pieces.push(withMask(rest, axis, outside));
    rest = withMask(rest, axis, rest[axis]! & b[axis]!);
  }
  return pieces;
}
