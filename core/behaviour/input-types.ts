import type { PlanData } from './plan-data';

/** How a browser holds what is entered in an input of a type. */
interface EntryType {
  /** Whether it has pieces or a picker of its own, in which keys do what only a browser knows. */
  readonly isPicked?: true;
  /** The characters that can be typed; absent where all can. */
  readonly takes?: RegExp;
  /** What it holds of a text (HTML, 4.10.5.1, the value sanitization algorithms). */
  readonly holds?: (text: string) => string;
  /** What the arrow keys make of a value: a browser steps it. */
  readonly step?: (value: string, by: 1 | -1) => string;
}

const only =
  (isValid: RegExp) =>
  (text: string): string =>
    isValid.test(text) ? text : '';

/** Whether there is such a day: the thirty-first of April comes to another month. */
function day(text: string): string {
  const date = new Date(`${text}T00:00Z`);
  return /^\d{4,}-\d\d-\d\d$/.test(text) && date.toJSON()?.startsWith(text) ? text : '';
}

const trimmed: EntryType = { holds: text => text.trim() };

/** Types whose inputs do not simply hold what is typed. */
const ENTRY_TYPES: Readonly<Record<string, EntryType>> = {
  email: trimmed,
  url: trimmed,
  number: {
    takes: /[-+.\deE]/,
    holds: text =>
      /^-?(\d+|\d*\.\d+)(e[-+]?\d+)?$/i.test(text) && Number.isFinite(Number(text)) ? text : '',
    // To the next whole number (HTML, 4.10.5.4, stepUp).
    step: (value, by) => String(by > 0 ? Math.floor(Number(value)) + 1 : Math.ceil(Number(value)) - 1),
  },
  date: { isPicked: true, holds: day },
  month: { isPicked: true, holds: only(/^\d{4,}-(0[1-9]|1[0-2])$/) },
  week: { isPicked: true, holds: only(/^\d{4,}-W(0[1-9]|[1-4]\d|5[0-3])$/) },
  time: { isPicked: true, holds: only(/^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,3})?)?$/) },
  'datetime-local': { isPicked: true },
  color: { isPicked: true },
  range: { isPicked: true },
};

const entryType = ({ control }: PlanData): EntryType | undefined =>
  control?.element === 'input' ? ENTRY_TYPES[control.type ?? 'text'] : undefined;

/** Whether keys and characters in the control do what only a browser knows. */
export const isPicked = (plan: PlanData): boolean => entryType(plan)?.isPicked === true;

/** What of a typed text the control takes. */
export function takenByType(plan: PlanData, text: string): string {
  const takes = entryType(plan)?.takes;
  return takes ? [...text].filter(each => takes.test(each)).join('') : text;
}

/** What a key of the type's own makes of a value; `undefined` where it is none. */
export function steppedByType(plan: PlanData, key: string, value: string): string | undefined {
  const by = key === 'ArrowUp' ? 1 : key === 'ArrowDown' ? -1 : undefined;
  return by && entryType(plan)?.step?.(value, by);
}

/** What the control holds of a value. */
export const heldByType = (plan: PlanData, value: string): string => entryType(plan)?.holds?.(value) ?? value;
