import type { Written } from './typing';

/** A piece of a text that goes as a whole: a word, a run of punctuation, spaces. */
interface Piece {
  readonly at: number;
  readonly text: string;
}

/**
 * What Control with Backspace or Delete leaves of a text: the word before or behind the caret goes, with the spaces between; `null` for any other
 * key. What is masked is one word.
 */
export function withoutWord(
  { text, selection: [from, to] }: Written,
  key: string,
  isMasked: boolean,
): Written | null {
  if (key !== 'Backspace' && key !== 'Delete') return null;
  const pieces = isMasked ? [{ at: 0, text }] : piecesOf(text);
  const isBack = key === 'Backspace';
  const [first, end] =
    from !== to
      ? [from, to]
      : isBack
        ? [beginningBefore(pieces, from), from]
        : [from, endBehind(pieces, text, to)];
  return { text: text.slice(0, first) + text.slice(end), selection: [first, first] };
}

const isSpace = ({ text }: Piece): boolean => text.trim() === '' && text !== '\n';

const beginningBefore = (pieces: readonly Piece[], caret: number): number =>
  pieces.findLast(piece => piece.at < caret && !isSpace(piece))?.at ?? 0;

function endBehind(pieces: readonly Piece[], text: string, caret: number): number {
  const piece = pieces.find(each => each.at + each.text.length > caret && !isSpace(each));
  return piece ? piece.at + piece.text.length : text.length;
}

/** Words end here in browsers, other than in Unicode Standard Annex 29. */
const BETWEEN_LETTERS = /(?<=\p{L})(?=[.:]\p{L})|(?<=\p{L}[.:])(?=\p{L})/u;
const isPunctuation = (text: string): boolean => /^\p{P}+$/u.test(text);

/** Words as browsers erase them: those of Unicode Standard Annex 29, parted at a point between letters; punctuation in a row is one. */
function piecesOf(text: string): Piece[] {
  const parts = [...new Intl.Segmenter('en', { granularity: 'word' }).segment(text)].flatMap(({ segment }) =>
    segment.split(BETWEEN_LETTERS),
  );
  const pieces: Piece[] = [];
  let at = 0;
  for (const part of parts) {
    const last = pieces.at(-1);
    if (last && isPunctuation(last.text) && isPunctuation(part)) {
      pieces[pieces.length - 1] = { at: last.at, text: last.text + part };
    } else pieces.push({ at, text: part });
    at += part.length;
  }
  return pieces;
}
