import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { drawnParts } from '../../cascade/drawn-parts';
import { tokensIn } from '../../css/value-syntax';
import type { Token } from '../../tokens/token-set';

/** A part with its number on the plate of the anatomy. */
export interface NumberedPart {
  readonly number: number;
  readonly title: string;
  readonly description: string;
  readonly kind: string;
}

/** A token that a component uses, with where. */
export interface UsedToken {
  readonly token: Token;
  /** `frame.border-color`, each once, in order of first use. */
  readonly uses: readonly string[];
}

/**
 * Parts that are seen, numbered in anatomical order; boxes that only hold others together bear no number. A nested component is one
 * part: what is in it is told where it is specified.
 */
export function numberedAnatomy(component: Component): NumberedPart[] {
  const { parts, root, byName } = component.anatomy;
  const drawn = drawnParts(component);
  const used = new Set(component.nested.map(({ name }) => byName.get(name)));
  return parts
    .filter(part => used.has(part) || (part.nested === null && (!part.kind.box || drawn.has(part.name))))
    .filter(part => part !== root)
    .map((part, index) => ({
      number: index + 1,
      title: part.title,
      description: part.description || part.kind.words,
      kind: part.kind.kind,
    }));
}

/** The tokens a component's rules name, in the order of the token files. */
export function usedTokens(system: System, component: Component): UsedToken[] {
  const uses = new Map<string, Set<string>>();
  for (const rule of component.rules) {
    for (const { part, property, value } of rule.written) {
      for (const key of tokensIn(value))
        uses.set(key, (uses.get(key) ?? new Set()).add(`${part}.${property.name}`));
    }
  }
  return [...system.tokens.usual().byKey.values()]
    .filter(token => uses.has(token.key))
    .map(token => ({ token, uses: [...uses.get(token.key)!] }));
}
