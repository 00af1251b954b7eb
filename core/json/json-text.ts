import { keepOrder, keysInOrder } from './key-order';

/** Names that look like whole numbers, the only ones whose order would be lost. */
const NUMBER_KEY = /"(?:0|[1-9]\d*)"\s*:/;

/** `JSON.parse` that keeps the order of all keys. Throws `SyntaxError`. */
export function parseJson(text: string): unknown {
  const value: unknown = JSON.parse(text);
  if (NUMBER_KEY.test(text)) keepOrders(text, value);
  return value;
}

/** `JSON.stringify` that writes keys in the order in which they were read; `space` is the number of spaces a level. */
export function writeJson(value: unknown, space = 0): string {
  const line = (depth: number): string => (space === 0 ? '' : `\n${' '.repeat(space * depth)}`);
  const write = (node: unknown, depth: number): string => {
    if (typeof node !== 'object' || node === null) return JSON.stringify(node) ?? 'null';
    const isList = Array.isArray(node);
    const members = isList
      ? node.map(item => write(item, depth + 1))
      : keysInOrder(node)
          .filter(key => (node as Record<string, unknown>)[key] !== undefined)
          .map(
            key =>
              `${JSON.stringify(key)}:${space === 0 ? '' : ' '}${write((node as Record<string, unknown>)[key], depth + 1)}`,
          );
    const [open, close] = isList ? '[]' : '{}';
    if (members.length === 0) return `${open}${close}`;
    return open + line(depth + 1) + members.join(`,${line(depth + 1)}`) + line(depth) + close;
  };
  return write(value, 0);
}

/** A place in JSON text: told of each container as it opens and closes, each comma, each key; `false` ends the walk. */
export interface JsonVisitor {
  readonly open?: (offset: number, isList: boolean) => boolean | undefined;
  readonly key?: (name: string, offset: number) => boolean | undefined;
  readonly comma?: (offset: number) => boolean | undefined;
  readonly close?: () => void;
}

/**
 * Walks through JSON text without recursion, whatever its depth. Text that is not JSON is walked through as far as it looks
 * like it.
 */
export function walkJson(text: string, { open, key, comma, close }: JsonVisitor): void {
  /** By container: whether it is a list. */
  const lists: boolean[] = [];
  const next = /[[\]{},"]/g;
  let expectsKey = false;
  for (let found = next.exec(text); found; found = next.exec(text)) {
    const at = found.index;
    switch (found[0]) {
      case '{':
      case '[':
        lists.push(found[0] === '[');
        expectsKey = found[0] === '{';
        if (open?.(at, found[0] === '[') === false) return;
        break;
      case '}':
      case ']':
        lists.pop();
        expectsKey = false;
        close?.();
        break;
      case ',':
        expectsKey = lists.at(-1) === false;
        if (comma?.(at) === false) return;
        break;
      default: {
        const end = stringEnd(text, at);
        if (expectsKey && key?.(nameIn(text.slice(at, end + 1)), at) === false) return;
        expectsKey = false;
        next.lastIndex = end + 1;
      }
    }
  }
}

/** Where a string that begins at a quotation mark has its last one; the end of the text where it has none. */
export function stringEnd(text: string, start: number): number {
  for (let end = text.indexOf('"', start + 1); end >= 0; end = text.indexOf('"', end + 1)) {
    let slashes = 0;
    while (text[end - 1 - slashes] === '\\') slashes++;
    if (slashes % 2 === 0) return end;
  }
  return text.length;
}

function nameIn(quoted: string): string {
  if (!quoted.includes('\\')) return quoted.slice(1, -1);
  try {
    return JSON.parse(quoted) as string;
  } catch {
    return quoted;
  }
}

/** Keeps the order of every object of a value, as the text has it. */
function keepOrders(text: string, root: unknown): void {
  interface Container {
    readonly value: unknown;
    readonly keys: string[] | null;
    /** Where in a list the walk is. */
    index: number;
  }
  const containers: Container[] = [];
  walkJson(text, {
    open(_, isList) {
      const outer = containers.at(-1);
      let value = root;
      if (outer)
        value = (outer.value as Record<string, unknown> | undefined)?.[outer.keys?.at(-1) ?? outer.index];
      containers.push({ value, keys: isList ? null : [], index: 0 });
      return undefined;
    },
    key(name) {
      containers.at(-1)!.keys!.push(name);
      return undefined;
    },
    comma() {
      const here = containers.at(-1);
      if (here) here.index++;
    },
    close() {
      const { value, keys } = containers.pop()!;
      if (keys && typeof value === 'object' && value !== null) keepOrder(value, [...new Set(keys)]);
    },
  });
}
