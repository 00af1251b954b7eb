import type { ValueDocument } from '../../documents/behaviour-document';
import { TEXT, type ValueKind } from './value-kind';

/** A number as people type it: digits, a sign, a point, a power of ten (HTML, 2.3.4.3, valid floating-point numbers). */
const NUMBER = /^-?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;

/** Decimals that two numbers need at most; sums are rounded to them, so that 0.1 and 0.2 are 0.3. */
const decimals = (...numbers: readonly number[]): number =>
  Math.max(
    ...numbers.map(number => {
      const [digits = '', exponent = '0'] = String(number).split('e');
      return Math.min(MOST_DECIMALS, Math.max(0, (digits.split('.')[1]?.length ?? 0) - Number(exponent)));
    }),
  );

/** As many as `toFixed` writes. */
const MOST_DECIMALS = 100;

function stepped(value: string, { least, most, step = 1 }: ValueDocument, by: number): string {
  const from = NUMBER.test(value) ? Number(value) : null;
  const low = typeof least === 'number' ? least : -Infinity;
  const high = typeof most === 'number' ? most : Infinity;
  // Nothing entered steps to where counting begins (HTML, 4.10.5.4, stepUp).
  const to = from === null ? Math.min(Math.max(0, low), high) : from + by * step;
  const bounded = Math.min(Math.max(to, low), high);
  return String(Number(bounded.toFixed(decimals(from ?? 0, step, bounded === to ? 0 : bounded))));
}

/** So many steps each key makes; Page keys make ten. */
const STEPS: Readonly<Record<string, number>> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 };

/** Keys: ARIA Authoring Practices, spinbutton. */
export const count: ValueKind = {
  ...TEXT,
  isMisfit: value => !NUMBER.test(value),
  step: stepped,
  key: (key, value, document) => {
    if (Object.hasOwn(STEPS, key)) return stepped(value, document, STEPS[key]!);
    const end = key === 'Home' ? document.least : key === 'End' ? document.most : undefined;
    return typeof end === 'number' ? String(end) : undefined;
  },
  parts: {
    less: (value, document) => stepped(value, document, -1),
    more: (value, document) => stepped(value, document, 1),
  },
};
