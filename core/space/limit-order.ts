import { bits, disjoint, intersect, isEmpty, withMask, type Box } from './box';
import type { LimitCluster } from './limit-clusters';
import type { Limit } from './limit';
import { refuseMore, replaced, settle, type Piece } from './limits';
import { appliedOnce } from './apply-limits';

/** Two limits of which it matters which is applied first, and a combination where it does. */
export interface OrderDependence {
  /** Indices of the limits, ascending. */
  readonly limits: readonly [number, number];
  readonly witness: readonly number[];
  /** What the witness becomes when the first of them is applied first, and when the second is. */
  readonly results: readonly [readonly number[], readonly number[]];
}

/**
 * Finds where the result of a cluster of limits depends on their order. With `n` for applying them in document order
 * until nothing changes, the order never matters exactly when `n` after any single limit gives what `n` alone gives: by
 * induction every other order then ends where `n` does (confluence; M. H. A. Newman, "On Theories with a Combinatorial
 * Definition of Equivalence", 1942, needs only the single steps too). Both sides are compared piece by piece, as maps.
 */
export function orderDependence(cluster: LimitCluster, limits: readonly Limit[]): OrderDependence | null {
  const own = cluster.limits.map(index => limits[index]!);
  for (const limit of own) {
    for (const { box, target } of stepsOf(limit)) {
      const near = cluster.pieces.filter(piece => !disjoint(piece.box, box));
      for (const after of cluster.pieces) {
        const first = throughStep(box, target, after);
        if (!first) continue;
        for (const alone of near) {
          if (disjoint(first.box, alone.box)) continue;
          const raw = differing(intersect(first.box, alone.box), first.target, alone.target);
          if (raw) return dependence(raw, limit, limits);
        }
      }
    }
  }
  return null;
}

/** A limit alone as pieces: where it is broken, by the set of axes on which it is. */
function stepsOf({ region, holds }: Limit): Piece[] {
  const start: Piece = { box: region, target: region.map(() => -1) };
  return holds
    .reduce<Piece[]>(
      (pieces, { axis, allowed, first }) => {
        refuseMore(pieces);
        return pieces.flatMap(({ box, target }) =>
          [
            { box: withMask(box, axis, box[axis]! & allowed), target },
            { box: withMask(box, axis, box[axis]! & ~allowed), target: replaced(target, axis, first) },
          ].filter(piece => !isEmpty(piece.box)),
        );
      },
      [start],
    )
    .filter(({ target }) => target.some(value => value >= 0));
}

/** First a step, then a piece: where that happens and what it comes to. */
function throughStep(box: Box, step: readonly number[], after: Piece): Piece | null {
  const here: number[] = [];
  for (let axis = 0; axis < box.length; axis++) {
    const set = step[axis]!;
    if (set >= 0 && !((after.box[axis]! >> set) & 1)) return null;
    here.push(set >= 0 ? box[axis]! : box[axis]! & after.box[axis]!);
  }
  if (isEmpty(here)) return null;
  return { box: here, target: after.target.map((value, axis) => (value >= 0 ? value : step[axis]!)) };
}

/** A combination of the box on which two maps differ. */
function differing(box: Box, a: readonly number[], b: readonly number[]): number[] | null {
  for (let axis = 0; axis < box.length; axis++) {
    if (a[axis] === b[axis]) continue;
    const same = a[axis]! < 0 ? b[axis]! : b[axis]! < 0 ? a[axis]! : -1;
    // One leaves the value, the other sets it: alike only where the value is that already.
    const values = bits(box[axis]!).filter(value => value !== same);
    if (values.length > 0) return box.map((mask, index) => (index === axis ? values[0]! : bits(mask)[0]!));
  }
  return null;
}

function dependence(raw: readonly number[], late: Limit, limits: readonly Limit[]): OrderDependence {
  const usualFirst = limits.findIndex(limit => appliedOnce(raw, limit));
  const otherFirst = limits.indexOf(late);
  const usual = settle(raw, limits).combination;
  const other = settle(appliedOnce(raw, late)!, limits).combination;
  return usualFirst < otherFirst
    ? { limits: [usualFirst, otherFirst], witness: raw, results: [usual, other] }
    : { limits: [otherFirst, usualFirst], witness: raw, results: [other, usual] };
}
