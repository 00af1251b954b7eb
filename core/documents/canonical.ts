import { isObject } from '../json/json';
import { writeJson } from '../json/json-text';
import { keepOrder, keysInOrder } from '../json/key-order';
import { SCHEMAS } from './schemas';
import { type Schema } from './shape';
import type { DocumentKind } from './document-kinds';

/**
 * The one way a JSON document is written: keys in the order of its schema (unknown ones after, as they came), two
 * spaces, a final newline. Writing what was read changes no byte. Token files keep the author's order.
 */
export function canonicalText(kind: DocumentKind, document: unknown): string {
  const schema = SCHEMAS[kind];
  const ordered = schema ? inOrder(document, schema, schema) : document;
  return `${writeJson(ordered, 2)}\n`;
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
  const keys = [
    ...Object.keys(known).filter(key => Object.hasOwn(value, key)),
    ...keysInOrder(value).filter(key => !Object.hasOwn(known, key)),
  ];
  const ordered = (key: string): unknown => {
    if (Object.hasOwn(known, key)) return inOrder(value[key], known[key]!, root);
    return isObject(others) ? inOrder(value[key], others as Schema, root) : value[key];
  };
  return keepOrder(Object.fromEntries(keys.map(key => [key, ordered(key)])), keys);
}

function resolved(schema: Schema, root: Schema): Schema {
  const target = schema['$ref'];
  if (typeof target !== 'string') return schema;
  const name = target.replace('#/$defs/', '');
  return (root['$defs'] as Record<string, Schema>)[name] ?? {};
}
