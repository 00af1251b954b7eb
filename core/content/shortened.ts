import { graphemesOf } from './graphemes';

/** Halves of characters that stand alone, which no text in UTF-8 can hold (Unicode, section 3.8). */
const LONE_SURROGATE = /\p{Surrogate}/u;

export const hasLoneSurrogate = (text: string): boolean => LONE_SURROGATE.test(text);

/** A text with at most so many code points, cut between what people take for letters; halves of characters are left out. */
export function shortened(text: string, most: number): string {
  const whole = hasLoneSurrogate(text) ? text.replace(/\p{Surrogate}/gu, '') : text;
  if (whole.length <= most) return whole;
  let kept = '';
  let points = 0;
  for (const letter of graphemesOf(whole)) {
    points += [...letter].length;
    if (points > most) break;
    kept += letter;
  }
  return kept;
}
