import type { Calc } from './calc';

/** What a calculation deals in. `percent` and font-relative lengths are lengths whose size is not known here. */
export type Dimension = 'number' | 'length' | 'time';

interface UnitRow {
  readonly dimension: Dimension;
  /** How many px or ms one unit is; `null` when that depends on where it is used. `'rem'` asks the system. */
  readonly factor: number | null | 'rem';
}

/** CSS Values 4, sections 6 and 7. */
export const UNITS: Readonly<Record<string, UnitRow>> = {
  '': { dimension: 'number', factor: 1 },
  px: { dimension: 'length', factor: 1 },
  rem: { dimension: 'length', factor: 'rem' },
  cm: { dimension: 'length', factor: 96 / 2.54 },
  mm: { dimension: 'length', factor: 96 / 25.4 },
  q: { dimension: 'length', factor: 96 / 101.6 },
  in: { dimension: 'length', factor: 96 },
  pt: { dimension: 'length', factor: 96 / 72 },
  pc: { dimension: 'length', factor: 16 },
  ms: { dimension: 'time', factor: 1 },
  s: { dimension: 'time', factor: 1000 },
  ...Object.fromEntries(
    '% em ex ch cap ic lh rlh vw vh vi vb vmin vmax svw svh lvw lvh dvw dvh cqw cqh cqi cqb'
      .split(' ')
      .map(unit => [unit, { dimension: 'length', factor: null } as const]),
  ),
};

/** A quantity in px, ms or plain; `null` amount: known only where it is used. */
export interface Quantity {
  readonly dimension: Dimension;
  readonly amount: number | null;
}

/** How a quantity's amount is written. */
export const UNIT_OF: Readonly<Record<Dimension, string>> = { length: 'px', time: 'ms', number: '' };

export class CalcTypeError extends Error {}

/** One number with a unit, as read from text. */
export interface WrittenQuantity extends Quantity {
  readonly value: number;
  readonly unit: string;
}

/** Reads one number with a unit; `null` for any other text. */
export function readQuantity(css: string, rootFontSize: number): WrittenQuantity | null {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(%|[a-z]*)$/i.exec(css.trim());
  if (!match) return null;
  const unit = match[2]!.toLowerCase();
  const value = Number(match[1]);
  const row = Object.hasOwn(UNITS, unit) ? UNITS[unit] : undefined;
  return row ? { value, unit, dimension: row.dimension, amount: inUnit(value, row, rootFontSize) } : null;
}

function inUnit(value: number, { factor }: UnitRow, rootFontSize: number): number | null {
  if (factor === null) return null;
  return value * (factor === 'rem' ? rootFontSize : factor);
}

/**
 * Works out an expression. `leaf` gives the quantity of a token or property. Throws `CalcTypeError` where units do not
 * go together. Division by zero gives `null`, as there is no length to show for it.
 */
export function evaluate(
  calc: Calc,
  rootFontSize: number,
  leaf: (node: Calc & { kind: 'token' | 'property' }) => Quantity,
): Quantity {
  const value = (node: Calc): Quantity => evaluate(node, rootFontSize, leaf);
  switch (calc.kind) {
    case 'number': {
      const unit = Object.hasOwn(UNITS, calc.unit) ? UNITS[calc.unit] : undefined;
      if (!unit) throw new CalcTypeError(`has the unknown unit “${calc.unit}”`);
      return { dimension: unit.dimension, amount: inUnit(calc.value, unit, rootFontSize) };
    }
    case 'token':
    case 'property':
      return leaf(calc);
    case 'call':
      return alike(calc.args.map(value), calc.name, amounts =>
        calc.name === 'clamp'
          ? Math.max(amounts[0]!, Math.min(amounts[1]!, amounts[2]!))
          : Math[calc.name](...amounts),
      );
    case 'sum': {
      const signs = calc.terms.map(({ sign }) => (sign === '-' ? -1 : 1));
      return alike(
        calc.terms.map(({ term }) => value(term)),
        'a sum',
        amounts => amounts.reduce((sum, amount, index) => sum + signs[index]! * amount, 0),
      );
    }
    case 'product':
      return calc.terms.reduce<Quantity>((left, { sign, term }) => times(left, sign, value(term)), {
        dimension: 'number',
        amount: 1,
      });
  }
}

const WORDS: Record<Dimension, string> = { number: 'a plain number', length: 'a length', time: 'a duration' };

function alike(parts: readonly Quantity[], where: string, join: (amounts: number[]) => number): Quantity {
  const first = parts[0]!;
  const other = parts.find(part => part.dimension !== first.dimension);
  if (other)
    throw new CalcTypeError(`mixes ${WORDS[first.dimension]} and ${WORDS[other.dimension]} in ${where}`);
  const amounts = parts.map(part => part.amount);
  const known = amounts.every(amount => amount !== null);
  return { dimension: first.dimension, amount: known ? join(amounts as number[]) : null };
}

function times(left: Quantity, sign: string, right: Quantity): Quantity {
  if (sign === '/' && right.dimension !== 'number')
    throw new CalcTypeError(`divides by ${WORDS[right.dimension]}`);
  if (left.dimension !== 'number' && right.dimension !== 'number') {
    throw new CalcTypeError(`multiplies ${WORDS[left.dimension]} by ${WORDS[right.dimension]}`);
  }
  const dimension = left.dimension === 'number' ? right.dimension : left.dimension;
  if (left.amount === null || right.amount === null) return { dimension, amount: null };
  const amount = sign === '/' ? left.amount / right.amount : left.amount * right.amount;
  return { dimension, amount: Number.isFinite(amount) ? amount : null };
}

/** What an expression comes to, given the text of its tokens and the dimension of its properties; `null` when nothing. */
export function dimensionOf(
  calc: Calc,
  leaves: { readonly token: (key: string) => string; readonly property: (name: string) => Dimension },
): Dimension | null {
  try {
    return evaluate(calc, 1, node => {
      if (node.kind === 'property') return { dimension: leaves.property(node.property), amount: null };
      const quantity = readQuantity(leaves.token(node.key), 1);
      if (!quantity) throw new CalcTypeError('uses a token that is no quantity');
      return { dimension: quantity.dimension, amount: null };
    }).dimension;
  } catch (error) {
    if (error instanceof CalcTypeError) return null;
    throw error;
  }
}
