import type { FieldNode } from '@periwinkle/core/render/field-tree';

/** Builds a field's elements. Text goes in as text; drawings come from the core, reduced to plain shapes. */
export function buildField(node: FieldNode): HTMLElement {
  const element = document.createElement(node.tag);
  for (const [name, value] of node.attributes) element.setAttribute(name, value);
  if (node.drawing !== undefined) element.append(drawing(node.drawing));
  for (const child of node.children) element.append(typeof child === 'string' ? child : buildField(child));
  return element;
}

const drawings = new Map<string, Node>();

function drawing(svg: string): Node {
  let parsed = drawings.get(svg);
  if (!parsed) {
    parsed = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
    drawings.set(svg, parsed);
  }
  return document.importNode(parsed, true);
}
