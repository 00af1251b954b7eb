import { escapeHtml } from '../text/html-text';
import type { FieldNode } from './field-tree';

const VOID = new Set(['input']);
const FLAGS = new Set(['disabled', 'readonly', 'required']);

/** A field as HTML, two spaces a level, for reading as much as for pasting. Drawings are put in by `icons`. */
export function fieldHtml(node: FieldNode, indent = ''): string {
  const attributes = node.attributes
    .map(([name, value]) =>
      FLAGS.has(name) && value === '' ? ` ${name}` : ` ${name}="${escapeHtml(value)}"`,
    )
    .join('');
  const open = `${indent}<${node.tag}${attributes}>`;
  if (VOID.has(node.tag)) return open;
  if (node.drawing !== undefined) return `${open}${node.drawing}</${node.tag}>`;
  const [first] = node.children;
  if (node.children.length === 0) return `${open}</${node.tag}>`;
  if (node.children.length === 1 && typeof first === 'string')
    return `${open}${escapeHtml(first)}</${node.tag}>`;
  const inner = node.children.map(child =>
    typeof child === 'string' ? escapeHtml(child) : fieldHtml(child, `${indent}  `),
  );
  return `${open}\n${inner.join('\n')}\n${indent}</${node.tag}>`;
}
