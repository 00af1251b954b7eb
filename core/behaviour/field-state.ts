/** Where a field is: all of what one did with it that still matters. Plain data. */
export interface FieldState {
  /** ms since it began. */
  readonly time: number;
  /** As forms submit it. */
  readonly value: string;
  /** Ends of the selection in the value, in UTF-16 code units as the DOM counts them. */
  readonly selection: readonly [number, number];
  /** Which part has the focus, and whether a browser would show that (`:focus-visible`); `null` where it is elsewhere. */
  readonly focus: { readonly part: string; readonly isVisible: boolean } | null;
  readonly pointer: { readonly part: string | null; readonly isDown: boolean };
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
  /** Values of axes that the application sets: options, requirement, availability. */
  readonly set: Readonly<Record<string, string>>;
  /** What `reset` goes back to. */
  readonly initial: string;
}

/** What is to be done outside of the field. */
export type Effect =
  | { readonly kind: 'announce'; readonly text: string }
  | { readonly kind: 'ask'; readonly check: string; readonly ask: string; readonly value: string }
  | { readonly kind: 'send'; readonly value: string };

/** A field as it begins: at rest, with the options and the value that it is given. */
export const atRest = (value: string, set: Readonly<Record<string, string>> = {}): FieldState => ({
  time: 0,
  value,
  selection: [value.length, value.length],
  focus: null,
  pointer: { part: null, isDown: false },
  complaint: null,
  isApproved: false,
  asking: null,
  isSending: false,
  answers: {},
  isAutofilled: false,
  isRevealed: false,
  set,
  initial: value,
});
