import { cssColor, tokenColor, type Color } from '../tokens/color';
import type { Token } from '../tokens/token-set';
import { absentMember, compositeMembers, valueCss } from '../tokens/token-types';
import type { Calc } from './calc';
import { amountInRange, type Member, type Property, type Range } from './property';
import { readQuantity, UNIT_OF, type Dimension } from './units';
import { valueType } from './value-types';

/** A value that can be calculated with and compared; text is made of it at the end, by printers. */
export type TypedValue =
  /** In px, ms or plain. */
  | { readonly kind: 'quantity'; readonly dimension: Dimension; readonly amount: number }
  | { readonly kind: 'color'; readonly color: Color }
  /** A calculation that comes to something only where it is used: what is left in it are numbers with units. */
  | { readonly kind: 'expression'; readonly calc: Calc; readonly size: number }
  /** Anything else, as CSS writes it. */
  | { readonly kind: 'text'; readonly css: string };

/** What CSS text comes to for a property. */
export function typedText(property: Property, css: string, rootFontSize: number): TypedValue {
  if (property.kind === 'color') {
    const color = cssColor(css);
    return color ? { kind: 'color', color } : { kind: 'text', css };
  }
  const quantity = readQuantity(css, rootFontSize);
  // Where a plain number is asked for a percentage is one.
  if (quantity?.unit === '%' && property.kind === 'number')
    return inRange(property, { kind: 'quantity', dimension: 'number', amount: quantity.value / 100 });
  if (!quantity || quantity.amount === null) return { kind: 'text', css };
  // A bare 0 is a length where a length is asked for.
  const [wanted = quantity.dimension] = valueType(property.kind).calc;
  const dimension = quantity.value === 0 && quantity.unit === '' ? wanted : quantity.dimension;
  return inRange(property, { kind: 'quantity', dimension, amount: quantity.amount });
}

/** What a token's value comes to for a property. */
export function typedToken(property: Property, token: Token, rootFontSize: number): TypedValue {
  return ofType(property, token.type, token.value, rootFontSize);
}

/** What one property's share of a composite token comes to. */
export function typedMember(
  property: Property,
  token: Token,
  member: Member,
  rootFontSize: number,
): TypedValue {
  const share = memberValue(token, member);
  return share
    ? ofType(property, share.type, share.value, rootFontSize)
    : typedText(property, absentMember(token.type, member.key), rootFontSize);
}

/** CSS text of one property's share of a composite token, references replaced. */
export function memberText(token: Token, member: Member): string {
  const share = memberValue(token, member);
  return share ? valueCss(share.type, share.value) : absentMember(token.type, member.key);
}

function ofType(property: Property, type: string, value: unknown, rootFontSize: number): TypedValue {
  return type === 'color'
    ? { kind: 'color', color: tokenColor(value as never) }
    : typedText(property, valueCss(type, value), rootFontSize);
}

/** A member of a composite token's value with its type; `null` where the token leaves it out. */
export function memberValue(token: Token, member: Member): { type: string; value: unknown } | null {
  const value = (token.value as Readonly<Record<string, unknown>> | null)?.[member.key];
  const type = compositeMembers(token.type)[member.key];
  return value === undefined || type === undefined ? null : { type, value };
}

/** A quantity brought to what its property lets count: whole numbers, and no more or less than the range has. */
export function inRange(property: Property, value: TypedValue): TypedValue {
  if (value.kind !== 'quantity') return value;
  const amount = amountInRange(property, value.amount);
  return amount === value.amount ? value : { ...value, amount };
}

/** A value as a calculation can refer to it; `null` when it has no size. */
export function asCalc(property: Property, value: TypedValue): Calc | null {
  switch (value.kind) {
    case 'quantity':
      return { kind: 'number', value: value.amount, unit: UNIT_OF[value.dimension] };
    case 'expression':
      return clampedCalc(property.range, value.calc);
    case 'text': {
      if (Object.hasOwn(property.amounts, value.css)) {
        const [dimension = 'number'] = valueType(property.kind).calc;
        return { kind: 'number', value: property.amounts[value.css]!, unit: UNIT_OF[dimension] };
      }
      const quantity = readQuantity(value.css, 0);
      return quantity && { kind: 'number', value: quantity.value, unit: quantity.unit };
    }
    default:
      return null;
  }
}

/** A calculation as CSS lets it count: only lengths have come to nothing definite here. */
function clampedCalc([least]: Range, calc: Calc): Calc {
  if (least !== 0) return calc;
  return { kind: 'call', name: 'max', args: [{ kind: 'number', value: 0, unit: 'px' }, calc] };
}
