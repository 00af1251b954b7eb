import { bits, bitCount, intersect, isEmpty, type Box } from './box';

/**
 * A set of combinations inside an `Extents`, however shaped; `NOWHERE` and `EVERYWHERE` are the same in all. Two extents
 * are the same set exactly when they are the same number.
 */
export type Extent = number;

export const NOWHERE: Extent = 0;
export const EVERYWHERE: Extent = 1;

type Operation = 'and' | 'or' | 'minus';

/** Pairs of extents are looked up by one number; so many extents one `Extents` may hold. */
const PAIR = 2 ** 26;

/**
 * Sets of combinations over some axes as multi-valued decision diagrams: one level per axis, at each node the values
 * parted by where they lead, equal nodes shared (R. E. Bryant, "Graph-Based Algorithms for Boolean Function
 * Manipulation", 1986; A. Srinivasan et al., "Algorithms for Discrete Function Manipulation", 1990). Union, intersection
 * and difference cost at most the product of the two sizes, counting is linear in the size, and the size follows how
 * tangled a set is, not how many combinations it holds.
 */
export class Extents {
  private readonly levels: number[] = [];
  /** Per node the masks of values that lead to the same child; disjoint, together all values, by lowest bit. */
  private readonly masks: (readonly number[])[] = [];
  private readonly children: (readonly Extent[])[] = [];
  /** Last node made with a hash, and for each node the one before it with the same. */
  private readonly chains = new Map<number, Extent>();
  private readonly nextInChain: Extent[] = [];
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
    // The two leaves lie below the last axis.
    for (let leaf = 0; leaf < 2; leaf++) {
      this.levels.push(full.length);
      this.masks.push([]);
      this.children.push([]);
      this.nextInChain.push(NOWHERE);
    }
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
        if (outside !== 0) extent = this.node(axis, [box[axis]!, outside], [extent, NOWHERE]);
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
            : this.node(level, this.masks[here]!, this.children[here]!.map(cut));
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

  /** Whether every combination of `inner` lies in `outer`. */
  contains(outer: Box, inner: Extent): boolean {
    const hull = this.hull(inner);
    return intersect(hull, outer).every((mask, axis) => mask === hull[axis]);
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
    const result = this.node(level, masks, children);
    this.results[operation].set(a * PAIR + b, result);
    return result;
  }

  /** The one node with these edges. Edges to the same child become one; a node with one child is that child. */
  private node(level: number, masks: readonly number[], children: readonly Extent[]): Extent {
    const ownMasks: number[] = [];
    const ownChildren: Extent[] = [];
    for (let edge = 0; edge < masks.length; edge++) {
      const same = ownChildren.indexOf(children[edge]!);
      if (same >= 0) {
        ownMasks[same]! |= masks[edge]!;
      } else {
        ownMasks.push(masks[edge]!);
        ownChildren.push(children[edge]!);
      }
    }
    if (ownChildren.length === 1) return ownChildren[0]!;
    inOrder(ownMasks, ownChildren);
    return this.only(level, ownMasks, ownChildren);
  }

  /** The node with just these edges, made if there is none yet; nodes with the same hash form a chain. */
  private only(level: number, masks: readonly number[], children: readonly Extent[]): Extent {
    let hash = level;
    for (let edge = 0; edge < masks.length; edge++) {
      hash = Math.imul(hash ^ masks[edge]!, 0x9e3779b1) ^ Math.imul(children[edge]!, 0x85ebca6b);
    }
    const first = this.chains.get(hash) ?? NOWHERE;
    for (let node = first; node !== NOWHERE; node = this.nextInChain[node]!) {
      if (
        this.levels[node] === level &&
        alike(this.masks[node]!, masks) &&
        alike(this.children[node]!, children)
      )
        return node;
    }
    const made = this.levels.length;
    this.levels.push(level);
    this.masks.push(masks);
    this.children.push(children);
    this.nextInChain.push(first);
    this.chains.set(hash, made);
    return made;
  }
}

const alike = (a: readonly number[], b: readonly number[]): boolean => {
  if (a.length !== b.length) return false;
  for (let index = 0; index < a.length; index++) if (a[index] !== b[index]) return false;
  return true;
};

/** Sorts edges by the lowest value of each, in place; there are few. */
function inOrder(masks: number[], children: Extent[]): void {
  for (let end = 1; end < masks.length; end++) {
    for (let at = end; at > 0 && (masks[at]! & -masks[at]!) < (masks[at - 1]! & -masks[at - 1]!); at--) {
      [masks[at - 1], masks[at]] = [masks[at]!, masks[at - 1]!];
      [children[at - 1], children[at]] = [children[at]!, children[at - 1]!];
    }
  }
}
