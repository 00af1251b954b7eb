/**
 * Remembers what was made of some objects for as long as these live. Any number of combinations of objects are remembered side
 * by side, so that documents which share parts do not displace one another's results.
 */
export class ObjectMemo<Result> {
  private readonly roots = new WeakMap<object, Node<Result>>();

  /** The result for these objects, in this order; at least one. Those that many combinations share come first. */
  of(keys: readonly [object, ...object[]], make: () => Result): Result {
    const node = this.node(keys);
    if (!node.made) node.made = { result: make() };
    return node.made.result;
  }

  /** The next call for these objects makes their result anew. */
  forget(keys: readonly [object, ...object[]]): void {
    this.node(keys).made = null;
  }

  private node(keys: readonly object[]): Node<Result> {
    let level = this.roots;
    let node: Node<Result> | undefined;
    for (const key of keys) {
      if (node) level = node.below ??= new WeakMap();
      node = level.get(key);
      if (!node) level.set(key, (node = { made: null, below: null }));
    }
    return node!;
  }
}

interface Node<Result> {
  made: { readonly result: Result } | null;
  /** There only where a combination goes on: such maps cost time while memory is tidied. */
  below: WeakMap<object, Node<Result>> | null;
}
