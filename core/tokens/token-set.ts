import { isObject, pointer, valueAt, type JsonObject, type Step } from '../json/json';
import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import { oneOf, ProblemList, type Problem } from '../json/problem';
import { nearest, Suggestions } from '../text/suggestions';
import { readReference, referencesIn, type Reference } from './references';
import { withExtensions } from './group-extension';
import type { DeclaredGroup, DeclaredToken, Origin } from './token-tree';
import { normalizedValue, TOKEN_TYPES, valueCss, valueFaults } from './token-types';

/** A token of one context, all references followed. */
export interface Token {
  /** Dotted path; a group's own token bears the group's path. */
  readonly path: string;
  /** What references write between braces: the path, or `group.$root`. */
  readonly key: string;
  readonly type: string;
  /** As written, references included. */
  readonly raw: unknown;
  /** With all references replaced; weights as numbers. */
  readonly value: unknown;
  /** CSS text of `value`. */
  readonly css: string;
  /** Keys of the tokens that the written value refers to, directly. */
  readonly refersTo: readonly string[];
  readonly description?: string;
  readonly deprecated?: boolean | string;
  readonly origin: Origin;
}

/** All tokens of one context by key, in document order. */
export interface TokenSet {
  readonly byKey: ReadonlyMap<string, Token>;
  /** Keys of tokens that are there but could not be resolved; what is wrong has been said where it is. */
  readonly unresolved: ReadonlySet<string>;
  readonly problems: readonly Problem[];
}

interface CachedToken {
  readonly key: string;
  readonly path: string;
  readonly declared: DeclaredToken;
  /** `$type` of the nearest group that states one. */
  readonly groupType: string | undefined;
  readonly deprecated: boolean | string | undefined;
}

/**
 * Resolves every token of a merged tree. Tokens that cannot be resolved are left out and reported. A token that is declared
 * as in the set `before`, and all whose references are the same as there, is taken over from it.
 */
export function resolveTokens(merged: DeclaredGroup, before?: TokenSet): TokenSet {
  if (before && madeFrom.get(before)?.merged === merged) return before;
  const problems: Problem[] = [];
  const root = withExtensions(merged, (group, code, message) =>
    problems.push(problemAt(group.origin, ['$extends'], code, message)),
  );
  const set =
    (before && problems.length === 0 && changedSet(root, before)) || wholeSet(root, before, problems);
  madeFrom.set(set, { merged, root });
  return set;
}

/** What each set was resolved from, as it was merged and with what groups have from others. */
const madeFrom = new WeakMap<TokenSet, { readonly merged: DeclaredGroup; readonly root: DeclaredGroup }>();

function wholeSet(root: DeclaredGroup, before: TokenSet | undefined, problems: Problem[]): TokenSet {
  const entries = new Map(entriesOf(root, AT_TOP).map(entry => [entry.key, entry]));
  const resolver = new TokenResolver(
    key => entries.get(key),
    () => entries.keys(),
    before,
    problems,
  );
  const byKey = new Map<string, Token>();
  const unresolved = new Set<string>();
  let isTold = false;
  for (const [key, { declared }] of entries) {
    if (problems.length > QUOTAS.problemsFound) {
      const words = 'So much is wrong in the tokens that not all of them were looked at.';
      if (!isTold) problems.push(problemAt(declared.origin, [], 'too-many-problems', words));
      isTold = true;
      unresolved.add(key);
      continue;
    }
    const token = resolver.token(key);
    if (token) byKey.set(key, token);
    else unresolved.add(key);
  }
  return { byKey, unresolved, problems };
}

/**
 * The set before with what has changed in it and what depends on that, where the same tokens stand in both in one order and nothing is
 * wrong with either. `null` where all must be resolved.
 */
