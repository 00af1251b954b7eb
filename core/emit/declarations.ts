import type { Part } from '../anatomy/anatomy';
import { calcReferences, calcText, type Calc } from '../rules/calc';
import type { Component, Setting } from '../rules/component';
import { heardParts, isInherit, namesOf } from '../rules/heard-parts';
import { propertyNamed } from '../rules/property-registry';
import { valueKind } from '../rules/value-kinds';
import type { TokenSet } from '../tokens/token-set';
import { compositeMembers } from '../tokens/token-types';
import { memberProperty, tokenProperty } from './token-names';

export type Declaration = readonly [property: string, value: string];

export interface DeclarationContext {
  readonly component: Component;
  readonly prefix: string;
  /** Tokens of any context: only which exist and of what type matters here. */
  readonly tokens: TokenSet;
  /** Properties that calculations may ask for, as `part.property`. */
  readonly referred: ReadonlySet<string>;
}

/** A setting as CSS declares it; `null` when its value cannot stand in a stylesheet (a check has said why). */
export function declaration(setting: Setting, part: Part, context: DeclarationContext): Declaration | null {
  const { property } = setting;
  if (property.name === 'present') {
    const layout = part.kind.layout.find(([name]) => name === 'display');
    return ['display', setting.text.trim() === 'true' ? (layout?.[1] ?? 'block') : 'none'];
  }
  const css = valueText(setting, context);
  if (css === null) return null;
  return [property.name, css];
}

function valueText({ property, value }: Setting, context: DeclarationContext): string | null {
  switch (value.kind) {
    case 'literal':
      return value.css;
    case 'token': {
      const token = context.tokens.byKey.get(value.key);
      const fits = token && valueKind(property.kind).tokenTypes.includes(token.type);
      return fits ? `var(${tokenProperty(context.prefix, token.path)})` : null;
    }
    case 'member': {
      const token = context.tokens.byKey.get(value.key);
      return token && value.member.key in compositeMembers(token.type)
        ? `var(${memberProperty(context.prefix, token.path, value.member.key)})`
        : null;
    }
    case 'calc':
      return calculation(value.calc, context);
  }
}

function calculation(calc: Calc, { component, prefix, tokens }: DeclarationContext): string | null {
  if (calcReferences(calc).tokens.some(key => !tokens.byKey.has(key))) return null;
  const text = calcText(calc, node => {
    if (node.kind === 'token') return `var(${tokenProperty(prefix, tokens.byKey.get(node.key)!.path)})`;
    const initial = propertyNamed(node.property)?.initial ?? '0px';
    return heardParts(component, node.part, node.property).reduceRight(
      (otherwise, part) => `var(${privateProperty(part, node.property)}, ${otherwise})`,
      initial,
    );
  });
  return `calc(${text})`;
}

/** The private custom property, on the root, through which `@part.property` is read. */
export const privateProperty = (part: string, property: string): string => `--_${part}-${property}`;

/** Which properties some calculation may ask for, as `part.property`. */
export function referredProperties(component: Component): Set<string> {
  const referred = new Set<string>();
  for (const rule of component.rules) {
    for (const { value } of rule.settings) {
      if (value.kind !== 'calc') continue;
      for (const { part, property } of calcReferences(value.calc).properties)
        for (const each of heardParts(component, part, property)) referred.add(`${each}.${property}`);
    }
  }
  return referred;
}

/**
 * Declarations on the root that publish a setting for those who refer to it: under its own name, and under the names of
 * the sides it also sets. A length that may come out negative is clamped as the property itself would be; `inherit` leaves
 * the word to the part around.
 */
export function publishedDeclarations(setting: Setting, context: DeclarationContext): Declaration[] {
  const { part, property, value } = setting;
  const names = namesOf(setting).filter(name => context.referred.has(`${part}.${name}`));
  if (names.length === 0) return [];
  const css = isInherit(setting) ? 'initial' : valueText(setting, context);
  if (css === null) return [];
  const clamped = value.kind === 'calc' && property.nonNegative ? `max(0px, ${css})` : css;
  return names.map(name => [privateProperty(part, name), clamped] as const);
}
