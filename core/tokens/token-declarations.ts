import { extendedBy, groupNames } from './group-extension';
import type { Layer } from './contexts';
import type { DeclaredGroup } from './token-tree';

/** Which modifiers have a say in a token by declaring it, or what it is inherited from. */
export interface TokenDeclarations {
  readonly by: (key: string) => ReadonlySet<string>;
}

interface Extension {
  /** Dotted paths. */
  readonly group: string;
  readonly target: string;
  readonly modifier: string | null;
}

/** Looks through all layers of a resolver, in every context. */
export function declarationsOf(layers: readonly Layer[]): TokenDeclarations {
  const declared = new Map<string, Set<string>>();
  const extensions: Extension[] = [];
  const visit = (group: DeclaredGroup, names: readonly string[], modifier: string | null): void => {
    const target = groupNames(extendedBy(group));
    if (target) extensions.push({ group: names.join('.'), target: target.join('.'), modifier });
    for (const [name, member] of group.members) {
      const here = [...names, name];
      if (member.kind === 'group') visit(member, here, modifier);
      else if (modifier !== null)
        declared.set(here.join('.'), (declared.get(here.join('.')) ?? new Set()).add(modifier));
    }
  };
  for (const { modifier, trees } of layers) for (const tree of trees.values()) visit(tree, [], modifier);
  return { by: key => declaredBy(key, declared, extensions, new Set()) };
}

function declaredBy(
  key: string,
  declared: ReadonlyMap<string, ReadonlySet<string>>,
  extensions: readonly Extension[],
  seen: Set<string>,
): Set<string> {
  const found = new Set(declared.get(key));
  if (seen.has(key)) return found;
  seen.add(key);
  for (const { group, target, modifier } of extensions) {
    if (!key.startsWith(`${group}.`)) continue;
    if (modifier !== null) found.add(modifier);
    const base = target + key.slice(group.length);
    for (const each of declaredBy(base, declared, extensions, seen)) found.add(each);
  }
  return found;
}
