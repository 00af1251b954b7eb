/**
 * A set of combinations inside an `Extents`, however shaped; `NOWHERE` and `EVERYWHERE` are the same in all. Two extents
 * are the same set exactly when they are the same number.
 */
export type Extent = number;

export const NOWHERE: Extent = 0;
export const EVERYWHERE: Extent = 1;

/**
 * The nodes of decision diagrams, each there only once, so that equal sets are equal numbers. A node has a level (an axis)
 * and edges: masks of values, disjoint and together all values, each with the child that these values lead to.
 */
export class NodeStore {
  readonly levels: number[] = [];
  /** By node, in the order of their lowest values. */
  readonly masks: (readonly number[])[] = [];
  readonly children: (readonly Extent[])[] = [];
  /** Last node made with a hash, and for each node the one before it with the same. */
  private readonly chains = new Map<number, Extent>();
  private readonly nextInChain: Extent[] = [];

  constructor(levels: number) {
    // The two leaves lie below the last axis.
    for (let leaf = 0; leaf < 2; leaf++) {
      this.levels.push(levels);
      this.masks.push([]);
      this.children.push([]);
      this.nextInChain.push(NOWHERE);
    }
  }

  /** The one node with these edges. Edges to the same child become one; a node with one child is that child. */
  node(level: number, masks: readonly number[], children: readonly Extent[]): Extent {
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
