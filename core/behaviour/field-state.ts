/** Where a field is: all of what one did with it that still matters. Plain data. */
export interface FieldState {
  /** ms since it began. */
  readonly time: number;
  /** As forms submit it. */
  readonly value: string;
  /** The last value that was of its kind: what is written briefly follows it. */
  readonly known: string;
  /** What stands in the control: the value as it is read at rest, or as a person writes it. */
  readonly text: string;
  /** Ends of the selection in the text, in UTF-16 code units as the DOM counts them. */
  readonly selection: readonly [number, number];
  /** Whether Shift and arrows move its beginning. */
  readonly isBackward: boolean;
  /** Which part has the focus, and whether a browser would show that (`:focus-visible`); `null` where it is elsewhere. */
  readonly focus: { readonly part: string; readonly isVisible: boolean } | null;
  /** What is pointed at; of a list, which entry. */
  readonly pointer: { readonly part: string | null; readonly entry: number | null; readonly isDown: boolean };
  /** A button that is held down, and when it acts again. */
  readonly held: { readonly part: string; readonly next: number } | null;
  /** Id of the check whose message is shown. */
  readonly complaint: string | null;
  /** Whether it was judged without a mistake, and has not changed since. */
  readonly isApproved: boolean;
  /** The check that the application has been asked, and of which value. */
  readonly asking: { readonly check: string; readonly value: string } | null;
  /** Whether it is to be sent once the answer is there. */
  readonly isSending: boolean;
  /** What the application has answered for the present value, by check. */
  readonly answers: Readonly<Record<string, boolean>>;
  readonly isAutofilled: boolean;
  readonly isRevealed: boolean;
  /** Whether its list is open, and the place of the entry that the keys have come to. */
  readonly isOpen: boolean;
  readonly active: number | null;
  /** Letters typed in quick succession, and when the last one was. */
  readonly sought: { readonly letters: string; readonly at: number } | null;
  /** BCP 47. */
  readonly locale: string;
  /** Values of the other fields of the form, by name. */
  readonly others: Readonly<Record<string, string>>;
  /** Values of axes that the application sets: options, requirement, availability. */
  readonly set: Readonly<Record<string, string>>;
  /** What `reset` goes back to. */
  readonly initial: string;
}

/** What is to be done outside of the field. */
export type Effect =
  /** Characters that were not taken, to be read out. */
  | { readonly kind: 'refuse'; readonly text: string }
  | { readonly kind: 'ask'; readonly check: string; readonly ask: string; readonly value: string }
  | { readonly kind: 'send'; readonly value: string };

/** Where a field is before it has a value. */
export const BLANK: FieldState = {
  time: 0,
  value: '',
  known: '',
  text: '',
  selection: [0, 0],
  isBackward: false,
  focus: null,
  pointer: { part: null, entry: null, isDown: false },
  held: null,
  complaint: null,
  isApproved: false,
  asking: null,
  isSending: false,
  answers: {},
  isAutofilled: false,
  isRevealed: false,
  isOpen: false,
  active: null,
  sought: null,
  locale: 'en',
  others: {},
  set: {},
  initial: '',
};
