import { isEmpty, type Box } from './box';
import { EVERYWHERE, type Extent, type Extents } from './extent';
import type { Limit } from './limit';
import { namedAxes, piecesOf, restrict, type Piece } from './limits';

/** Limits that share axes, directly or through others, and the pieces into which they part the space. */
export interface LimitCluster {
  /** Indices among all limits, ascending. */
  readonly limits: readonly number[];
  readonly axes: ReadonlySet<number>;
  readonly pieces: readonly Piece[];
}

/**
 * Parts limits into clusters that have no axis in common. Each cluster is worked out by itself, so that limits that have
 * nothing to do with one another do not multiply. Throws `UnsettledLimits` and `TangledLimits`.
 */
export function limitClusters(full: Box, limits: readonly Limit[]): LimitCluster[] {
  interface Open {
    readonly limits: number[];
    readonly axes: Set<number>;
  }
  let open: Open[] = [];
  limits.forEach((limit, index) => {
    const axes = axesOf(limit, full);
    const met = open.filter(each => [...axes].some(axis => each.axes.has(axis)));
    const [cluster = { limits: [], axes: new Set() } satisfies Open, ...others] = met;
    for (const { limits: places, axes: named } of [{ limits: [index], axes }, ...others]) {
      for (const place of places) cluster.limits.push(place);
      for (const axis of named) cluster.axes.add(axis);
    }
    open = [...open.filter(each => !met.includes(each)), cluster];
  });
  return open.map(cluster => {
    const places = cluster.limits.toSorted((a, b) => a - b);
    const own = places.map(index => limits[index]!);
    return { ...cluster, limits: places, pieces: piecesOf(full, own) };
  });
}

function axesOf(limit: Limit, full: Box): Set<number> {
  return new Set([...namedAxes(limit.region, full), ...limit.holds.map(({ axis }) => axis)]);
}

/** All raw combinations that the limits take into `region`. */
export function preimage(extents: Extents, clusters: readonly LimitCluster[], region: Box): Extent {
  if (isEmpty(region)) return 0;
  const limited = new Set(clusters.flatMap(cluster => [...cluster.axes]));
  const free = region.map((mask, axis) => (limited.has(axis) ? extents.full[axis]! : mask));
  return clusters.reduce((sofar, { axes, pieces }) => {
    const own = region.map((mask, axis) => (axes.has(axis) ? mask : extents.full[axis]!));
    const into = own.every((mask, axis) => mask === extents.full[axis])
      ? EVERYWHERE
      : extents.union(
          pieces.flatMap(piece => {
            const box = restrict(piece, own);
            return box ? [extents.of(box)] : [];
          }),
        );
    return extents.and(sofar, into);
  }, extents.of(free));
}
