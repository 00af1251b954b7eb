import fc from 'fast-check';
import { isObject, pointer, valueAt } from '../json/json';
import type { Patch, PatchOperation } from '../patch/operations';
import { applyPatch } from '../patch/patch';

/** A document with lists of entries that have ids, of parts within parts, and of texts. */
export const BASE = {
  title: 'T',
  rules: ['a', 'b', 'c', 'd'].map(id => ({ id, set: { frame: { color: `of ${id}`, gap: '1px' } } })),
  anatomy: {
    part: 'root',
    children: ['x', 'y', 'z'].map(part => ({ part, children: [{ part: `${part}1` }, { part: `${part}2` }] })),
  },
  words: ['one', 'two', 'three'],
};

export const set = (path: string, value: unknown): PatchOperation => ({ op: 'replace', path, value });
export const put = (path: string, value: unknown): PatchOperation => ({ op: 'add', path, value });
export const remove = (path: string): PatchOperation => ({ op: 'remove', path });
export const move = (from: string, path: string): PatchOperation => ({ op: 'move', from, path });
export const after = (document: unknown, patch: Patch): unknown => applyPatch(document, patch).document;

/** Every place of a document, as steps. */
const places = (node: unknown, at: readonly (string | number)[] = []): (readonly (string | number)[])[] =>
  Array.isArray(node)
    ? node.flatMap((each, index) => [[...at, index], ...places(each, [...at, index])])
    : isObject(node)
      ? Object.entries(node).flatMap(([key, value]) => [[...at, key], ...places(value, [...at, key])])
      : [];

interface Seed {
  readonly kind:
    'replace' | 'remove' | 'insert' | 'append' | 'member' | 'move' | 'rename' | 'same rule' | 'same part';
  readonly place: number;
  readonly other: number;
}

export const seeds = fc.array(
  fc.record({
    kind: fc.constantFrom<Seed['kind']>(
      ...(['replace', 'remove', 'insert', 'append', 'member', 'move', 'rename'] as const),
      ...(['same rule', 'same part'] as const),
    ),
    place: fc.nat(10_000),
    other: fc.nat(10_000),
  }),
  { minLength: 1, maxLength: 4 },
);

/** A patch of operations each of which fits the document that those before it have left. */
export function patchOf(side: string, wanted: readonly Seed[], base: unknown = BASE): PatchOperation[] {
  let document = base;
  const patch: PatchOperation[] = [];
  for (const [number, seed] of wanted.entries()) {
    const operation = operationOf(document, `${side}${number}`, seed);
    if (!operation) continue;
    patch.push(operation);
    document = after(document, [operation]);
  }
  return patch;
}

function operationOf(document: unknown, mark: string, { kind, place, other }: Seed): PatchOperation | null {
  const all = places(document);
  const pick = (among: typeof all, number: number) => among[number % Math.max(1, among.length)];
  const entries = all.filter(steps => typeof steps.at(-1) === 'number');
  const members = all.filter(steps => typeof steps.at(-1) === 'string');
  const texts = members.filter(steps => typeof valueAt(document, steps) === 'string');
  switch (kind) {
    case 'replace': {
      const at = pick(texts, place);
      return at ? set(pointer(...at), mark) : null;
    }
    case 'remove': {
      const at = pick([...entries, ...texts], place);
      return at ? remove(pointer(...at)) : null;
    }
    case 'insert': {
      const at = pick(entries, place);
      return at ? put(pointer(...at), { id: mark }) : null;
    }
    case 'append': {
      const at = pick(entries, place);
      return at ? put(pointer(...at.slice(0, -1), '-'), { id: mark }) : null;
    }
    case 'member': {
      const at = pick(members, place);
      return at ? put(pointer(...at.slice(0, -1), other % 2 === 0 ? mark : 'note'), mark) : null;
    }
    case 'same rule': {
      // Both sides make a rule of that id; each says something in it.
      const at = pick(entries, place);
      const value = { id: 'same', when: 'there', set: { frame: { [mark]: mark } } };
      const isThere = JSON.stringify(document).includes('"same"');
      return at && !isThere ? put(pointer(...at), value) : null;
    }
    case 'same part': {
      const at = pick(
        members.filter(steps => steps.at(-1) === 'set'),
        place,
      );
      const isThere = !at || valueAt(document, [...at, 'root']) !== undefined;
      return isThere ? null : put(pointer(...at, 'root'), { [mark]: mark });
    }
    case 'move': {
      const from = pick(entries, place);
      if (!from) return null;
      const left = after(document, [remove(pointer(...from))]);
      const to = pick(
        places(left).filter(steps => typeof steps.at(-1) === 'number'),
        other,
      );
      // JSON Patch cannot say that an entry goes into the one behind it.
      const isSaid = to && !pointer(...to).startsWith(`${pointer(...from)}/`);
      return isSaid ? move(pointer(...from), pointer(...to)) : null;
    }
    case 'rename': {
      const from = pick(texts, place);
      // Moved to where it is, it becomes the last.
      const to = from && (other % 3 === 0 ? from : [...from.slice(0, -1), mark]);
      return from && to ? move(pointer(...from), pointer(...to)) : null;
    }
  }
}
