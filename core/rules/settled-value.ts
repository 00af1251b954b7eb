import { shortDecimal } from '../formats/css-text';
import { cssColorHex, colorHex, type TokenColor } from '../tokens/color';
import type { Token } from '../tokens/token-set';
import { absentMember, compositeMembers, valueCss } from '../tokens/token-types';
import type { Member, Property } from './property-registry';
import { UNITS, type Quantity } from './units';

/**
 * Values in the one form in which they are compared and printed: colours `#rrggbb` or `#rrggbbaa`, lengths in px, times
 * in ms (at most four decimals), anything else as CSS text.
 */
export function settledText(property: Property, css: string, rootFontSize: number): string {
  if (property.kind === 'color') return cssColorHex(css) ?? css;
  const quantity = readQuantity(css, rootFontSize);
  if (!quantity || quantity.amount === null) return css;
  // A bare 0 is a length where a length is asked for.
  const zero = quantity.dimension === 'number' && quantity.amount === 0 && property.kind === 'length';
  return quantityText(zero ? { dimension: 'length', amount: 0 } : quantity, property);
}

/** A token's value in the same form. */
export function settledToken(property: Property, token: Token, rootFontSize: number): string {
  if (token.type === 'color') return colorHex(token.value as TokenColor);
  return settledText(property, token.css, rootFontSize);
}

/** One property's share of a composite token in the same form. */
export function settledMember(
  property: Property,
  token: Token,
  member: Member,
  rootFontSize: number,
): string {
  const share = memberValue(token, member);
  if (share === null) return settledText(property, absentMember(token.type, member.key), rootFontSize);
  if (share.type === 'color') return colorHex(share.value as TokenColor);
  return settledText(property, valueCss(share.type, share.value), rootFontSize);
}

/** A member of a composite token's value with its type; `null` where the token leaves it out. */
export function memberValue(token: Token, member: Member): { type: string; value: unknown } | null {
  const value = (token.value as Readonly<Record<string, unknown>> | null)?.[member.key];
  const type = compositeMembers(token.type)[member.key];
  return value === undefined || type === undefined ? null : { type, value };
}

const SUFFIX = { length: 'px', time: 'ms', number: '' } as const;

export function quantityText({ dimension, amount }: Quantity, property: Property): string {
  const clamped = property.nonNegative ? Math.max(0, amount!) : amount!;
  return shortDecimal(clamped) + SUFFIX[dimension];
}

/** Reads one number with a unit; `null` for any other text. */
export function readQuantity(css: string, rootFontSize: number): Quantity | null {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(%|[a-z]*)$/i.exec(css.trim());
  if (!match) return null;
  const unit = UNITS[match[2]!.toLowerCase()];
  if (!unit) return null;
  const factor = unit.factor === 'rem' ? rootFontSize : unit.factor;
  return { dimension: unit.dimension, amount: factor === null ? null : Number(match[1]) * factor };
}
