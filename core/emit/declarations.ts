import type { Part } from '../anatomy/anatomy';
import { calcReferences, calcText, type Calc } from '../rules/calc';
import type { Component, Setting } from '../rules/component';
import { propertyNamed } from '../rules/property-registry';
import { valueKind } from '../rules/value-kinds';
import type { TokenSet } from '../tokens/token-set';
import { tokenProperty } from './token-names';

export interface DeclarationContext {
  readonly prefix: string;
  /** Tokens of any context: only which exist and of what type matters here. */
  readonly tokens: TokenSet;
}

/** A setting as CSS declares it; `null` when its value cannot stand in a stylesheet (a check has said why). */
export function declaration(
  setting: Setting,
  part: Part,
  context: DeclarationContext,
): readonly [string, string] | null {
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
    case 'calc':
      return calculation(value.calc, context);
  }
}

function calculation(calc: Calc, { prefix, tokens }: DeclarationContext): string | null {
  if (calcReferences(calc).tokens.some(key => !tokens.byKey.has(key))) return null;
  const text = calcText(calc, node => {
    if (node.kind === 'token') return `var(${tokenProperty(prefix, tokens.byKey.get(node.key)!.path)})`;
    const initial = propertyNamed(node.property)?.initial ?? '0px';
    return `var(${privateProperty(node.part, node.property)}, ${initial})`;
  });
  return `calc(${text})`;
}

/** The private custom property, on the root, through which `@part.property` is read. */
export const privateProperty = (part: string, property: string): string => `--_${part}-${property}`;

/** Which properties some calculation refers to, as `part.property`. */
export function referredProperties(component: Component): Set<string> {
  const referred = new Set<string>();
  for (const rule of component.rules) {
    for (const { value } of rule.settings) {
      if (value.kind !== 'calc') continue;
      for (const { part, property } of calcReferences(value.calc).properties)
        referred.add(`${part}.${property}`);
    }
  }
  return referred;
}

/**
 * Declarations on the root that publish a setting for those who refer to it: under its own name, and under the names of
 * the sides it also sets. A length that may come out negative is clamped as the property itself would be.
 */
export function publishedDeclarations(
  setting: Setting,
  referred: ReadonlySet<string>,
  context: DeclarationContext,
): (readonly [string, string])[] {
  const { part, property, value } = setting;
  const names = [property.name, ...property.longhands].filter(name => referred.has(`${part}.${name}`));
  if (names.length === 0) return [];
  const css = valueText(setting, context);
  if (css === null) return [];
  const clamped = value.kind === 'calc' && property.nonNegative ? `max(0px, ${css})` : css;
  return names.map(name => [privateProperty(part, name), clamped] as const);
}
