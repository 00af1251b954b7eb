import { mapCalc, parseCalc, CalcSyntaxError, type Calc } from '../values/calc';
import { CalcTypeError, evaluate, readQuantity } from '../values/units';

/** What lengths are measured against, in px. */
export interface Measures {
  /** Font size of the part. */
  readonly em: number;
  readonly rem: number;
  /** What a percentage is of; `null` where that is not known yet. */
  readonly whole: number | null;
}

/** A length of a resolved value in px; `null` for a keyword, or a percentage of what is not known. */
export function pxOf(text: string, measures: Measures): number | null {
  if (/^(calc|min|max|clamp)\(/.test(text)) return calculated(text, measures);
  const quantity = readQuantity(text, measures.rem);
  if (!quantity) return null;
  return quantity.amount ?? relative(quantity.value, quantity.unit, measures);
}

function relative(value: number, unit: string, { em, whole }: Measures): number | null {
  if (unit === 'em') return value * em;
  return unit === '%' && whole !== null ? (value * whole) / 100 : null;
}

function calculated(text: string, measures: Measures): number | null {
  let isKnown = true;
  const inPx = (calc: Calc): Calc =>
    mapCalc(calc, leaf => {
      if (leaf.kind !== 'number') return null;
      if (leaf.unit !== 'em' && leaf.unit !== '%') return null;
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
