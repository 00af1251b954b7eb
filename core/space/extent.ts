import { isEmpty, type Box } from './box';
import { ExtentReader } from './extent-reader';
import { EVERYWHERE, NOWHERE, type Extent } from './node-store';
import { ResultCache, UNKNOWN } from './result-cache';

export { EVERYWHERE, NOWHERE, type Extent };

type Operation = 'and' | 'or' | 'minus';

/**
 * Sets of combinations over some axes as multi-valued decision diagrams: one level per axis, at each node the values
 * parted by where they lead, equal nodes shared (R. E. Bryant, "Graph-Based Algorithms for Boolean Function
 * Manipulation", 1986; A. Srinivasan et al., "Algorithms for Discrete Function Manipulation", 1990). Union, intersection
 * and difference cost at most the product of the two sizes, counting is linear in the size, and the size follows how
 * tangled a set is, not how many combinations it holds.
 */
export class Extents extends ExtentReader {
  private readonly boxes = new WeakMap<Box, Extent>();
  private readonly results: Readonly<Record<Operation, ResultCache>> = {
    and: new ResultCache(),
    or: new ResultCache(),
    minus: new ResultCache(),
  };

  of(box: Box): Extent {
    let extent = this.boxes.get(box);
    if (extent === undefined) {
      extent = isEmpty(box) ? NOWHERE : EVERYWHERE;
      for (let level = box.length - 1; level >= 0 && extent !== NOWHERE; level--) {
        const axis = this.axisAt[level]!;
        const outside = this.full[axis]! & ~box[axis]!;
        if (outside === 0) continue;
        const begun = this.nodes.begin();
        this.nodes.edge(begun, box[axis]!, extent);
        this.nodes.edge(begun, outside, NOWHERE);
        extent = this.nodes.finish(begun, level);
      }
      this.boxes.set(box, extent);
    }
    return extent;
  }

  /** Where an axis has one of some values. */
  ofAxis(axis: number, mask: number): Extent {
    const outside = this.full[axis]! & ~mask;
    if (mask === 0 || outside === 0) return mask === 0 ? NOWHERE : EVERYWHERE;
    const begun = this.nodes.begin();
    this.nodes.edge(begun, mask, EVERYWHERE);
    this.nodes.edge(begun, outside, NOWHERE);
    return this.nodes.finish(begun, this.levelOf[axis]!);
  }

  and(a: Extent, b: Extent): Extent {
    if (a === b || b === EVERYWHERE) return a;
    if (a === EVERYWHERE) return b;
    if (a === NOWHERE || b === NOWHERE) return NOWHERE;
    return a < b ? this.combined('and', a, b) : this.combined('and', b, a);
  }

  or(a: Extent, b: Extent): Extent {
    if (a === b || b === NOWHERE) return a;
    if (a === NOWHERE) return b;
    if (a === EVERYWHERE || b === EVERYWHERE) return EVERYWHERE;
    return a < b ? this.combined('or', a, b) : this.combined('or', b, a);
  }

  /** `a` without `b`. */
  minus(a: Extent, b: Extent): Extent {
    if (a === NOWHERE || b === EVERYWHERE || a === b) return NOWHERE;
    if (b === NOWHERE) return a;
    return this.combined('minus', a, b);
  }

  union(extents: Iterable<Extent>): Extent {
    let all = NOWHERE;
    for (const extent of extents) all = this.or(all, extent);
    return all;
  }

  /** Number of combinations of a box that lie in the extent. */
  countIn(extent: Extent, box: Box): bigint {
    return this.countsExactly ? BigInt(this.share(extent, box)) : this.count(this.and(extent, this.of(box)));
  }

  /** The combinations of the other axes with which a value of one axis lies in the extent; that axis is then free. */
  along(extent: Extent, axis: number, value: number): Extent {
    const { levels } = this.nodes;
    const cutLevel = this.levelOf[axis]!;
    return this.rebuilt(extent, here => {
      const level = levels[here]!;
      if (level > cutLevel) return here;
      return level === cutLevel ? this.childAt(here, value) : null;
    });
  }

  /** The own combinations that lie in the extent with some combination of the other axes. */
  shadow(extent: Extent): Extent {
    const { levels } = this.nodes;
    const own = this.own.length;
    if (own === this.full.length) return extent;
    return this.rebuilt(extent, here => (here === NOWHERE || levels[here]! < own ? null : EVERYWHERE));
  }

  /** An extent with what is below some nodes put in the place of these; `null` leaves a node, and goes on below it. */
  private rebuilt(extent: Extent, instead: (node: Extent) => Extent | null): Extent {
    const { nodes } = this;
    const done = new Map<Extent, Extent>();
    const rebuild = (here: Extent): Extent => {
      const found = instead(here);
      if (found !== null) return found;
      if (here <= EVERYWHERE) return here;
      let result = done.get(here);
      if (result === undefined) {
        const begun = nodes.begin();
        const end = nodes.starts[here + 1]!;
        for (let edge = nodes.starts[here]!; edge < end; edge++) {
          nodes.edge(begun, nodes.masks[edge]!, rebuild(nodes.children[edge]!));
        }
        result = nodes.finish(begun, nodes.levels[here]!);
        done.set(here, result);
      }
      return result;
    };
    return rebuild(extent);
  }

  /**
   * The combinations whose image lies in an extent over other axes: `where` tells, for each of those axes and some of its
   * values, the combinations whose image has one of these there. Costs one intersection an edge of the extent.
   */
  preimage(of: Extents, extent: Extent, where: (axis: number, mask: number) => Extent): Extent {
    const { nodes } = of;
    const done = new Map<Extent, Extent>();
    const visit = (here: Extent): Extent => {
      if (here <= EVERYWHERE) return here;
      let result = done.get(here);
      if (result === undefined) {
        result = NOWHERE;
        for (let edge = nodes.starts[here]!; edge < nodes.starts[here + 1]!; edge++) {
          const below = visit(nodes.children[edge]!);
          if (below === NOWHERE) continue;
          result = this.or(result, this.and(where(of.axisOf(here), nodes.masks[edge]!), below));
        }
        done.set(here, result);
      }
      return result;
    };
    return visit(extent);
  }

  private combined(operation: Operation, a: Extent, b: Extent): Extent {
    const results = this.results[operation];
    const known = results.get(a, b);
    if (known !== UNKNOWN) return known;
    const { nodes } = this;
    const level = Math.min(nodes.levels[a]!, nodes.levels[b]!);
    // An extent that does not depend on this axis stands as one edge that leads to itself.
    const ownA = nodes.levels[a] === level;
    const ownB = nodes.levels[b] === level;
    const everything = this.full[this.axisAt[level]!]!;
    const startA = ownA ? nodes.starts[a]! : 0;
    const startB = ownB ? nodes.starts[b]! : 0;
    const endA = ownA ? nodes.starts[a + 1]! : 1;
    const endB = ownB ? nodes.starts[b + 1]! : 1;
    const begun = nodes.begin();
    for (let i = startA; i < endA; i++) {
      const maskA = ownA ? nodes.masks[i]! : everything;
      for (let j = startB; j < endB; j++) {
        const both = ownB ? maskA & nodes.masks[j]! : maskA;
        if (both === 0) continue;
        const childA = ownA ? nodes.children[i]! : a;
        const childB = ownB ? nodes.children[j]! : b;
        nodes.edge(begun, both, this[operation](childA, childB));
      }
    }
    const result = nodes.finish(begun, level);
    results.set(a, b, result);
    return result;
  }
}
