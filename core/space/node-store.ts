/**
 * A set of combinations inside an `Extents`, however shaped; `NOWHERE` and `EVERYWHERE` are the same in all. Two extents
 * are the same set exactly when they are the same number.
 */
export type Extent = number;

export const NOWHERE: Extent = 0;
export const EVERYWHERE: Extent = 1;

const ROOM = 256;

/** Sets so shaped that nobody could oversee them. */
export class TangledSets extends Error {
  constructor() {
    super('These sets of combinations overlap in more ways than can be worked out.');
    this.name = 'TangledSets';
  }
}

/**
 * The nodes of decision diagrams, each there only once, so that equal sets are equal numbers. A node has a level (an axis)
 * and edges: masks of values, disjoint and together all values, each with the child that these values lead to. Everything
 * lies in plain arrays of numbers; they are exchanged as they grow, so nobody keeps them while nodes are made. Making more than `most` throws `TangledSets`.
 */
export class NodeStore {
  /** Far more nodes than any question about a component of 10^12 combinations has needed. */
  static most = 4_000_000;

  /** By node; the two leaves lie below the last axis. */
  levels = new Int32Array(ROOM);
  /** By node: where its edges begin; they end where those of the next begin. Edges stand in the order of their lowest values. */
  starts = new Int32Array(ROOM);
  /** By edge. */
  masks = new Int32Array(ROOM);
  /** By edge. */
  children = new Int32Array(ROOM);
  /** Number of nodes. */
  size = 2;

  /** Nodes by hash, each at its place or the next free one after it; 0 where there is none. */
  private table = new Int32Array(ROOM * 2);
  /** Edges of nodes in the making, those of an inner one after those of the outer. */
  private wipMasks = new Int32Array(ROOM);
  private wipChildren = new Int32Array(ROOM);
  private wipEnd = 0;

  constructor(levels: number) {
    this.levels[NOWHERE] = levels;
    this.levels[EVERYWHERE] = levels;
  }

  /** Begins a node; the number goes to `edge` and `finish`. Others may be made before it is finished. */
  begin(): number {
    return this.wipEnd;
  }

  /** Adds an edge to the node begun last. Edges to the same child become one. */
  edge(begun: number, mask: number, child: Extent): void {
    const end = this.wipEnd;
    for (let at = begun; at < end; at++) {
      if (this.wipChildren[at] === child) {
        this.wipMasks[at]! |= mask;
        return;
      }
    }
    if (end === this.wipMasks.length) {
      this.wipMasks = grown(this.wipMasks);
      this.wipChildren = grown(this.wipChildren);
    }
    this.wipMasks[end] = mask;
    this.wipChildren[end] = child;
    this.wipEnd = end + 1;
  }

  /** The one node with the edges added since; a node with one child is that child. */
  finish(begun: number, level: number): Extent {
    const end = this.wipEnd;
    this.wipEnd = begun;
    if (end - begun === 1) return this.wipChildren[begun]!;
    this.sort(begun, end);
    return this.only(level, begun, end);
  }

  /** Sorts edges in the making by the lowest value of each; there are few. */
  private sort(begun: number, end: number): void {
    const { wipMasks: masks, wipChildren: children } = this;
    for (let next = begun + 1; next < end; next++) {
      const mask = masks[next]!;
      const child = children[next]!;
      const lowest = mask & -mask;
      let at = next;
      for (; at > begun && lowest < (masks[at - 1]! & -masks[at - 1]!); at--) {
        masks[at] = masks[at - 1]!;
        children[at] = children[at - 1]!;
      }
      masks[at] = mask;
      children[at] = child;
    }
  }

  /** The node with just these edges, made if there is none yet. */
  private only(level: number, begun: number, end: number): Extent {
    let hash = level;
    for (let at = begun; at < end; at++) hash = mixed(hash, this.wipMasks[at]!, this.wipChildren[at]!);
    const wrap = this.table.length - 1;
    let place = hash & wrap;
    for (let node = this.table[place]!; node !== 0; node = this.table[place]!) {
      if (this.levels[node] === level && this.hasEdges(node, begun, end)) return node;
      place = (place + 1) & wrap;
    }
    const node = this.append(level, begun, end);
    this.table[place] = node;
    if (this.size * 2 > this.table.length) this.spread();
    return node;
  }

  private hasEdges(node: Extent, begun: number, end: number): boolean {
    let edge = this.starts[node]!;
    if (this.starts[node + 1]! - edge !== end - begun) return false;
    for (let at = begun; at < end; at++, edge++) {
      if (this.children[edge] !== this.wipChildren[at] || this.masks[edge] !== this.wipMasks[at])
        return false;
    }
    return true;
  }

  private append(level: number, begun: number, end: number): Extent {
    if (this.size >= NodeStore.most) throw new TangledSets();
    const node = this.size++;
    // The start of the next node is written too.
    if (this.size >= this.levels.length) {
      this.levels = grown(this.levels);
      this.starts = grown(this.starts);
    }
    this.levels[node] = level;
    let edge = this.starts[node]!;
    while (edge + end - begun > this.masks.length) {
      this.masks = grown(this.masks);
      this.children = grown(this.children);
    }
    for (let at = begun; at < end; at++, edge++) {
      this.masks[edge] = this.wipMasks[at]!;
      this.children[edge] = this.wipChildren[at]!;
    }
    this.starts[node + 1] = edge;
    return node;
  }

  /** Twice as many places for the nodes. */
  private spread(): void {
    this.table = new Int32Array(this.table.length * 2);
    const wrap = this.table.length - 1;
    for (let node = 2; node < this.size; node++) {
      let hash = this.levels[node]!;
      for (let edge = this.starts[node]!; edge < this.starts[node + 1]!; edge++) {
        hash = mixed(hash, this.masks[edge]!, this.children[edge]!);
      }
      let place = hash & wrap;
      while (this.table[place] !== 0) place = (place + 1) & wrap;
      this.table[place] = node;
    }
  }
}

function mixed(hash: number, mask: number, child: Extent): number {
  const next = Math.imul(hash ^ mask, 0x9e3779b1) ^ Math.imul(child, 0x85ebca6b);
  return next ^ (next >>> 15);
}

function grown(numbers: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(numbers.length * 2);
  larger.set(numbers);
  return larger;
}
