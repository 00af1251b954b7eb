import { mapCalc, parseCalc, CalcSyntaxError, type Calc } from '../css/calc';
import { CalcTypeError, evaluate, readQuantity, UNITS } from '../css/units';

/** What lengths are measured against, in px. */
export interface Measures {
  /** Font size of the part. */
  readonly em: number;
  readonly rem: number;
  /** What a percentage is of; `null` where that is not known yet. */
  readonly whole: number | null;
  /** px of any other unit, where it is known or guessed. */
  readonly unit?: (unit: string) => number | null;
}

/** A length of a resolved value in px; `null` for a keyword, or a percentage of what is not known. */
export function pxOf(text: string, measures: Measures): number | null {
  if (/^(calc|min|max|clamp)\(/.test(text)) return calculated(text, measures);
  const quantity = readQuantity(text, measures.rem);
  if (!quantity) return null;
  return quantity.amount ?? relative(quantity.value, quantity.unit, measures);
}

function relative(value: number, name: string, { em, whole, unit }: Measures): number | null {
  if (name === 'em') return value * em;
  if (name === '%') return whole === null ? null : (value * whole) / 100;
  const px = unit?.(name) ?? null;
  return px === null ? null : value * px;
}

function calculated(text: string, measures: Measures): number | null {
  let isKnown = true;
  const inPx = (calc: Calc): Calc =>
    mapCalc(calc, leaf => {
      if (leaf.kind !== 'number') return null;
      if (UNITS[leaf.unit]?.factor !== null) return null;
      const px = relative(leaf.value, leaf.unit, measures);
      isKnown &&= px !== null;
      return { kind: 'number', value: px ?? 0, unit: 'px' };
    });
  try {
    const { amount } = evaluate(inPx(parseCalc(text)), measures.rem, () => ({
      dimension: 'length',
      amount: null,
    }));
    return isKnown ? amount : null;
  } catch (error) {
    if (error instanceof CalcSyntaxError || error instanceof CalcTypeError) return null;
    throw error;
  }
}
