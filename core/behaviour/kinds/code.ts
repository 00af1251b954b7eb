import { lengthOf } from '../../text/graphemes';
import type { ValueDocument } from '../../documents/behaviour-document';
import { TEXT, type ValueKind } from './value-kind';

/** What the characters of a code may be; ASCII alone, which every keyboard has. */
const KINDS: Readonly<Record<string, RegExp>> = {
  digits: /[0-9]/g,
  letters: /[A-Za-z]/g,
  both: /[0-9A-Za-z]/g,
};
export const CODE_CHARACTERS: readonly string[] = Object.keys(KINDS);

const fitting = (text: string, { of = 'digits' }: ValueDocument): string =>
  (text.match(KINDS[of] ?? KINDS['digits']!) ?? []).join('');

/** One box for each character, and one entry for all of them. */
export const code: ValueKind = {
  ...TEXT,
  isMisfit: (value, document) =>
    fitting(value, document) !== value || lengthOf(value) !== (document.length ?? lengthOf(value)),
  taken: fitting,
};
