import type { Part } from '../../components/anatomy/part';
import type { Component, Setting } from '../../components/component';
import type { TokenSet } from '../../tokens/token-set';
import { compositeMembers } from '../../tokens/token-types';
import { calcReferences, calcText, type Calc } from '../../css/calc';
import { isOutOfRange, type Property } from '../../css/property';
import { memberText } from '../../css/typed-value';
import { readQuantity } from '../../css/units';
import { valueType } from '../../css/value-types';
import type { Value } from '../../css/value-syntax';
import type { AskedTokens } from '../tokens/token-lookups';
import type { ComponentNames } from '../../render/names';
import { memberProperty, tokenProperty } from '../tokens/token-names';

export type Declaration = readonly [property: string, value: string];

/** What the values of a component are written with. */
export interface CssContext {
  readonly component: Component;
  readonly prefix: string;
  readonly names: ComponentNames;
  readonly tokens: AskedTokens;
  /** How `@part.property` is read; see `published-properties`. */
  readonly read: (part: string, property: string) => string;
  /** How a parameter is read, by its key; see `parameter-css`. `null` where its default is no value. */
  readonly parameter: (key: string) => string | null;
}

/** What a setting declares; nothing when its value cannot stand in a stylesheet (a check has said why). */
export function declarations(setting: Setting, part: Part, context: CssContext): Declaration[] {
  const { property, css: parametered } = setting;
  const value = parametered ?? setting.value;
  if (property.declares) {
    const text = value.kind === 'literal' ? property.declares.texts[value.css] : undefined;
    return text === undefined ? [] : [[property.declares.property, text ?? part.kind.display]];
  }
  const css = cssValue(property, value, context);
  return css === null ? [] : [[property.name, css]];
}

/** A value as CSS text; `null` when it refers to what is not there. */
export function cssValue(property: Property, value: Value, context: CssContext): string | null {
  switch (value.kind) {
    case 'literal':
    case 'wide':
      return value.css;
    case 'token':
    case 'member': {
      const variable = tokenVariable(property, value, context);
      // A variable whose text is beyond the property's range would make the declaration void; a calculation is brought to it.
      return variable && isWild(property, value, context.tokens) ? `calc(${variable})` : variable;
    }
    case 'calc':
      return calcCss(value.calc, context);
  }
}

type TokenValue = Extract<Value, { kind: 'token' | 'member' }>;

/** The key of a parameter that stands in the place of a token; `null` for a token's. */
const parameterKey = (key: string): string | null => (key.startsWith('@') ? key.slice(1) : null);

function tokenVariable(property: Property, value: TokenValue, context: CssContext): string | null {
  const parameter = parameterKey(value.key);
  if (parameter !== null) return context.parameter(parameter);
  const { prefix, tokens } = context;
  const path = tokens.pathOf(value.key);
  const type = tokens.typeOf(value.key);
  if (path === null || type === null) return null;
  if (value.kind === 'member') {
    const { key } = value.member;
    return key in compositeMembers(type) ? `var(${memberProperty(prefix, path, key)})` : null;
  }
  return valueType(property.kind).tokenTypes.includes(type) ? `var(${tokenProperty(prefix, path)})` : null;
}

/** A calculation as CSS text; `null` when it names a token that is not there. */
export function calcCss(calc: Calc, context: CssContext): string | null {
  const { tokens, prefix, read } = context;
  const texts = new Map<string, string>();
  for (const key of calcReferences(calc).tokens) {
    const parameter = parameterKey(key);
    const path = parameter === null ? tokens.pathOf(key) : null;
    const variable = path === null ? null : `var(${tokenProperty(prefix, path)})`;
    const css = parameter === null ? variable : context.parameter(parameter);
    if (css === null) return null;
    texts.set(key, css);
  }
  const text = calcText(calc, node =>
    node.kind === 'token' ? texts.get(node.key)! : read(node.part, node.property),
  );
  return `calc(${text})`;
}

/** Whether a token's amount is beyond the property's range in some context. */
export function isWild(property: Property, value: Value, tokens: AskedTokens): boolean {
  if (value.kind !== 'token' && value.kind !== 'member') return false;
  const member = value.kind === 'member' ? value.member.key : '';
  return tokens.inSome(value.key, `${property.name} ${member}`, set => {
    const text = tokenText(set, value);
    const amount = text === null ? null : amountOf(text);
    return amount !== null && isOutOfRange(property, amount);
  });
}

function tokenText(set: TokenSet, value: TokenValue): string | null {
  const token = set.byKey.get(value.key);
  if (!token) return null;
  return value.kind === 'token' ? token.css : memberText(token, value.member);
}

/** The root's font size makes amounts larger or smaller, never negative. */
const amountOf = (css: string): number | null =>
  /^[-+.\d]/.test(css) ? (readQuantity(css, 1)?.amount ?? null) : null;
