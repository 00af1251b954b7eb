import { findNodeAtLocation, parseTree, type Node } from 'jsonc-parser';
import { pointerSteps } from '@periwinkle/core/json/json';

/** A place in a file, counted from 1. */
export interface LineAndColumn {
  readonly line: number;
  readonly column: number;
}

const trees = new Map<string, Node | undefined>();

/**
 * Where a JSON Pointer leads in a text. For a member the place is that of its key; where the pointer leads to nothing,
 * the nearest place above it.
 */
export function lineAndColumnOf(text: string, pointer: string): LineAndColumn {
  if (!trees.has(text)) trees.set(text, parseTree(text));
  const tree = trees.get(text);
  const steps = pointerSteps(pointer) ?? [];
  for (let length = steps.length; tree && length > 0; length--) {
    const node = nodeAt(tree, steps.slice(0, length));
    if (node) return placeAt(text, node.parent?.type === 'property' ? node.parent.offset : node.offset);
  }
  return placeAt(text, tree?.offset ?? 0);
}

function nodeAt(tree: Node, steps: readonly string[]): Node | undefined {
  let here: Node | undefined = tree;
  for (const step of steps) {
    if (!here) return undefined;
    here = findNodeAtLocation(here, [here.type === 'array' ? Number(step) : step]);
  }
  return here;
}

/** Line and column of an offset. */
export function placeAt(text: string, offset: number): LineAndColumn {
  const before = text.slice(0, offset);
  const line = before.split('\n').length;
  return { line, column: offset - before.lastIndexOf('\n') };
}
