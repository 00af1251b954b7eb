import { contains, equal, isCovered, isEmpty, withMask, type Box } from './box';

/**
 * Few, wide boxes with the same union as `boxes`: neighbours are joined, each box is widened as far as the union (and
 * what does not matter, `free`) reaches, and boxes that the others cover are dropped. The result may overlap; it is
 * irredundant, not always minimal, which would be NP-hard.
 */
export function simplify(boxes: readonly Box[], full: Box, free: readonly Box[] = []): Box[] {
  let result = joined(boxes.filter(box => !isEmpty(box)));
  const room = [...result, ...free];
  result = result.map(box => widened(box, full, room));
  result = result.filter(
    (box, index) =>
      !result.some(
        (other, j) => (j < index && equal(box, other)) || (contains(other, box) && !equal(box, other)),
      ),
  );
  for (let index = result.length - 1; index >= 0; index--) {
    const others = result.filter((_, j) => j !== index);
    if (isCovered(result[index]!, [...others, ...free])) result = others;
  }
  return result;
}

function widened(box: Box, full: Box, room: readonly Box[]): Box {
  let wide = box;
  for (let axis = 0; axis < full.length; axis++) {
    if (wide[axis] === full[axis]) continue;
    const wider = withMask(wide, axis, full[axis]!);
    if (isCovered(wider, room)) wide = wider;
  }
  return wide;
}

/** Joins boxes that differ in one axis only, until no two do. Keeps disjoint boxes disjoint. */
export function joined(boxes: readonly Box[]): Box[] {
  const result = [...boxes];
  for (let i = 0; i < result.length; i++) {
    for (let j = i + 1; j < result.length; j++) {
      const both = joinPair(result[i]!, result[j]!);
      if (!both) continue;
      result[i] = both;
      result.splice(j, 1);
      // A joined box may fit one that was passed over before.
      i = -1;
      break;
    }
  }
  return result;
}

function joinPair(a: Box, b: Box): Box | null {
  let differing = -1;
  for (let axis = 0; axis < a.length; axis++) {
    if (a[axis] === b[axis]) continue;
    if (differing >= 0) return null;
    differing = axis;
  }
  return differing < 0 ? a : withMask(a, differing, a[differing]! | b[differing]!);
}
