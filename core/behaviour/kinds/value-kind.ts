import { lengthOf } from '../../text/graphemes';
import type { ValueDocument } from '../../documents/behaviour-document';
import type { Clock } from '../../components/content/times';
import type { FieldState } from '../field-state';
import type { PlanData } from '../plan-data';

/** How a value is written where the field stands: the kind's document, and the ways of the place. */
export interface ValueFormat extends Clock {
  readonly document: ValueDocument;
}

/** One of the entries of a list, as whoever draws it knows it. */
export interface ListEntry {
  /** What forms submit. */
  readonly id: string;
  readonly text: string;
  readonly isDisabled: boolean;
}

/** What a key or a press comes to where a kind has an answer of its own. */
export interface Turn {
  readonly change: Partial<FieldState>;
  /** The value that a person has come to by it. */
  readonly value?: string;
  /** Whether the focus goes on as it would have gone by itself. */
  readonly goesOn?: boolean;
}

export interface KeyPress {
  readonly key: string;
  readonly shift: boolean;
  readonly control: boolean;
  readonly alt: boolean;
}

/** What only whoever draws the field knows. */
export interface Drawn {
  readonly isDisabled: (part: string) => boolean;
  /** Of its list, in order. */
  readonly entries: () => readonly ListEntry[];
}

/** The field that a list is in, as far as the list needs it. */
export interface FieldOfList {
  readonly state: FieldState;
  readonly drawn: Drawn;
  readonly combination: readonly number[];
  readonly change: (parts: Partial<FieldState>) => void;
  readonly enter: (value: string) => void;
}

/** How a list of choices answers; only what can be changed is asked. */
export interface ListBehaviour {
  /** A key in the control. Whether it has been answered; else a browser goes on with it. */
  readonly keyed: (field: FieldOfList, plan: PlanData, press: KeyPress) => boolean;
  /** A press on the control. */
  readonly pressed: (field: FieldOfList, plan: PlanData) => void;
  /** A press on an entry, by its place. */
  readonly chosen: (field: FieldOfList, plan: PlanData, place: number) => void;
}

/** One kind of value: its text form, and how acts change it. */
export interface ValueKind {
  /** Whether its control takes text, so that its focus is always shown (`:focus-visible`, Selectors 4). */
  readonly takesText: boolean;
  readonly takesLines: boolean;
  /** Whether a value counts as nothing entered. */
  readonly isEmpty: (value: string) => boolean;
  /** Whether a value is not of the kind. */
  readonly isMisfit: (value: string, document: ValueDocument) => boolean;
  /** The value that a text means; the text itself where it means none. Absent where both are the same. */
  readonly read?: (text: string, format: ValueFormat, before: string) => string;
  /** A value as it is read at rest, and as it is edited. */
  readonly shown?: (value: string, format: ValueFormat) => string;
  readonly edited?: (value: string, format: ValueFormat) => string;
  /** What is taken of a text that would come in; the rest is refused, and said to be. */
  readonly taken?: (added: string, document: ValueDocument) => string;
  /** What a key does to the value beyond editing text; `undefined` where the key is nothing to it. */
  readonly key?: (key: string, value: string, document: ValueDocument) => string | undefined;
  /** The value so many steps on. */
  readonly step?: (value: string, document: ValueDocument, by: number) => string;
  /** What a press on the control does to it. */
  readonly press?: (value: string) => string;
  /** What a press on a part does to it, by role. */
  readonly parts?: { readonly [role: string]: (value: string, document: ValueDocument) => string };
  readonly list?: ListBehaviour;
  /** A locale's word for the half of the day. */
  readonly half?: (value: string, locale: string) => string;
}

/** What kinds that hold text as it is typed have in common. */
export const TEXT: ValueKind = {
  takesText: true,
  takesLines: false,
  isEmpty: value => value === '',
  // What comes beyond its most is kept, and judged.
  isMisfit: (value, { most }) => most !== undefined && value.length > most && lengthOf(value) > most,
};
