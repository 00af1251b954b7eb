import { firstGrapheme, graphemesOf } from '../text/graphemes';

/** A text with what is selected in it. */
export interface Written {
  readonly text: string;
  readonly selection: readonly [number, number];
  /** Whether the selection is moved at its beginning. */
  readonly isBackward?: boolean;
}

/** Text put in the place of what is selected. */
export function inserted({ text, selection: [from, to] }: Written, put: string): Written {
  const caret = from + put.length;
  return { text: text.slice(0, from) + put + text.slice(to), selection: [caret, caret] };
}

/** What keys do in a text, as every browser does them, with `lines` in one of several lines; `null` for any other key. */
export function editedByKey(written: Written, key: string, shift: boolean, lines: boolean): Written | null {
  const { text, selection, isBackward = false } = written;
  const [from, to] = selection;
  const isCaret = from === to;
  const next = (place: number): number => place + firstGrapheme(text.slice(place)).length;
  const last = (place: number): number => place - (graphemesOf(text.slice(0, place)).at(-1)?.length ?? 0);
  const without = (first: number, end: number): Written => ({
    text: text.slice(0, first) + text.slice(end),
    selection: [first, first],
  });
  // With Shift one end stays where it is.
  const [anchor, head] = isBackward ? [to, from] : [from, to];
  const at = (place: number): Written => ({
    text,
    selection: shift ? [Math.min(anchor, place), Math.max(anchor, place)] : [place, place],
    isBackward: shift && place < anchor,
  });
  switch (key) {
    case 'Backspace':
      return isCaret ? without(last(from), to) : without(from, to);
    case 'Delete':
      return isCaret ? without(from, next(to)) : without(from, to);
    case 'ArrowLeft':
      return at(shift || isCaret ? last(head) : from);
    case 'ArrowRight':
      return at(shift || isCaret ? next(head) : to);
    case 'ArrowUp':
      return lines ? null : at(0);
    case 'ArrowDown':
      return lines ? null : at(text.length);
    case 'Home':
      return at(lines && head > 0 ? text.lastIndexOf('\n', head - 1) + 1 : 0);
    case 'End':
      return at(lines && text.includes('\n', head) ? text.indexOf('\n', head) : text.length);
    default:
      return null;
  }
}
