import { firstGrapheme, graphemesOf, lengthOf } from '../content/graphemes';
import type { ValueDocument } from '../formats/component-document';

/** A text with what is selected in it. */
export interface Written {
  readonly value: string;
  readonly selection: readonly [number, number];
}

/** One kind of value: its text form, and how acts change it. */
export interface ValueKind {
  /** Whether its control takes text, so that its focus is always shown (`:focus-visible`, Selectors 4). */
  readonly takesText: boolean;
  readonly takesLines: boolean;
  /** Whether a value counts as nothing entered. */
  readonly isEmpty: (value: string) => boolean;
  /** What is wrong with a value of another kind; `null` where it is of the kind. */
  readonly misfit: (value: string, document: ValueDocument) => string | null;
  /** What a key does to the value beyond editing text; `undefined` where the key is nothing to it. */
  readonly key?: (key: string, value: string, document: ValueDocument) => string | undefined;
  /** The value so many steps on. */
  readonly step?: (value: string, document: ValueDocument, by: number) => string;
  /** What a press on the control does to it. */
  readonly press?: (value: string) => string;
  /** What a press on a part does to it, by role. */
  readonly parts?: { readonly [role: string]: (value: string, document: ValueDocument) => string };
}

const text: ValueKind = {
  takesText: true,
  takesLines: false,
  isEmpty: value => value === '',
  misfit: () => null,
};

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

/** So many steps a Page key makes. */
const PAGE = 10;

/** Every kind of value; adding one is adding a row. Keys: ARIA Authoring Practices, spinbutton and switch patterns. */
export const VALUE_KINDS: Readonly<Record<string, ValueKind>> = {
  text,
  secret: text,
  area: { ...text, takesLines: true },
  search: {
    ...text,
    key: (key, value) => (key === 'Escape' && value !== '' ? '' : undefined),
    parts: { clear: () => '' },
  },
  count: {
    ...text,
    misfit: value => (NUMBER.test(value) ? null : 'It is no number.'),
    step: stepped,
    key: (key, value, document) => {
      const by = { ArrowUp: 1, ArrowDown: -1, PageUp: PAGE, PageDown: -PAGE }[key];
      if (by !== undefined) return stepped(value, document, by);
      const end = { Home: document.least, End: document.most }[key];
      return typeof end === 'number' ? String(end) : undefined;
    },
    parts: {
      less: (value, document) => stepped(value, document, -1),
      more: (value, document) => stepped(value, document, 1),
    },
  },
  toggle: {
    takesText: false,
    takesLines: false,
    isEmpty: value => value !== 'true',
    misfit: value =>
      value === '' || value === 'true' || value === 'false' ? null : 'It is neither true nor false.',
    key: (key, value) => (key === ' ' ? toggled(value) : undefined),
    press: toggled,
  },
};

function toggled(value: string): string {
  return value === 'true' ? 'false' : 'true';
}

/** Text put in the place of what is selected. Beyond `most` nothing is put where the kind stops there. */
export function inserted(
  { value, selection: [from, to] }: Written,
  added: string,
  { most, stop }: ValueDocument,
): Written {
  const [before, after] = [value.slice(0, from), value.slice(to)];
  const room = stop && typeof most === 'number' ? Math.max(0, most - lengthOf(before + after)) : Infinity;
  const put = graphemesOf(added).slice(0, room).join('');
  const caret = before.length + put.length;
  return { value: before + put + after, selection: [caret, caret] };
}

/** What keys do in a text, as every browser does them; `null` for any other key. */
export function editedByKey(written: Written, key: string, shift: boolean): Written | null {
  const { value, selection } = written;
  const [from, to] = selection;
  const isCaret = from === to;
  const ahead = to + firstGrapheme(value.slice(to)).length;
  const behind = from - (graphemesOf(value.slice(0, from)).at(-1)?.length ?? 0);
  const without = (first: number, last: number): Written => ({
    value: value.slice(0, first) + value.slice(last),
    selection: [first, first],
  });
  const at = (place: number, anchor: number): Written => ({
    value,
    selection: shift ? [Math.min(anchor, place), Math.max(anchor, place)] : [place, place],
  });
  switch (key) {
    case 'Backspace':
      return isCaret ? without(behind, to) : without(from, to);
    case 'Delete':
      return isCaret ? without(from, ahead) : without(from, to);
    case 'ArrowLeft':
      return at(shift || isCaret ? behind : from, to);
    case 'ArrowRight':
      return at(shift || isCaret ? ahead : to, from);
    case 'Home':
      return at(0, to);
    case 'End':
      return at(value.length, from);
    default:
      return null;
  }
}
