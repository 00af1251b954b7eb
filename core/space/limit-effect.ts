import { disjoint, intersect, withMask, type Box } from './box';
import type { Extent, Extents } from './extent';
import type { LimitCluster } from './limit-clusters';
import { piecesOf, type Limit, type Piece } from './limits';

/** The raw combinations that would settle otherwise if one limit of a cluster were not there. Throws `UnsettledLimits`. */
export function effectOf(
  extents: Extents,
  cluster: LimitCluster,
  limits: readonly Limit[],
  limit: Limit,
): Extent {
  const others = cluster.limits.map(place => limits[place]!).filter(each => each !== limit);
  const without = piecesOf(extents.full, others);
  return extents.union(
    cluster.pieces.flatMap(piece =>
      without.flatMap(other =>
        disjoint(piece.box, other.box) ? [] : differingBoxes(piece, other).map(box => extents.of(box)),
      ),
    ),
  );
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
