import { bits, bitCount, isEmpty, type Box } from './box';
import { EVERYWHERE, NodeStore, NOWHERE, type Extent } from './node-store';

export { EVERYWHERE, NOWHERE, type Extent };

type Operation = 'and' | 'or' | 'minus';

/** Pairs of extents are looked up by one number; so many extents one `Extents` may hold. */
const PAIR = 2 ** 26;

/** So many results of each operation are remembered. */
const MAX_RESULTS = 1_000_000;

/**
 * Sets of combinations over some axes as multi-valued decision diagrams: one level per axis, at each node the values
 * parted by where they lead, equal nodes shared (R. E. Bryant, "Graph-Based Algorithms for Boolean Function
 * Manipulation", 1986; A. Srinivasan et al., "Algorithms for Discrete Function Manipulation", 1990). Union, intersection
 * and difference cost at most the product of the two sizes, counting is linear in the size, and the size follows how
 * tangled a set is, not how many combinations it holds.
 */
export class Extents {
  private readonly nodes: NodeStore;
  private readonly levels: readonly number[];
  private readonly masks: readonly (readonly number[])[];
  private readonly children: readonly (readonly Extent[])[];
  private readonly results: Record<Operation, Map<number, Extent>> = {
    and: new Map(),
    or: new Map(),
    minus: new Map(),
  };
  private readonly counts = new Map<Extent, bigint>();
  private readonly boxes = new WeakMap<Box, Extent>();
  /** Combinations over the axes from each level on. */
  private readonly below: readonly bigint[];

  constructor(readonly full: Box) {
    const below = [1n];
    for (const mask of [...full].reverse()) below.unshift(below[0]! * BigInt(bitCount(mask)));
    this.below = below;
    this.nodes = new NodeStore(full.length);
    ({ levels: this.levels, masks: this.masks, children: this.children } = this.nodes);
  }

  /** How many nodes there are; grows with use, never shrinks. */
  get size(): number {
    return this.levels.length;
  }

