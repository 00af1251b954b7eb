import { isObject } from './json';
import { SCHEMAS, type Schema } from './schemas';
import type { DocumentKind } from './document-kinds';

/**
 * The one way a JSON document is written: keys in the order of its schema (unknown ones after, as they came), two
 * spaces, a final newline. Writing what was read changes no byte. Token files keep the author's order.
 */
export function canonicalText(kind: DocumentKind, document: unknown): string {
  const schema = SCHEMAS[kind];
  const ordered = schema ? inOrder(document, schema, schema) : document;
  return `${JSON.stringify(ordered, null, 2)}\n`;
}

function inOrder(value: unknown, schema: Schema, root: Schema): unknown {
  const here = resolved(schema, root);
  if (Array.isArray(value)) {
    const items = here['items'] as Schema | undefined;
    return items ? value.map(item => inOrder(item, items, root)) : value;
  }
  if (!isObject(value)) return value;
  const known = (here['properties'] ?? {}) as Record<string, Schema>;
  const others = here['additionalProperties'];
  const result: Record<string, unknown> = {};
  for (const key of Object.keys(known)) {
    if (Object.hasOwn(value, key)) result[key] = inOrder(value[key], known[key]!, root);
  }
  for (const key of Object.keys(value)) {
    if (Object.hasOwn(known, key)) continue;
    result[key] = isObject(others) ? inOrder(value[key], others as Schema, root) : value[key];
  }
  return result;
}

function resolved(schema: Schema, root: Schema): Schema {
  const target = schema['$ref'];
  if (typeof target !== 'string') return schema;
  const name = target.replace('#/$defs/', '');
  return (root['$defs'] as Record<string, Schema>)[name] ?? {};
}
