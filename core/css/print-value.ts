import { shortDecimal } from '../text/css-text';
import { hexOf } from '../tokens/color';
import { calcText, type Calc } from './calc';
import type { TypedValue } from './typed-value';
import { UNIT_OF } from './units';

/**
 * A value in the one form in which values are compared and the command line prints them: colours `#rrggbb` or `#rrggbbaa` in
 * sRGB, lengths in px, times in ms (at most four decimals), anything else as CSS text.
 */
export function printValue(value: TypedValue): string {
  switch (value.kind) {
    case 'quantity':
      return shortDecimal(value.amount) + UNIT_OF[value.dimension];
    case 'color':
      return hexOf(value.color);
    case 'expression':
      return `calc(${printCalc(value.calc)})`;
    case 'text':
      return value.css;
  }
}

/** A calculation in which nothing is left to put in. */
export function printCalc(calc: Calc): string {
  return calcText(calc, node => {
    throw new Error(`A ${node.kind} was left in a calculation.`);
  });
}
