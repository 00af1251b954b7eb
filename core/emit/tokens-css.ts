import { cssString } from '../formats/css-text';
import { calcReferences } from '../rules/calc';
import type { System } from '../rules/system';
import { kebab } from '../space/axis';
import type { ContextInput } from '../tokens/resolver';
import type { TokenModel } from '../tokens/token-model';
import { readReference } from '../tokens/references';
import type { Token, TokenSet } from '../tokens/token-set';
import { valueCss } from '../tokens/token-types';
import type { StyleBlock, Stylesheet } from './stylesheet';
import { tokenProperty } from './token-names';

/**
 * The tokens that are used as custom properties. A property that refers to another is computed where it is declared (CSS Variables 1,
 * section 2.2), so the block of each context repeats what differs there and all that depends on it, and nothing else.
 */
export function tokensStylesheet(system: System): Stylesheet {
  const usual = system.tokens.usual();
  const keys = usedKeys(system, usual);
  const blocks: StyleBlock[] = [];
  const varying = new Set<string>();
  const contexts: StyleBlock[] = [];
  for (const modifier of system.tokens.modifiers) {
    const sets = [...system.tokens.along(modifier)];
    const differing = dependents(
      keys,
      sets.map(([, set]) => set),
      system.prefix,
    );
    differing.forEach(key => varying.add(key));
    for (const [context, set] of sets) {
      contexts.push({
        key: `${modifier.name}=${context}`,
        selector: `[data-${kebab(modifier.name)}=${cssString(context)}]`,
        declarations: declarations(
          keys.filter(key => differing.has(key)),
          set,
          system.prefix,
        ),
      });
    }
  }
  // What varies stands in the root's block too, so that a page that names no context has the usual one.
  blocks.push({ key: 'root', selector: ':root', declarations: declarations(keys, usual, system.prefix) });
  return {
    layer: null,
    comment: `Tokens of ${system.title}`,
    blocks: [...blocks, ...contexts.filter(block => block.declarations.length > 0)],
  };
}

/** Every token as it is declared in one context: custom property to CSS text. For previews, where all may be wanted. */
export function tokenDeclarations(
  tokens: TokenModel,
  prefix: string,
  contexts: ContextInput,
): ReadonlyMap<string, string> {
  const set = tokens.in(contexts);
  return new Map(declarations([...set.byKey.keys()], set, prefix));
}

/** Name of the attribute that chooses a modifier's context: `data-theme`. */
export const contextAttribute = (modifier: string): string => `data-${kebab(modifier)}`;

function declarations(keys: readonly string[], set: TokenSet, prefix: string): (readonly [string, string])[] {
  return keys.flatMap(key => {
    const token = set.byKey.get(key);
    return token ? [[tokenProperty(prefix, token.path), linkedCss(token, set, prefix)] as const] : [];
  });
}

/** A token's CSS with references to other tokens kept as `var()`. */
export function linkedCss(token: Token, set: TokenSet, prefix: string): string {
  return valueCss(token.type, linkable(token.raw, token.value), value => {
    const reference = readReference(value);
    const target = reference?.kind === 'alias' ? set.byKey.get(reference.key) : undefined;
    return target ? `var(${tokenProperty(prefix, target.path)})` : null;
  });
}

/** The written value with its aliases kept, and everything else (pointers, weights by name) as resolved. */
function linkable(raw: unknown, value: unknown): unknown {
  if (readReference(raw)?.kind === 'alias') return raw;
  if (readReference(raw)) return value;
  if (Array.isArray(raw) && Array.isArray(value))
    return raw.map((item, index) => linkable(item, value[index]));
  if (typeof raw === 'object' && raw !== null && typeof value === 'object' && value !== null) {
    const resolved = value as Record<string, unknown>;
    return Object.fromEntries(
      Object.entries(raw).map(([name, item]) => [name, linkable(item, resolved[name])]),
    );
  }
  return value;
}

/** Keys whose declared text differs between contexts, and all that refer to them, however indirectly. */
function dependents(keys: readonly string[], sets: readonly TokenSet[], prefix: string): Set<string> {
  const texts = sets.map(set => new Map(declarations(keys, set, prefix)));
  const differing = new Set<string>();
  for (const key of keys) {
    const path = sets.map(set => set.byKey.get(key)?.path).find(found => found !== undefined);
    if (path === undefined) continue;
    const name = tokenProperty(prefix, path);
    if (texts.some(text => text.get(name) !== texts[0]!.get(name))) differing.add(key);
  }
  for (let before = -1; before !== differing.size;) {
    before = differing.size;
    for (const key of keys) {
      if (sets.some(set => set.byKey.get(key)?.refersTo.some(target => differing.has(target))))
        differing.add(key);
    }
  }
  return differing;
}

/** Keys of the tokens that rules of any component use, also through other tokens, in the order of the token files. */
export function usedKeys(system: System, set: TokenSet): string[] {
  const open: string[] = [];
  for (const component of system.components) {
    for (const rule of component.rules) {
      for (const { value } of rule.settings) {
        if (value.kind === 'token') open.push(value.key);
        if (value.kind === 'calc') open.push(...calcReferences(value.calc).tokens);
      }
    }
  }
  // A context may put another reference in a token's place, so the references of every context count.
  const sets = [
    set,
    ...system.tokens.modifiers.flatMap(modifier => [...system.tokens.along(modifier).values()]),
  ];
  const used = new Set<string>();
  for (let key = open.pop(); key !== undefined; key = open.pop()) {
    if (used.has(key)) continue;
    used.add(key);
    for (const each of sets) open.push(...(each.byKey.get(key)?.refersTo ?? []));
  }
  return [...set.byKey.keys()].filter(key => used.has(key));
}
