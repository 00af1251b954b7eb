import { bits, bitCount, isEmpty, type Box } from './box';
import { EVERYWHERE, NodeStore, NOWHERE, type Extent } from './node-store';

/** Everything that can be asked about extents without making new ones. */
export abstract class ExtentReader {
  /** By axis. */
  protected readonly levelOf: readonly number[];
  protected readonly nodes: NodeStore;
  private readonly counts = new Map<Extent, bigint>();
  /** The axes that combinations are counted over; the others lie on lower levels. */
  readonly own: Box;
  /** Own combinations over the axes from each level on. */
  private readonly below: readonly bigint[];
  /** By node: the last walk that marked it. */
  private visited = new Int32Array(0);
  private visits = 0;
  /** By node: what a walk that counts has found below it. */
  private sums = new Float64Array(0);

  /**
   * `axisAt` names the axis of each level. Sets stay small when axes that depend on one another lie together, and those on
   * which most sets depend low. Only the first `own` axes count; they have the first levels.
   */
  constructor(
    readonly full: Box,
    protected readonly axisAt: readonly number[] = [...full.keys()],
    own = full.length,
  ) {
    this.own = full.slice(0, own);
    const below = [1n];
    for (const axis of axisAt.slice(0, own).reverse())
      below.unshift(below[0]! * BigInt(bitCount(full[axis]!)));
    this.below = below;
    this.levelOf = [...full.keys()].map(axis => axisAt.indexOf(axis));
    this.nodes = new NodeStore(full.length);
  }

  /** Whether `share` is exact: every number on the way is a whole one that a double can hold. */
  protected get countsExactly(): boolean {
    return this.below[0]! <= 2n ** 53n;
  }

  /** How many nodes there are; grows with use, never shrinks. */
  get size(): number {
    return this.nodes.size;
  }

  /** Number of combinations of the own axes that lie in the extent with some combination of the others. */
  count(extent: Extent): bigint {
    return this.countBelow(extent) * (this.below[0]! / this.below[this.ownLevel(extent)]!);
  }

  /** The level of a node; one for all that are below the own axes. */
  protected ownLevel(node: Extent): number {
    return Math.min(this.nodes.levels[node]!, this.own.length);
  }

  /**
   * Number of combinations of a box over the own axes that lie in the extent, exact as long as the space has at most 2^53 combinations; makes
   * no new nodes. One walk through what of the diagram lies in the box.
   */
  share(extent: Extent, box: Box): number {
    if (extent === NOWHERE || isEmpty(box)) return 0;
    const { levels, starts, masks, children } = this.nodes;
    const visit = this.newVisit();
    if (this.sums.length < this.visited.length) this.sums = new Float64Array(this.visited.length);
    const { visited, sums } = this;
    const own = this.own.length;
    const wanted = this.axisAt.slice(0, own).map(axis => box[axis]!);
    /** Combinations of the box over the axes before each level. */
    const before = [1];
    for (const mask of wanted) before.push(before.at(-1)! * bitCount(mask));
    /** Over the axes from the node's own level on. */
    const below = (here: Extent): number => {
      if (here <= EVERYWHERE) return here;
      if (visited[here] === visit) return sums[here]!;
      const level = levels[here]!;
      if (level >= own) return 1;
      let sum = 0;
      for (let edge = starts[here]!; edge < starts[here + 1]!; edge++) {
        const child = children[edge]!;
        if (child === NOWHERE || (masks[edge]! & wanted[level]!) === 0) continue;
        const values = bitCount(masks[edge]! & wanted[level]!);
        sum += values * (before[this.ownLevel(child)]! / before[level + 1]!) * below(child);
      }
      visited[here] = visit;
      sums[here] = sum;
      return sum;
    };
    return before[this.ownLevel(extent)]! * below(extent);
  }

  has(extent: Extent, indices: readonly number[]): boolean {
    let here = extent;
    while (here > EVERYWHERE) here = this.childAt(here, indices[this.axisOf(here)]!);
    return here === EVERYWHERE;
  }

  /** Whether some combination of the box, which may leave out the axes that are not own, lies in the extent. */
  meets(extent: Extent, box: Box): boolean {
    return !isEmpty(box) && this.search(extent, box, this.newVisit());
  }

  /** The values of an axis with which some combination of the box, that axis left aside, lies in the extent, as a mask. */
  meeting(extent: Extent, box: Box, axis: number): number {
    const { levels, starts, masks, children } = this.nodes;
    const visit = this.newVisit();
    const full = this.full[axis]!;
    const cutLevel = this.levelOf[axis]!;
    let found = 0;
    const visitAbove = (here: Extent): void => {
      if (levels[here]! > cutLevel) {
        if (this.search(here, box, visit)) found = full;
        return;
      }
      if (this.visited[here] === visit) return;
      this.visited[here] = visit;
      const own = this.axisOf(here);
      for (let edge = starts[here]!; edge < starts[here + 1]! && found !== full; edge++) {
        const mask = masks[edge]!;
        if (own !== axis) {
          if ((mask & (box[own] ?? mask)) !== 0) visitAbove(children[edge]!);
        } else if ((mask & ~found) !== 0 && this.search(children[edge]!, box, visit)) found |= mask;
      }
    };
    visitAbove(extent);
    return found;
  }

