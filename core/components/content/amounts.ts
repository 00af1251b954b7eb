import { digitsOf, withPlainDigits } from './locale-digits';

/** An amount as forms submit it (HTML, 2.3.4.3, without a power of ten). */
const AMOUNT = /^-?\d+(\.\d+)?$/;

/** How a locale writes numbers. */
interface Signs {
  readonly group: string;
  readonly decimal: string;
}

/** Which of them a locale groups by differs by version of Unicode's data; people type the straight one. */
const APOSTROPHES = /['‘’]/g;

function signsOf(locale: string): Signs {
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(-1234567.5);
  const sign = (type: string): string => parts.find(part => part.type === type)?.value ?? '';
  return { group: sign('group').replace(APOSTROPHES, '’'), decimal: sign('decimal') };
}

/** Marks of writing direction, which formats put around signs. */
const DIRECTION = /[\u061c\u200e\u200f]/g;

/**
 * The amount that a text means in a locale, as a decimal: `1.240,50` in German is `1240.50`. Signs of grouping count only where they part digits as
 * groups do, so that what was meant as a decimal sign is never read over. `null` where it is none.
 */
export function amountIn(text: string, locale: string): string | null {
  const { group, decimal } = signsOf(locale);
  const plain = withPlainDigits(text.replace(DIRECTION, '').trim(), locale)
    .replace(/[−–]/, '-')
    .replace(APOSTROPHES, '’');
  const [, minus = '', whole = '', rest] =
    new RegExp(`^(-?)\\s*([^${escaped(decimal)}]*)(?:${escaped(decimal)}(.*))?$`, 's').exec(plain) ?? [];
  const groups = whole.split(isSpace(group) ? /\s/ : group === '' ? '\u0000' : group);
  const isGrouped = groups.every(
    (each, place) =>
      /^\d*$/.test(each) &&
      (place === 0 || each.length === (place === groups.length - 1 ? 3 : 2) || each.length === 3),
  );
  const digits = groups.join('').replace(/^0+(?=\d)/, '');
  if (!isGrouped || (rest !== undefined && !/^\d*$/.test(rest)) || digits + (rest ?? '') === '') return null;
  return `${minus}${digits || '0'}${rest ? `.${rest}` : ''}`;
}

const isSpace = (sign: string): boolean => /^\s$/.test(sign);
const escaped = (sign: string): string => sign.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** An amount as a locale writes it, grouped, with as many decimals as it has; what is none as it is. */
export function grouped(amount: string, locale: string): string {
  if (!AMOUNT.test(amount)) return amount;
  const decimals = amount.split('.')[1]?.length ?? 0;
  // Given as text it is written exactly, however long (ECMA-402, 16.5).
  return new Intl.NumberFormat(locale, {
    minimumFractionDigits: Math.min(decimals, 20),
    maximumFractionDigits: Math.min(decimals, 20),
  }).format(amount as unknown as number);
}

/** The same as one writes it while editing: without grouping. */
export function ungrouped(amount: string, locale: string): string {
  if (!AMOUNT.test(amount)) return amount;
  const digits = digitsOf(locale);
  return amount.replace('.', signsOf(locale).decimal).replace(/\d/g, digit => digits[Number(digit)]!);
}
