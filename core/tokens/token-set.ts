import { isObject, pointer, valueAt, type JsonObject, type Step } from '../formats/json';
import { ObjectMemo } from '../formats/object-memo';
import { oneOf, ProblemList, type Problem } from '../formats/problem';
import { nearest, Suggestions } from '../formats/suggest';
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

interface Entry {
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
  if (before && treeOf.get(before) === merged) return before;
  const set = new TokenResolver(merged, before).resolve();
  treeOf.set(set, merged);
  return set;
}

/** What each set was resolved from. */
const treeOf = new WeakMap<TokenSet, DeclaredGroup>();

/** Tokens that refer to tokens are followed so far; nobody can follow further what comes from where. */
const MAX_CHAIN = 500;

/** What each token was resolved from. */
const entryOf = new WeakMap<Token, Entry>();

class Unresolved extends Error {}

class TokenResolver {
  private readonly problems: Problem[] = [];
  private readonly entries = new Map<string, Entry>();
  private readonly done = new Map<string, Token | null>();
  private readonly root: DeclaredGroup;
  private suggestions: Suggestions | null = null;

  constructor(
    merged: DeclaredGroup,
    private readonly before: TokenSet | undefined,
  ) {
    this.root = withExtensions(merged, (group, code, message) =>
      this.fail(group.origin, ['$extends'], code, message),
    );
    for (const entry of entriesOf(this.root, { names: '', type: undefined, deprecated: undefined }))
      this.entries.set(entry.key, entry);
  }

  resolve(): TokenSet {
    const byKey = new Map<string, Token>();
    const unresolved = new Set<string>();
    for (const [key, entry] of this.entries) {
      const token = this.kept(entry) ?? this.token(key, []);
      if (token) byKey.set(key, token);
      else unresolved.add(key);
    }
    return { byKey, unresolved, problems: this.problems };
  }

  private fail(
    origin: Origin,
    steps: readonly Step[],
    code: string,
    message: string,
    suggestion?: string,
    about?: string,
  ): void {
    const list = new ProblemList();
    list.error(origin.pointer + pointer(...steps), code, message, suggestion, about);
    this.problems.push({ file: origin.file, ...list.problems[0]! });
  }

  private token(key: string, open: readonly string[]): Token | null {
    const ready = this.done.get(key);
    if (ready !== undefined) return ready;
    const entry = this.entries.get(key)!;
    let token: Token | null = null;
    try {
      const line = [...open, key];
      token = this.unchanged(entry, line) ?? this.compute(entry, line);
    } catch (error) {
      if (!(error instanceof Unresolved)) throw error;
    }
    this.done.set(key, token);
    return token;
  }

  /** What is as it was and refers to nothing. */
  private kept(entry: Entry): Token | null {
    const token = this.before?.byKey.get(entry.key);
    return token?.refersTo.length === 0 && entryOf.get(token) === entry ? token : null;
  }

  private unchanged(entry: Entry, open: readonly string[]): Token | null {
    const token = this.before?.byKey.get(entry.key);
    const old = token && entryOf.get(token);
    if (!old || !isSameEntry(old, entry)) return null;
    const same = token.refersTo.every(
      key =>
        !open.includes(key) && this.entries.has(key) && this.token(key, open) === this.before!.byKey.get(key),
    );
    return same ? token : null;
  }

