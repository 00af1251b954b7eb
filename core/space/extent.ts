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
    const { nodes } = this;
    const cutLevel = this.levelOf[axis]!;
    const done = new Map<Extent, Extent>();
    const cut = (here: Extent): Extent => {
      const level = nodes.levels[here]!;
      if (level > cutLevel) return here;
      if (level === cutLevel) return this.childAt(here, value);
      let result = done.get(here);
      if (result === undefined) {
        const begun = nodes.begin();
        const end = nodes.starts[here + 1]!;
        for (let edge = nodes.starts[here]!; edge < end; edge++) {
          nodes.edge(begun, nodes.masks[edge]!, cut(nodes.children[edge]!));
        }
        result = nodes.finish(begun, level);
        done.set(here, result);
      }
      return result;
    };
    return cut(extent);
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