function changedSet(root: DeclaredGroup, before: TokenSet): TokenSet | null {
  const old = madeFrom.get(before);
  if (!old || before.unresolved.size > 0 || before.problems.length > 0) return null;
  const changed = changedEntries(old.root, root, AT_TOP);
  if (!changed) return null;
  const entries = new Map(changed.map(entry => [entry.key, entry]));
  const entry = (key: string): CachedToken | undefined => {
    const token = before.byKey.get(key);
    return entries.get(key) ?? (token && entryOf.get(token));
  };
  const resolver = new TokenResolver(entry, () => before.byKey.keys(), before, []);
  const users = usersIn(before);
  const byKey = new Map(before.byKey);
  let refersAsBefore = true;
  const open = [...entries.keys()];
  const seen = new Set(open);
  for (let key = open.pop(); key !== undefined; key = open.pop()) {
    const token = resolver.token(key);
    if (!token) return null;
    byKey.set(key, token);
    refersAsBefore &&= String(token.refersTo) === String(before.byKey.get(key)!.refersTo);
    for (const user of users.get(key) ?? []) {
      if (!seen.has(user)) open.push(user);
      seen.add(user);
    }
  }
  const set = { byKey, unresolved: before.unresolved, problems: before.problems };
  if (refersAsBefore) usersOf.set(set, users);
  return set;
}

/** Keys of the tokens that refer to a token, by its key. */
type Users = ReadonlyMap<string, readonly string[]>;
const usersOf = new WeakMap<TokenSet, Users>();

function usersIn(set: TokenSet): Users {
  let users = usersOf.get(set);
  if (!users) {
    const found = new Map<string, string[]>();
    for (const { key, refersTo } of set.byKey.values())
      for (const target of refersTo) {
        const known = found.get(target);
        if (known) known.push(key);
        else found.set(target, [key]);
      }
    usersOf.set(set, (users = found));
  }
  return users;
}

/** Tokens that refer to tokens are followed so far; nobody can follow further what comes from where. */
const MAX_CHAIN = 500;

/** What each token was resolved from. */
const entryOf = new WeakMap<Token, CachedToken>();

/** Thrown where a token cannot be resolved, after it has been said why. One for all: where it comes from tells nobody anything. */
const UNRESOLVED = new Error('This token cannot be resolved.');

/** Faults of one value that are told: nobody reads more. */
const MOST_FAULTS = 20;

class TokenResolver {
  private readonly done = new Map<string, Token | null>();
  private suggestions: Suggestions | null = null;

  constructor(
    private readonly entry: (key: string) => CachedToken | undefined,
    private readonly keys: () => Iterable<string>,
    private readonly before: TokenSet | undefined,
    private readonly problems: Problem[],
  ) {}

  private fail(...problem: Parameters<typeof problemAt>): void {
    this.problems.push(problemAt(...problem));
  }

  token(key: string, open: readonly string[] = []): Token | null {
    const ready = this.done.get(key);
    if (ready !== undefined) return ready;
    const entry = this.entry(key)!;
    let token: Token | null = null;
    try {
      const line = [...open, key];
      token = this.unchanged(entry, line) ?? this.compute(entry, line);
    } catch (error) {
      if (error !== UNRESOLVED) throw error;
    }
    this.done.set(key, token);
    return token;
  }

  private unchanged(entry: CachedToken, open: readonly string[]): Token | null {
    const token = this.before?.byKey.get(entry.key);
    const old = token && entryOf.get(token);
    if (!old || !isSameEntry(old, entry)) return null;
    const same = token.refersTo.every(
      key => !open.includes(key) && this.entry(key) && this.token(key, open) === this.before!.byKey.get(key),
    );
    return same ? token : null;
  }

  private compute(entry: CachedToken, open: readonly string[]): Token {
    const { body, origin } = entry.declared;
    const raw = body['$value'];
    const replaced = this.replaced(raw, entry, ['$value'], open);
    const type = this.typeOf(entry, raw);
    const faults = valueFaults(type, replaced);
    if (faults.length > 0) {
      for (const { at, message, suggestion } of faults.slice(0, MOST_FAULTS)) {
        this.fail(
          origin,
          ['$value', ...writtenPlace(raw, at)],
          'wrong-value',
          `The value of ${entry.key} (${type}) ${message}.`,
          suggestion,
        );
      }
      throw UNRESOLVED;
    }
    const value = normalizedValue(type, replaced);
    const description = body['$description'];
    const token: Token = {
      path: entry.path,
      key: entry.key,
      type,
      raw,
      value,
      css: valueCss(type, value),
      refersTo: [...new Set(referencesIn(raw).map(found => this.targetKey(found.reference)))].filter(
        key => key !== '',
      ),
      ...(typeof description === 'string' ? { description } : {}),
      ...(entry.deprecated === undefined ? {} : { deprecated: entry.deprecated }),
      origin,
    };
    entryOf.set(token, entry);
    return token;
  }

