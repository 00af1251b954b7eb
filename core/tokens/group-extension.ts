import type { JsonObject } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { brief } from '../json/problem';
import { readReference } from './references';
import { mergeTrees, type DeclaredGroup, type DeclaredToken } from './token-tree';

/** Reports what is wrong with a group's `$extends`. */
type Fail = (group: DeclaredGroup, code: string, message: string) => void;

/** Groups that extend groups that extend groups grow by multiplication; no more members than these are made so. */
const MAX_MADE = 100_000;

/** Replaces each group that has `$extends` by the extended group with its own members laid over it. */
export function withExtensions(root: DeclaredGroup, fail: Fail): DeclaredGroup {
  return new Extender(root, fail).extended(root, [], null);
}

class Extender {
  /** Members looked at inside groups that others extend. */
  private made = 0;
  private full = false;

  constructor(
    private readonly root: DeclaredGroup,
    private readonly fail: Fail,
  ) {}

  /** `open` are the groups being extended, `first` the group that began it. */
  extended(group: DeclaredGroup, open: readonly string[], first: DeclaredGroup | null): DeclaredGroup {
    if (!first && !extendsAny(group)) return group;
    const base = this.withBase(group, open, first);
    if (first) this.made += base.members.size;
    const members = [...base.members].map(
      ([name, member]) => [name, this.tokenInPlace(member) ?? this.within(member, open, first)] as const,
    );
    return { ...base, members: new Map(members) };
  }

  private within(
    member: DeclaredToken | DeclaredGroup,
    open: readonly string[],
    first: DeclaredGroup | null,
  ): DeclaredToken | DeclaredGroup {
    return member.kind === 'group' ? this.extended(member, open, first) : member;
  }

  /** What has a reference in the place of its value, and so is a token where a token is referred to; `null` for all else. */
  private tokenInPlace(member: DeclaredToken | DeclaredGroup): DeclaredToken | null {
    if (member.kind === 'token' || typeof member.own['$ref'] !== 'string') return null;
    const { $ref: target, ...own } = member.own;
    const names = groupNames(target);
    const found = names?.at(-1) === '$value' || (names && this.member(names, [])?.kind === 'token');
    if (!found) return null;
    return { kind: 'token', body: { ...own, $value: { $ref: target! } }, origin: member.origin };
  }

  private withBase(
    group: DeclaredGroup,
    open: readonly string[],
    first: DeclaredGroup | null,
  ): DeclaredGroup {
    const target = extendedBy(group);
    if (target === undefined || this.isFull(first ?? group)) return group;
    const names = groupNames(target);
    const label = names ? names.join('.') : brief(target);
    const found = names && this.member(names, open);
    const refused = (code: string, message: string): DeclaredGroup => {
      this.fail(group, code, message);
      // Whatever takes it over does not try again.
      return { ...group, own: withoutExtends(group.own) };
    };
    if (open.includes(label))
      return refused('reference-cycle', `Groups extend each other: ${[...open, label].join(' → ')}.`);
    if (found?.kind !== 'group')
      return refused('missing-reference', `There is no group “${label}” to extend.`);
    if (holds(found, group))
      return refused('reference-cycle', `The group “${label}” holds this one, which cannot extend it.`);
    const below = this.extended(found, [...open, label], first ?? group);
    const merged = mergeTrees([below, { ...group, own: withoutExtends(group.own) }]);
    return {
      ...merged,
      origin: group.origin,
      own: { ...withoutExtends(below.own), ...withoutExtends(group.own) },
    };
  }

  /** The member at a path; groups on the way may have it from those they extend. */
  private member(
    names: readonly string[],
    open: readonly string[],
  ): DeclaredToken | DeclaredGroup | undefined {
    let here: DeclaredToken | DeclaredGroup | undefined = this.root;
    names.forEach((name, depth) => {
      if (here?.kind !== 'group') return (here = undefined);
      const path = names.slice(0, depth).join('.');
      const isOpen = open.some(each => each === path || each.startsWith(`${path}.`));
      const own: DeclaredToken | DeclaredGroup | undefined = here.members.get(name);
      // A group that is being extended has nothing more to give than its own members.
      if (own || isOpen || extendedBy(here) === undefined) return (here = own);
      return (here = this.withBase(here, [...open, path], here).members.get(name));
    });
    return here;
  }

  private isFull(group: DeclaredGroup): boolean {
    if (this.made <= MAX_MADE || this.full) return this.full;
    this.full = true;
    this.fail(
      group,
      'too-many-tokens',
      `Groups that extend each other would make more than ${MAX_MADE.toLocaleString('en')} tokens and groups; ` +
        'from here on none is extended.',
    );
    return true;
  }
}

const extending = new ObjectMemo<boolean>();

/** Whether a group or one within it extends another. */
const extendsAny = (group: DeclaredGroup): boolean =>
  extending.of(
    [group],
    () =>
      extendedBy(group) !== undefined ||
      [...group.members.values()].some(member => member.kind === 'group' && extendsAny(member)),
  );

const holds = (outer: DeclaredGroup, group: DeclaredGroup): boolean =>
  outer === group ||
  [...outer.members.values()].some(member => member.kind === 'group' && holds(member, group));

/** What a group extends: as it says, or as what stands in its place leads to. */
export const extendedBy = ({ own }: DeclaredGroup): unknown => own['$extends'] ?? own['$ref'];

/** The names that lead to the group which `$extends` means; `null` when it cannot be read. */
export function groupNames(target: unknown): string[] | null {
  const reference = readReference(target) ?? readReference({ $ref: target });
  if (!reference) return null;
  return reference.kind === 'alias' ? reference.key.split('.') : [...reference.steps];
}

function withoutExtends(own: JsonObject): JsonObject {
  return Object.fromEntries(Object.entries(own).filter(([name]) => name !== '$extends' && name !== '$ref'));
}
