import { isObject, pointer, type JsonObject, type Step } from '../json/json';
import { keysInOrder } from '../json/key-order';
import { ObjectMemo } from '../json/object-memo';
import type { ProblemList } from '../json/problem';
import { memberFaults } from './member-faults';

/** Where something was written. */
export interface Origin {
  readonly file: string;
  readonly pointer: string;
}

/** A token as it was written, before any reference is followed. */
export interface DeclaredToken {
  readonly kind: 'token';
  readonly body: JsonObject;
  readonly origin: Origin;
}

/** A group as it was written; members keep the order of the file. */
export interface DeclaredGroup {
  readonly kind: 'group';
  /** `$type`, `$description`, `$extends`, … */
  readonly own: JsonObject;
  readonly members: ReadonlyMap<string, DeclaredToken | DeclaredGroup>;
  readonly origin: Origin;
}

/** Reports a problem at an origin. */
export type Report = (origin: Origin, list: (problems: ProblemList, pointer: string) => void) => void;

/** What bodies were read as that nothing is wrong with, by the place where they stand. */
const read = new ObjectMemo<Map<string, DeclaredGroup>>();

/**
 * Reads one token file (or an inline tree of a resolver document) into groups and tokens. What has not changed and stands where it
 * stood is read as the same object.
 */
export function readTree(body: unknown, file: string, at: readonly Step[], report: Report): DeclaredGroup {
  if (!isObject(body)) return readGroup(body, file, at, report);
  const known = read.of([body], () => new Map<string, DeclaredGroup>());
  const place = `${file}\n${pointer(...at)}`;
  let group = known.get(place);
  if (!group) {
    let isSound = true;
    group = readGroup(body, file, at, (origin, tell) => {
      isSound = false;
      report(origin, tell);
    });
    if (isSound) known.set(place, group);
  }
  return group;
}

function readGroup(body: unknown, file: string, at: readonly Step[], report: Report): DeclaredGroup {
  const origin = { file, pointer: pointer(...at) };
  if (!isObject(body)) {
    report(origin, (problems, here) =>
      problems.error(here, 'wrong-type', 'A group of tokens must be an object.'),
    );
    return { kind: 'group', own: {}, members: new Map(), origin };
  }
  tellMembers(body, at.length === 0 ? 'file' : 'group', origin, report);
  const own: Record<string, JsonObject[string]> = {};
  const members = new Map<string, DeclaredToken | DeclaredGroup>();
  for (const name of keysInOrder(body)) {
    const value = body[name]!;
    if (name.startsWith('$') && name !== '$root') {
      own[name] = value;
      continue;
    }
    const steps = [...at, name];
    const place = { file, pointer: pointer(...steps) };
    if (!checkName(name, place, report)) continue;
    if (isObject(value) && Object.hasOwn(value, '$value')) {
      tellMembers(value, 'token', place, report);
      members.set(name, { kind: 'token', body: value, origin: place });
    } else members.set(name, readTree(value, file, steps, report));
  }
  return { kind: 'group', own, members, origin };
}

function tellMembers(
  body: JsonObject,
  kind: 'token' | 'group' | 'file',
  origin: Origin,
  report: Report,
): void {
  for (const { at, severity, code, message, suggestion } of memberFaults(body, kind))
    report(origin, (list, here) => list[severity](here + pointer(...at), code, message, suggestion));
}

function checkName(name: string, origin: Origin, report: Report): boolean {
  const fault = name === '' ? 'is empty' : /[{}.]/.test(name) ? 'holds one of { } .' : null;
  if (fault) report(origin, (list, at) => list.error(at, 'bad-name', `A token's or group's name ${fault}.`));
  return fault === null;
}

const merged = new ObjectMemo<DeclaredGroup>();

/** A tree in which nothing stands. */
export const NO_TOKENS: DeclaredGroup = {
  kind: 'group',
  own: {},
  members: new Map(),
  origin: { file: '', pointer: '' },
};

/**
 * Lays trees over one another, all at once: the later wins token by token, groups grow together. The same trees give the same object, and one
 * over which nothing lies stays the object it is.
 */
export function mergeTrees(trees: readonly DeclaredGroup[]): DeclaredGroup {
  const [first, ...others] = withoutRepeats(trees.filter(tree => !isBare(tree)));
  if (!first) return trees.at(-1) ?? NO_TOKENS;
  return others.length === 0 ? first : merged.of([first, ...others], () => laidOver([first, ...others]));
}

/** Of a tree that is there several times only the first, whose names come first, and the last, which wins. */
function withoutRepeats(trees: readonly DeclaredGroup[]): readonly DeclaredGroup[] {
  const last = new Map(trees.map((tree, index) => [tree, index]));
  if (last.size === trees.length) return trees;
  const first = new Map(trees.map((tree, index) => [tree, index] as const).toReversed());
  return trees
    .filter((tree, index) => first.get(tree) === index || last.get(tree) === index)
    .filter((tree, index, kept) => tree !== kept[index - 1]);
}

const isBare = ({ own, members }: DeclaredGroup): boolean =>
  members.size === 0 && Object.keys(own).length === 0;

/** A later source that gives a token another value and says nothing else of it leaves the rest as it was. */
const isValueAlone = ({ body }: DeclaredToken): boolean => Object.keys(body).length === 1;

const revaluedOnes = new ObjectMemo<DeclaredToken>();

const revalued = (before: DeclaredToken, later: DeclaredToken): DeclaredToken =>
  revaluedOnes.of([before, later], () => ({ ...later, body: { ...before.body, ...later.body } }));

function laidOver(trees: readonly DeclaredGroup[]): DeclaredGroup {
  const members = new Map<string, DeclaredToken | DeclaredGroup>();
  /** Groups of the same name, as far as no token lies between them. */
  const grown = new Map<string, DeclaredGroup[]>();
  for (const tree of trees)
    for (const [name, member] of tree.members) {
      const before = members.get(name);
      if (before?.kind === 'token' && member.kind === 'token' && isValueAlone(member)) {
        members.set(name, revalued(before, member));
        continue;
      }
      if (before?.kind !== 'group' || member.kind !== 'group') grown.delete(name);
      else {
        const groups = grown.get(name);
        if (groups) groups.push(member);
        else grown.set(name, [before, member]);
      }
      members.set(name, member);
    }
  for (const [name, groups] of grown) members.set(name, mergeTrees(groups));
  const own = Object.assign({}, ...trees.map(tree => tree.own)) as JsonObject;
  return { kind: 'group', own, members, origin: trees.at(-1)!.origin };
}
