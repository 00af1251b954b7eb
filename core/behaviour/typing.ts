import { firstGrapheme, graphemesOf } from '../content/graphemes';

/** A text with what is selected in it. */
export interface Written {
  readonly text: string;
  readonly selection: readonly [number, number];
}

/** Text put in the place of what is selected. */
export function inserted({ text, selection: [from, to] }: Written, put: string): Written {
  const caret = from + put.length;
  return { text: text.slice(0, from) + put + text.slice(to), selection: [caret, caret] };
}

/** What keys do in a text, as every browser does them, with `lines` in one of several lines; `null` for any other key. */
export function editedByKey(written: Written, key: string, shift: boolean, lines: boolean): Written | null {
  const { text, selection } = written;
  const [from, to] = selection;
  const isCaret = from === to;
  const ahead = to + firstGrapheme(text.slice(to)).length;
  const behind = from - (graphemesOf(text.slice(0, from)).at(-1)?.length ?? 0);
  const without = (first: number, last: number): Written => ({
    text: text.slice(0, first) + text.slice(last),
    selection: [first, first],
  });
  const at = (place: number, anchor: number): Written => ({
    text,
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
      return at(lines ? text.lastIndexOf('\n', from - 1) + 1 : 0, to);
    case 'End':
      return at(lines && text.includes('\n', to) ? text.indexOf('\n', to) : text.length, from);
    default:
      return null;
  }
}