  private typeOf(entry: CachedToken, raw: unknown): string {
    const { body, origin } = entry.declared;
    const own = body['$type'];
    const reference = readReference(raw);
    const isWhole = reference?.kind === 'alias' || (reference && this.innerSteps(reference).length === 0);
    const referred = isWhole ? this.done.get(this.targetKey(reference))?.type : undefined;
    const type = typeof own === 'string' ? own : (referred ?? entry.groupType);
    if (type === undefined) {
      this.fail(origin, [], 'missing-type', `${entry.key} has no type, nor has any group above it.`);
      throw UNRESOLVED;
    }
    if (!Object.hasOwn(TOKEN_TYPES, type)) {
      const names = Object.keys(TOKEN_TYPES);
      const at = typeof own === 'string' ? ['$type'] : [];
      this.fail(
        origin,
        at,
        'unknown-type',
        `“${type}” is no type; there are ${oneOf(names, 20)}.`,
        nearest(type, names),
      );
      throw UNRESOLVED;
    }
    if (referred !== undefined && referred !== type) {
      this.fail(
        origin,
        ['$value'],
        'wrong-type',
        `${entry.key} is a ${type}, but ${reference!.text} is a ${referred}.`,
      );
      throw UNRESOLVED;
    }
    return type;
  }

  /** The value with every reference replaced by what it stands for. */
  private replaced(
    value: unknown,
    entry: CachedToken,
    at: readonly Step[],
    open: readonly string[],
  ): unknown {
    const reference = readReference(value);
    if (reference) return this.followed(reference, entry, at, open);
    if (Array.isArray(value))
      return value.map((item, index) => this.replaced(item, entry, [...at, index], open));
    if (!isObject(value)) return value;
    return Object.fromEntries(
      Object.entries(value).map(([name, item]) => [name, this.replaced(item, entry, [...at, name], open)]),
    );
  }

  private followed(
    reference: Reference,
    entry: CachedToken,
    at: readonly Step[],
    open: readonly string[],
  ): unknown {
    const origin = entry.declared.origin;
    const key = this.targetKey(reference);
    if (!this.entry(key)) {
      const hint = this.hint(reference);
      const chain = open.length > 1 ? ` (reached through ${open.join(' → ')})` : '';
      this.fail(origin, at, 'missing-token', `There is no token ${label(reference)}${chain}.`, hint, key);
      throw UNRESOLVED;
    }
    if (open.includes(key)) {
      const chain = [...open.slice(open.indexOf(key)), key].join(' → ');
      this.fail(origin, at, 'reference-cycle', `These tokens refer to each other: ${chain}.`);
      for (const member of open) if (!this.done.has(member)) this.done.set(member, null);
      throw UNRESOLVED;
    }
    if (open.length >= MAX_CHAIN && !this.done.has(key)) {
      const chain = `${open[0]} → ${open[1]} → … → ${key}`;
      this.fail(
        origin,
        at,
        'too-deep',
        `More than ${MAX_CHAIN} tokens refer to one another in a row: ${chain}.`,
      );
      throw UNRESOLVED;
    }
    const target = this.token(key, open);
    // What is wrong with the target has been said there; saying it again at each user would drown it.
    if (!target) throw UNRESOLVED;
    if (reference.kind === 'alias') return target.value;
    const inner = valueAt(target.value, this.innerSteps(reference));
    if (inner === undefined) {
      this.fail(origin, at, 'missing-reference', `“${reference.text}” leads to nothing.`);
      throw UNRESOLVED;
    }
    return inner;
  }

  private targetKey(reference: Reference): string {
    if (reference.kind === 'alias') return reference.key;
    const end = reference.steps.indexOf('$value');
    return (end < 0 ? reference.steps : reference.steps.slice(0, end)).join('.');
  }

  private innerSteps(reference: Reference & { kind: 'pointer' }): readonly string[] {
    const end = reference.steps.indexOf('$value');
    return end < 0 ? [] : reference.steps.slice(end + 1);
  }

  private hint(reference: Reference): string | undefined {
    if (reference.kind !== 'alias') return undefined;
    const ownToken = `${reference.key}.$root`;
    this.suggestions ??= new Suggestions(this.keys());
    const near = this.entry(ownToken) ? ownToken : this.suggestions.nearest(reference.key);
    return near && `{${near}}`;
  }
}

