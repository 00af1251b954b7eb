import type { Box } from './box';

/** Joins disjoint boxes that differ in one axis only, axis by axis, until no two do. */
export function joined(boxes: readonly Box[]): Box[] {
  let result = [...boxes];
  for (let before = -1; before !== result.length && result.length > 1;) {
    before = result.length;
    for (let axis = 0; axis < result[0]!.length; axis++) result = joinedAlong(result, axis);
  }
  return result;
}

function joinedAlong(boxes: readonly Box[], axis: number): Box[] {
  const alike = new Map<string, number[]>();
  for (const box of boxes) {
    const key = box.map((mask, index) => (index === axis ? '' : mask)).join();
    const known = alike.get(key);
    if (known) known[axis]! |= box[axis]!;
    else alike.set(key, [...box]);
  }
  return [...alike.values()];
}
