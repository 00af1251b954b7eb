import { hasLoneSurrogate } from '../json/lone-surrogates';
import { graphemesOf } from './graphemes';

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