  /** The smallest box around an extent, over all axes or only the own ones; every mask 0 when there is nothing in it. */
  hull(extent: Extent, over: 'all' | 'own' = 'all'): Box {
    const { levels, starts, masks, children } = this.nodes;
    const end = over === 'own' ? this.own.length : this.full.length;
    const hull = Array<number>(end).fill(0);
    const visited = new Set<Extent>();
    const skip = (from: number, to: number): void => {
      for (let level = from; level < to && level < end; level++) {
        const axis = this.axisAt[level]!;
        hull[axis] = this.full[axis]!;
      }
    };
    const visit = (here: Extent): void => {
      if (here <= EVERYWHERE || levels[here]! >= end || visited.has(here)) return;
      visited.add(here);
      const level = levels[here]!;
      for (let edge = starts[here]!; edge < starts[here + 1]!; edge++) {
        const child = children[edge]!;
        if (child === NOWHERE) continue;
        hull[this.axisAt[level]!]! |= masks[edge]!;
        skip(level + 1, levels[child]!);
        visit(child);
      }
    };
    if (extent === NOWHERE) return hull;
    skip(0, levels[extent]!);
    visit(extent);
    return hull;
  }

  /** The extent as disjoint boxes, lazily: there may be many. */
  *boxesOf(extent: Extent): Generator<Box> {
    yield* this.boxesAlong(extent, [...this.full]);
  }

  /** One combination of an extent (value indices), always the same. */
  first(extent: Extent): number[] | null {
    for (const box of this.boxesOf(extent)) return box.map(mask => bits(mask)[0]!);
    return null;
  }

  /** Axes on which it depends whether a combination lies in the extent. */
  support(extent: Extent): Set<number> {
    const { starts, children } = this.nodes;
    const axes = new Set<number>();
    const visited = new Set<Extent>();
    const visit = (here: Extent): void => {
      if (here <= EVERYWHERE || visited.has(here)) return;
      visited.add(here);
      axes.add(this.axisOf(here));
      for (let edge = starts[here]!; edge < starts[here + 1]!; edge++) visit(children[edge]!);
    };
    visit(extent);
    return axes;
  }

  protected axisOf(node: Extent): number {
    return this.axisAt[this.nodes.levels[node]!]!;
  }

  /** Where a value of the node's own axis leads. */
  protected childAt(node: Extent, value: number): Extent {
    const { starts, masks, children } = this.nodes;
    let edge = starts[node]!;
    while (((masks[edge]! >> value) & 1) === 0) edge++;
    return children[edge]!;
  }

  /** A number for a walk that marks nodes in `visited`. */
  private newVisit(): number {
    if (this.visited.length < this.nodes.size) {
      this.visited = new Int32Array(this.nodes.levels.length);
      this.visits = 0;
    }
    return ++this.visits;
  }

  /** Whether some combination of the box, which is not empty, lies in the extent; marks the nodes where none does. */
  private search(here: Extent, box: Box, visit: number): boolean {
    if (here === EVERYWHERE) return true;
    if (here === NOWHERE || this.visited[here] === visit) return false;
    const { starts, masks, children } = this.nodes;
    const axis = this.axisOf(here);
    const wanted = box[axis] ?? this.full[axis]!;
    for (let edge = starts[here]!; edge < starts[here + 1]!; edge++) {
      if ((masks[edge]! & wanted) !== 0 && this.search(children[edge]!, box, visit)) return true;
    }
    this.visited[here] = visit;
    return false;
  }

  /** The boxes below a node; `path` holds the masks taken on the way to it, and again afterwards. */
  private *boxesAlong(here: Extent, path: number[]): Generator<Box> {
    if (here === EVERYWHERE) yield [...path];
    if (here <= EVERYWHERE) return;
    const axis = this.axisOf(here);
    const end = this.nodes.starts[here + 1]!;
    for (let edge = this.nodes.starts[here]!; edge < end; edge++) {
      path[axis] = this.nodes.masks[edge]!;
      yield* this.boxesAlong(this.nodes.children[edge]!, path);
    }
    path[axis] = this.full[axis]!;
  }

  private countBelow(extent: Extent): bigint {
    if (extent <= EVERYWHERE) return BigInt(extent);
    const { levels, starts, masks, children } = this.nodes;
    if (levels[extent]! >= this.own.length) return 1n;
    let count = this.counts.get(extent);
    if (count === undefined) {
      count = 0n;
      const next = this.below[levels[extent]! + 1]!;
      for (let edge = starts[extent]!; edge < starts[extent + 1]!; edge++) {
        const child = children[edge]!;
        if (child === NOWHERE) continue;
        const values = BigInt(bitCount(masks[edge]!));
        count += values * this.countBelow(child) * (next / this.below[this.ownLevel(child)]!);
      }
      this.counts.set(extent, count);
    }
    return count;
  }
}