  of(box: Box): Extent {
    let extent = this.boxes.get(box);
    if (extent === undefined) {
      extent = isEmpty(box) ? NOWHERE : EVERYWHERE;
      for (let axis = box.length - 1; axis >= 0 && extent !== NOWHERE; axis--) {
        const outside = this.full[axis]! & ~box[axis]!;
        if (outside !== 0) extent = this.nodes.node(axis, [box[axis]!, outside], [extent, NOWHERE]);
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

  /** Number of combinations. */
  count(extent: Extent): bigint {
    return this.countBelow(extent) * (this.below[0]! / this.below[this.levels[extent]!]!);
  }

  /** About how many combinations of a box lie in the extent: to compare, not to report; makes no new nodes. */
  share(extent: Extent, box: Box): number {
    const sizes = box.map(mask => bitCount(mask));
    const known = new Map<Extent, number>();
    /** Of the axes from the node's own level on. */
    const below = (here: Extent): number => {
      if (here <= EVERYWHERE) return here;
      let sum = known.get(here);
      if (sum === undefined) {
        sum = 0;
        const level = this.levels[here]!;
        for (const [edge, mask] of this.masks[here]!.entries()) {
          const child = this.children[here]![edge]!;
          const values = bitCount(mask & box[level]!);
          if (values > 0 && child !== NOWHERE)
            sum += values * free(level + 1, this.levels[child]!) * below(child);
        }
        known.set(here, sum);
      }
      return sum;
    };
    const free = (from: number, to: number): number => {
      let product = 1;
      for (let axis = from; axis < to; axis++) product *= sizes[axis]!;
      return product;
    };
    return free(0, this.levels[extent]!) * below(extent);
  }

  has(extent: Extent, indices: readonly number[]): boolean {
    let here = extent;
    while (here > EVERYWHERE) {
      const bit = 1 << indices[this.levels[here]!]!;
      here = this.children[here]![this.masks[here]!.findIndex(mask => (mask & bit) !== 0)]!;
    }
    return here === EVERYWHERE;
  }

  /** Whether some combination of the box lies in the extent. */
  meets(extent: Extent, box: Box): boolean {
    const failed = new Set<Extent>([NOWHERE]);
    const search = (here: Extent): boolean => {
      if (here === EVERYWHERE) return true;
      if (failed.has(here)) return false;
      const wanted = box[this.levels[here]!]!;
      const found = this.masks[here]!.some(
        (mask, edge) => (mask & wanted) !== 0 && search(this.children[here]![edge]!),
      );
      if (!found) failed.add(here);
      return found;
    };
    return !isEmpty(box) && search(extent);
  }

  /** The smallest box around an extent; every mask 0 when there is nothing in it. */
  hull(extent: Extent): Box {
    const hull = this.full.map(() => 0);
    const visited = new Set<Extent>();
    const skip = (from: number, to: number): void => {
      for (let axis = from; axis < to; axis++) hull[axis] = this.full[axis]!;
    };
    const visit = (here: Extent): void => {
      if (here <= EVERYWHERE || visited.has(here)) return;
      visited.add(here);
      const level = this.levels[here]!;
      this.masks[here]!.forEach((mask, edge) => {
        const child = this.children[here]![edge]!;
        if (child === NOWHERE) return;
        hull[level]! |= mask;
        skip(level + 1, this.levels[child]!);
        visit(child);
      });
    };
    if (extent === NOWHERE) return hull;
    skip(0, this.levels[extent]!);
    visit(extent);
    return hull;
  }

  /** The extent as disjoint boxes, lazily: there may be many. */
  *boxesOf(extent: Extent): Generator<Box> {
    if (extent === NOWHERE) return;
    if (extent === EVERYWHERE) {
      yield this.full;
      return;
    }
    const level = this.levels[extent]!;
    for (const [edge, mask] of this.masks[extent]!.entries()) {
      for (const rest of this.boxesOf(this.children[extent]![edge]!)) {
        yield rest.map((other, axis) => (axis === level ? mask : other));
      }
    }
  }

  /** One combination of an extent (value indices), the first in the order of the axes. */
  first(extent: Extent): number[] | null {
    for (const box of this.boxesOf(extent)) return box.map(mask => bits(mask)[0]!);
    return null;
  }

  /** The combinations of the other axes with which a value of one axis lies in the extent; that axis is then free. */
  along(extent: Extent, axis: number, value: number): Extent {
    const done = new Map<Extent, Extent>();
    const cut = (here: Extent): Extent => {
      const level = this.levels[here]!;
      if (level > axis) return here;
      let result = done.get(here);
      if (result === undefined) {
        result =
          level === axis
            ? this.children[here]![this.masks[here]!.findIndex(mask => (mask >> value) & 1)]!
            : this.nodes.node(level, this.masks[here]!, this.children[here]!.map(cut));
        done.set(here, result);
      }
      return result;
    };
    return cut(extent);
  }

  /** Axes on which it depends whether a combination lies in the extent. */
  support(extent: Extent): Set<number> {
    const axes = new Set<number>();
    const visited = new Set<Extent>();
    const visit = (here: Extent): void => {
      if (here <= EVERYWHERE || visited.has(here)) return;
      visited.add(here);
      axes.add(this.levels[here]!);
      this.children[here]!.forEach(visit);
    };
    visit(extent);
    return axes;
  }

  private countBelow(extent: Extent): bigint {
    if (extent <= EVERYWHERE) return BigInt(extent);
    let count = this.counts.get(extent);
    if (count === undefined) {
      count = 0n;
      const next = this.below[this.levels[extent]! + 1]!;
      for (const [edge, mask] of this.masks[extent]!.entries()) {
        const child = this.children[extent]![edge]!;
        if (child === NOWHERE) continue;
        count += BigInt(bitCount(mask)) * this.countBelow(child) * (next / this.below[this.levels[child]!]!);
      }
      this.counts.set(extent, count);
    }
    return count;
  }

  private combined(operation: Operation, a: Extent, b: Extent): Extent {
    const known = this.results[operation].get(a * PAIR + b);
    if (known !== undefined) return known;
    const level = Math.min(this.levels[a]!, this.levels[b]!);
    const everything = [this.full[level]!];
    const [masksA, childrenA] =
      this.levels[a] === level ? [this.masks[a]!, this.children[a]!] : [everything, [a]];
    const [masksB, childrenB] =
      this.levels[b] === level ? [this.masks[b]!, this.children[b]!] : [everything, [b]];
    const masks: number[] = [];
    const children: Extent[] = [];
    for (let i = 0; i < masksA.length; i++) {
      for (let j = 0; j < masksB.length; j++) {
        const both = masksA[i]! & masksB[j]!;
        if (both === 0) continue;
        masks.push(both);
        children.push(this[operation](childrenA[i]!, childrenB[j]!));
      }
    }
    const result = this.nodes.node(level, masks, children);
    const results = this.results[operation];
    // Forgetting costs only time.
    if (results.size >= MAX_RESULTS) results.clear();
    results.set(a * PAIR + b, result);
    return result;
  }
}
