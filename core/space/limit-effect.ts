import { disjoint, intersect, withMask, type Box } from './box';
import type { Extent, Extents } from './extent';
import type { LimitCluster } from './limit-clusters';
import type { Limit } from './limit';
import { parted, type Piece } from './limits';

/**
 * The raw combinations that would settle otherwise, or never, if one limit of a cluster were not there. Throws
 * `TangledLimits`.
 */
export function effectOf(
  extents: Extents,
  cluster: LimitCluster,
  limits: readonly Limit[],
  limit: Limit,
): Extent {
  const others = cluster.limits.map(place => limits[place]!).filter(each => each !== limit);
  const differing: Box[] = [];
  const without = parted(extents.full, others, ({ box }) => differing.push(box));
  for (const piece of cluster.pieces) {
    for (const other of without) {
      if (!disjoint(piece.box, other.box)) differing.push(...differingBoxes(piece, other));
    }
  }
  return extents.union(differing.map(box => extents.of(box)));
}

/** Where two pieces overlap and do different things. */
function differingBoxes(a: Piece, b: Piece): Box[] {
  const both = intersect(a.box, b.box);
  return both.flatMap((mask, axis) => {
    const [one, other] = [a.target[axis]!, b.target[axis]!];
    if (one === other) return [];
    const kept = one < 0 ? other : other < 0 ? one : -1;
    const differing = kept < 0 ? mask : mask & ~(1 << kept);
    return differing === 0 ? [] : [withMask(both, axis, differing)];
  });
}