  private compute(entry: Entry, open: readonly string[]): Token {
    const { body, origin } = entry.declared;
    const raw = body['$value'];
    const replaced = this.replaced(raw, entry, ['$value'], open);
    const type = this.typeOf(entry, raw);
    const faults = valueFaults(type, replaced);
    if (faults.length > 0) {
      for (const { at, message, suggestion } of faults) {
        this.fail(
          origin,
          ['$value', ...writtenPlace(raw, at)],
          'wrong-value',
          `The value of ${entry.key} (${type}) ${message}.`,
          suggestion,
        );
      }
      throw new Unresolved();
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

  private typeOf(entry: Entry, raw: unknown): string {
    const { body, origin } = entry.declared;
    const own = body['$type'];
    const reference = readReference(raw);
    const isWhole = reference?.kind === 'alias' || (reference && this.innerSteps(reference).length === 0);
    const referred = isWhole ? this.done.get(this.targetKey(reference))?.type : undefined;
    const type = typeof own === 'string' ? own : (referred ?? entry.groupType);
    if (type === undefined) {
      this.fail(origin, [], 'missing-type', `${entry.key} has no type, nor has any group above it.`);
      throw new Unresolved();
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
      throw new Unresolved();
    }
    if (referred !== undefined && referred !== type) {
      this.fail(
        origin,
        ['$value'],
        'wrong-type',
        `${entry.key} is a ${type}, but ${reference!.text} is a ${referred}.`,
      );
      throw new Unresolved();
    }
    return type;
  }

  /** The value with every reference replaced by what it stands for. */
  private replaced(value: unknown, entry: Entry, at: readonly Step[], open: readonly string[]): unknown {
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
    entry: Entry,
    at: readonly Step[],
    open: readonly string[],
  ): unknown {
    const origin = entry.declared.origin;
    const key = this.targetKey(reference);
    if (!this.entries.has(key)) {
      const hint = this.hint(reference);
      const chain = open.length > 1 ? ` (reached through ${open.join(' → ')})` : '';
      this.fail(origin, at, 'missing-token', `There is no token ${label(reference)}${chain}.`, hint, key);
      throw new Unresolved();
    }
    if (open.includes(key)) {
      const chain = [...open.slice(open.indexOf(key)), key].join(' → ');
      this.fail(origin, at, 'reference-cycle', `These tokens refer to each other: ${chain}.`);
      for (const member of open) if (!this.done.has(member)) this.done.set(member, null);
      throw new Unresolved();
    }
    if (open.length >= MAX_CHAIN && !this.done.has(key)) {
      const chain = `${open[0]} → ${open[1]} → … → ${key}`;
      this.fail(
        origin,
        at,
        'too-deep',
        `More than ${MAX_CHAIN} tokens refer to one another in a row: ${chain}.`,
      );
      throw new Unresolved();
    }
    const target = this.token(key, open);
    // What is wrong with the target has been said there; saying it again at each user would drown it.
    if (!target) throw new Unresolved();
    if (reference.kind === 'alias') return target.value;
    const inner = valueAt(target.value, this.innerSteps(reference));
    if (inner === undefined) {
      this.fail(origin, at, 'missing-reference', `“${reference.text}” leads to nothing.`);
      throw new Unresolved();
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
    this.suggestions ??= new Suggestions(this.entries.keys());
    const near = this.entries.has(ownToken) ? ownToken : this.suggestions.nearest(reference.key);
    return near && `{${near}}`;
  }
}

function isSameEntry(a: Entry, b: Entry): boolean {
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

/** What a group has from the groups around it. */
interface Outer {
  /** Dotted path; empty for the root. */
  readonly names: string;
  readonly type: string | undefined;
  readonly deprecated: boolean | string | undefined;
}

const listed = new ObjectMemo<Map<string, readonly Entry[]>>();

/** The tokens of a group and all within it, in their order. A group that has not changed gives the same entries. */
function entriesOf(group: DeclaredGroup, outer: Outer): readonly Entry[] {
  const known = listed.of([group], () => new Map<string, readonly Entry[]>());
  const key = JSON.stringify(outer);
  let entries = known.get(key);
  if (!entries) known.set(key, (entries = listEntries(group, outer)));
  return entries;
}

function listEntries(group: DeclaredGroup, { names, type, deprecated: outer }: Outer): Entry[] {
  const groupType = typeof group.own['$type'] === 'string' ? group.own['$type'] : type;
  const deprecated = deprecation(group.own) ?? outer;
  return [...group.members].flatMap(([name, member]): readonly Entry[] => {
    const key = names === '' ? name : `${names}.${name}`;
    if (member.kind === 'group') return entriesOf(member, { names: key, type: groupType, deprecated });
    return [
      {
        key,
        path: name === '$root' ? names : key,
        declared: member,
        groupType,
        deprecated: deprecation(member.body) ?? deprecated,
      },
    ];
  });
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
