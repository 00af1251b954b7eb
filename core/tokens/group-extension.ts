import type { JsonObject } from '../formats/json';
import { brief } from '../formats/problem';
import { readReference } from './references';
import { memberAt, mergeTrees, type DeclaredGroup } from './token-tree';

/** Reports what is wrong with a group's `$extends`. */
type Fail = (group: DeclaredGroup, code: string, message: string) => void;

/** Replaces each group that has `$extends` by the extended group with its own members laid over it. */
export function withExtensions(root: DeclaredGroup, fail: Fail): DeclaredGroup {
  return extended(root, root, [], fail);
}

function extended(
  group: DeclaredGroup,
  root: DeclaredGroup,
  open: readonly string[],
  fail: Fail,
): DeclaredGroup {
  let base = group;
  const target = group.own['$extends'];
  if (target !== undefined) {
    const names = groupNames(target);
    const label = names ? names.join('.') : brief(target);
    const found = names && memberAt(root, names);
    if (open.includes(label)) {
      fail(group, 'reference-cycle', `Groups extend each other: ${[...open, label].join(' → ')}.`);
    } else if (found?.kind !== 'group') {
      fail(group, 'missing-reference', `There is no group “${label}” to extend.`);
    } else {
      const below = extended(found, root, [...open, label], fail);
      const merged = mergeTrees(below, { ...group, own: withoutExtends(group.own) });
      base = { ...merged, own: { ...withoutExtends(below.own), ...withoutExtends(group.own) } };
    }
  }
  const members = [...base.members].map(
    ([name, member]) =>
      [name, member.kind === 'group' ? extended(member, root, open, fail) : member] as const,
  );
  return { ...base, members: new Map(members) };
}

function groupNames(target: unknown): string[] | null {
  const reference = readReference(target) ?? readReference({ $ref: target });
  if (!reference) return null;
  return reference.kind === 'alias' ? reference.key.split('.') : [...reference.steps];
}

function withoutExtends(own: JsonObject): JsonObject {
  return Object.fromEntries(Object.entries(own).filter(([name]) => name !== '$extends'));
}
