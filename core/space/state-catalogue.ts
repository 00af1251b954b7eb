/** How markup says that a state holds, when it can be said in markup at all. */
export interface StateMark {
  /** Which element bears the attribute. */
  readonly on: 'control' | 'root';
  readonly attribute: string;
  readonly value: string;
}

export interface StateValue {
  readonly id: string;
  /** The value in a sentence: "When pointed at, …". */
  readonly words: string;
  /** When a browser is in this state. */
  readonly meaning: string;
  /**
   * Selector on the component's root that tells the state from the one at rest; `{control}` stands for the control's
   * class. Absent on the value at rest. On a ladder each selector implies the ones before it.
   */
  readonly detect?: string;
  readonly mark?: StateMark;
}

export interface StateAxisRow {
  readonly id: string;
  readonly title: string;
  /** Each value includes the ones before it: pressed is also pointed at. */
  readonly ladder: boolean;
  /** First the value at rest. Off a ladder, when two are detected at once the later one counts. */
  readonly values: readonly StateValue[];
}

const root = (attribute: string, value: string): StateMark => ({ on: 'root', attribute, value });
const control = (attribute: string, value = ''): StateMark => ({ on: 'control', attribute, value });

/**
 * The axes along which an input component varies while it runs. Terms and selectors follow HTML, Selectors 4 and
 * WAI-ARIA 1.2. Adding a state is adding a row.
 */
export const STATE_CATALOGUE: readonly StateAxisRow[] = [
  {
    id: 'pointer',
    title: 'Pointer',
    ladder: true,
    values: [
      { id: 'away', words: 'not pointed at', meaning: 'The pointer is elsewhere.' },
      { id: 'over', words: 'pointed at', meaning: 'The pointer is over the field.', detect: ':hover' },
      {
        id: 'down',
        words: 'pressed',
        meaning: 'A button of the pointer is held down on it.',
        detect: ':hover:active',
      },
    ],
  },
  {
    id: 'focus',
    title: 'Focus',
    ladder: true,
    values: [
      { id: 'out', words: 'not focused', meaning: 'The keyboard speaks to something else.' },
      {
        id: 'in',
        words: 'focused',
        meaning: 'The control, or something in the field, has the focus.',
        detect: ':focus-within',
      },
      {
        id: 'keyboard',
        words: 'focused visibly',
        meaning: 'It has the focus, and the browser finds that it must be shown.',
        detect: ':has(:focus-visible)',
      },
    ],
  },
  {
    id: 'content',
    title: 'Content',
    ladder: false,
    values: [
      { id: 'empty', words: 'empty', meaning: 'Nothing has been entered; the placeholder shows.' },
      {
        id: 'filled',
        words: 'filled',
        meaning: 'Something has been entered.',
        detect: ':not(:has({control}:placeholder-shown))',
        mark: control('value'),
      },
    ],
  },
  {
    id: 'validity',
    title: 'Validity',
    ladder: false,
    values: [
      { id: 'none', words: 'not judged', meaning: 'Nothing has been said about the entry.' },
      {
        id: 'invalid',
        words: 'invalid',
        meaning: 'The entry cannot be accepted as it is.',
        detect: ':has({control}[aria-invalid="true"])',
        mark: control('aria-invalid', 'true'),
      },
      {
        id: 'valid',
        words: 'approved',
        meaning: 'The entry has been looked at and accepted.',
        detect: '[data-validity="valid"]',
        mark: root('data-validity', 'valid'),
      },
    ],
  },
  {
    id: 'availability',
    title: 'Availability',
    ladder: false,
    values: [
      { id: 'enabled', words: 'enabled', meaning: 'It can be used.' },
      {
        id: 'readonly',
        words: 'read-only',
        meaning: 'It can be read, focused and copied from, not changed.',
        detect: ':has({control}[readonly])',
        mark: control('readonly'),
      },
      {
        id: 'busy',
        words: 'busy',
        meaning: 'An answer is awaited before it can go on.',
        detect: '[aria-busy="true"]',
        mark: root('aria-busy', 'true'),
      },
      {
        id: 'disabled',
        words: 'disabled',
        meaning: 'It takes no part: no focus, no entry, no value sent.',
        detect: ':has({control}:disabled)',
        mark: control('disabled'),
      },
    ],
  },
  {
    id: 'disclosure',
    title: 'Disclosure',
    ladder: false,
    values: [
      { id: 'closed', words: 'closed', meaning: 'What it opens is hidden.' },
      {
        id: 'open',
        words: 'open',
        meaning: 'What it opens is shown.',
        detect: ':has({control}[aria-expanded="true"])',
        mark: control('aria-expanded', 'true'),
      },
    ],
  },
  {
    id: 'selection',
    title: 'Selection',
    ladder: false,
    values: [
      { id: 'unselected', words: 'not chosen', meaning: 'It is not the chosen one.' },
      {
        id: 'selected',
        words: 'chosen',
        meaning: 'It is the chosen one.',
        detect: ':is([aria-selected="true"], :has({control}:checked))',
        mark: root('aria-selected', 'true'),
      },
    ],
  },
  {
    id: 'range',
    title: 'Range',
    ladder: false,
    values: [
      { id: 'within', words: 'within its range', meaning: 'The value can go either way.' },
      {
        id: 'min',
        words: 'at its least',
        meaning: 'The value can go no lower.',
        detect: '[data-range="min"]',
        mark: root('data-range', 'min'),
      },
      {
        id: 'max',
        words: 'at its most',
        meaning: 'The value can go no higher.',
        detect: '[data-range="max"]',
        mark: root('data-range', 'max'),
      },
    ],
  },
  {
    id: 'secret',
    title: 'Secret',
    ladder: false,
    values: [
      { id: 'masked', words: 'masked', meaning: 'The characters are hidden.' },
      {
        id: 'shown',
        words: 'shown',
        meaning: 'The characters can be read.',
        detect: '[data-secret="shown"]',
        mark: root('data-secret', 'shown'),
      },
    ],
  },
  {
    id: 'autofill',
    title: 'Autofill',
    ladder: false,
    values: [
      { id: 'no', words: 'entered by hand', meaning: 'A person entered what is there.' },
      {
        id: 'yes',
        words: 'filled in by the browser',
        meaning: 'The browser entered what is there.',
        detect: ':has({control}:autofill)',
      },
    ],
  },
];

const BY_ID = new Map(STATE_CATALOGUE.map(row => [row.id, row]));

export function stateAxis(id: string): StateAxisRow | undefined {
  return BY_ID.get(id);
}