function isSameEntry(a: CachedToken, b: CachedToken): boolean {
  if (a === b) return true;
  const [before, now] = [a.declared, b.declared];
  return (
    before.body === now.body &&
    a.groupType === b.groupType &&
    a.deprecated === b.deprecated &&
    before.origin.file === now.origin.file &&
    before.origin.pointer === now.origin.pointer
  );
}

function problemAt(
  origin: Origin,
  steps: readonly Step[],
  code: string,
  message: string,
  suggestion?: string,
  about?: string,
): Problem {
  const list = new ProblemList();
  list.error(origin.pointer + pointer(...steps), code, message, suggestion, about);
  return { file: origin.file, ...list.problems[0]! };
}

/** What a group has from the groups around it. */
interface Outer {
  /** Dotted path; empty for the root. */
  readonly names: string;
  readonly type: string | undefined;
  readonly deprecated: boolean | string | undefined;
}

const AT_TOP: Outer = { names: '', type: undefined, deprecated: undefined };

/** What a group hands on to its members. */
function within({ own }: DeclaredGroup, { type, deprecated }: Outer): Omit<Outer, 'names'> {
  return {
    type: typeof own['$type'] === 'string' ? own['$type'] : type,
    deprecated: deprecation(own) ?? deprecated,
  };
}

const keyOf = ({ names }: Outer, name: string): string => (names === '' ? name : `${names}.${name}`);

function entryFor(
  declared: DeclaredToken,
  name: string,
  outer: Outer,
  inner: Omit<Outer, 'names'>,
): CachedToken {
  const key = keyOf(outer, name);
  return {
    key,
    path: name === '$root' ? outer.names : key,
    declared,
    groupType: inner.type,
    deprecated: deprecation(declared.body) ?? inner.deprecated,
  };
}

/** The tokens that stand otherwise in a later state of a group; `null` where not the same tokens are there, in one order. */
function changedEntries(before: DeclaredGroup, now: DeclaredGroup, outer: Outer): CachedToken[] | null {
  if (before === now) return [];
  const inner = within(now, outer);
  const isOf = within(before, outer);
  const [names, others] = [[...now.members.keys()], [...before.members.keys()]];
  const isSame =
    isOf.type === inner.type &&
    isOf.deprecated === inner.deprecated &&
    names.length === others.length &&
    names.every((name, index) => name === others[index]);
  if (!isSame) return null;
  const changed: CachedToken[] = [];
  for (const [name, member] of now.members) {
    const known = before.members.get(name)!;
    if (known === member) continue;
    if (member.kind === 'token' && known.kind === 'token') changed.push(entryFor(member, name, outer, inner));
    else if (member.kind === 'group' && known.kind === 'group') {
      const below = changedEntries(known, member, { names: keyOf(outer, name), ...inner });
      if (!below) return null;
      changed.push(...below);
    } else return null;
  }
  return changed;
}

const listed = new ObjectMemo<Map<string, readonly CachedToken[]>>();

/** The tokens of a group and all within it, in their order. A group that has not changed gives the same entries. */
function entriesOf(group: DeclaredGroup, outer: Outer): readonly CachedToken[] {
  const known = listed.of([group], () => new Map<string, readonly CachedToken[]>());
  const key = JSON.stringify(outer);
  let entries = known.get(key);
  if (!entries) known.set(key, (entries = listEntries(group, outer)));
  return entries;
}

function listEntries(group: DeclaredGroup, outer: Outer): CachedToken[] {
  const inner = within(group, outer);
  return [...group.members].flatMap(([name, member]): readonly CachedToken[] =>
    member.kind === 'group'
      ? entriesOf(member, { names: keyOf(outer, name), ...inner })
      : [entryFor(member, name, outer, inner)],
  );
}

/** The steps of a fault as far as they lead inside what is written; the rest lies behind a reference. */
function writtenPlace(raw: unknown, steps: readonly Step[]): readonly Step[] {
  const end = steps.findIndex((_, index) => readReference(valueAt(raw, steps.slice(0, index))) !== null);
  return end < 0 ? steps : steps.slice(0, end);
}

function label(reference: Reference): string {
  return reference.kind === 'alias' ? `{${reference.key}}` : `“${reference.text}”`;
}

function deprecation(body: JsonObject): boolean | string | undefined {
  const value = body['$deprecated'];
  return typeof value === 'boolean' || typeof value === 'string' ? value : undefined;
}
