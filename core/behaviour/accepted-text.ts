import { graphemesOf, lengthOf } from '../text/graphemes';
import { takenByType } from './input-types';
import type { Plan } from './plan';
import type { Written } from './typing';

/** What of a text that is typed or pasted goes into a field, and what of it is refused aloud. */
export interface AcceptedText {
  readonly put: string;
  readonly refused: string;
}

/** Spaces and hyphens come along when codes are copied; nobody has to hear that they were left out. */
const UNHEARD = /[\s\p{Pd}]/gu;

/** Decides it, where `added` comes in the place of what is selected. */
export function acceptedText(
  plan: Plan,
  { text, selection: [from, to] }: Written,
  added: string,
): AcceptedText {
  const { kind, value } = plan;
  // A line takes no line breaks (HTML, 4.10.5.1.2); browsers put spaces where pasted text had some.
  const line = takenByType(plan, kind.takesLines ? added : added.replace(/\r\n|[\r\n]/g, ' '));
  const fitting = kind.taken?.(line, value) ?? line;
  const most = kind.taken ? value.length : value.stop ? value.most : undefined;
  if (most === undefined && fitting === line) return { put: line, refused: '' };
  const room =
    most === undefined ? Infinity : Math.max(0, most - lengthOf(text.slice(0, from) + text.slice(to)));
  const put = graphemesOf(fitting).slice(0, room).join('');
  const isHeard = kind.taken && put !== line;
  return { put, refused: isHeard ? leftOut(line.replace(UNHEARD, ''), put) : '' };
}

/** What of a text is not in what was taken of it, in order. */
function leftOut(text: string, put: string): string {
  let at = 0;
  return [...text].filter(each => put[at] !== each || (at++, false)).join('');
}
