/** How markup says that a state holds, when it can be said in markup at all. */
export interface StateMark {
  /** Which element bears the attribute. */
  readonly on: 'control' | 'root';
  readonly attribute: string;
  readonly value: string;
}

interface StateValue {
  readonly id: string;
  /** The value in a sentence: "When pointed at, …". */
  readonly words: string;
  /** When a browser is in this state. */
  readonly meaning: string;
  /** How a browser tells the state from the one at rest: any of these holds. Absent on the value at rest. */
  readonly detect?: readonly Detection[];
  readonly mark?: StateMark;
  /**
   * The same of what the focus only points to, by `aria-activedescendant` (WAI-ARIA 1.2): a test on the root, and the attribute by
   * which markup says so.
   */
  readonly reached?: { readonly test: string; readonly mark: StateMark };
}

/** A compound selector, and the element of which it holds. On a ladder each implies the ones before it. */
export interface Detection {
  readonly on: 'control' | 'root' | 'inside';
  readonly test: string;
  /** Whether any element can be in this state, so that a root without a control can. */
  readonly anywhere?: true;
}

export interface StateAxisRow {
  readonly id: string;
  readonly title: string;
  /** Each value includes the ones before it: pressed is also pointed at. */
  readonly ladder: boolean;
  /** First the value at rest. Off a ladder, when two are detected at once the later one counts. */
  readonly values: readonly StateValue[];
}

/** What is true of whatever reacts to a press: the control, and through it its label and the frame around it (HTML, 4.10.18.5). */
const pressed = (test: string): Detection[] => [{ on: 'control', test, anywhere: true }];
const onControl = (test: string): Detection[] => [{ on: 'control', test }];
const onRoot = (test: string): Detection[] => [{ on: 'root', test }];

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
      {
        id: 'over',
        words: 'pointed at',
        meaning: 'The pointer is over what reacts to a press.',
        detect: pressed(':hover'),
      },
      {
        id: 'down',
        words: 'pressed',
        meaning: 'A button of the pointer is held down on it.',
        detect: pressed(':hover:active'),
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
        detect: [{ on: 'root', test: ':focus-within', anywhere: true }],
        reached: {
          test: ':is([data-focus="in"], [data-focus="keyboard"])',
          mark: root('data-focus', 'in'),
        },
      },
      {
        id: 'keyboard',
        words: 'focused visibly',
        meaning: 'It has the focus, and the browser finds that it must be shown.',
        detect: [{ on: 'inside', test: ':focus-visible', anywhere: true }],
        reached: { test: '[data-focus="keyboard"]', mark: root('data-focus', 'keyboard') },
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
        detect: onControl(':not(:placeholder-shown)'),
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
        detect: onControl('[aria-invalid="true"]'),
        mark: control('aria-invalid', 'true'),
      },
      {
        id: 'valid',
        words: 'approved',
        meaning: 'The entry has been looked at and accepted.',
        detect: onRoot('[data-validity="valid"]'),
        mark: root('data-validity', 'valid'),
      },
    ],
  },
  {
    id: 'requirement',
    title: 'Requirement',
    ladder: false,
    values: [
      { id: 'optional', words: 'optional', meaning: 'It may be left empty.' },
      {
        id: 'required',
        words: 'required',
        meaning: 'Without an entry one cannot go on.',
        detect: onControl(':is(:required, [aria-required="true"])'),
        mark: control('required'),
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
        detect: onControl(':is([readonly], [aria-readonly="true"])'),
        mark: control('readonly'),
      },
      {
        id: 'busy',
        words: 'busy',
        meaning: 'An answer is awaited before it can go on.',
        detect: onRoot('[aria-busy="true"]'),
        mark: root('aria-busy', 'true'),
      },
      {
        id: 'disabled',
        words: 'disabled',
        meaning: 'It takes no part: no focus, no entry, no value sent.',
        detect: onControl(':disabled'),
        mark: control('disabled'),
        reached: { test: '[aria-disabled="true"]', mark: root('aria-disabled', 'true') },
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
        detect: onControl('[aria-expanded="true"]'),
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
        detect: [...onRoot('[aria-selected="true"]'), ...onControl(':checked')],
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
        detect: onRoot('[data-range="min"]'),
        mark: root('data-range', 'min'),
      },
      {
        id: 'max',
        words: 'at its most',
        meaning: 'The value can go no higher.',
        detect: onRoot('[data-range="max"]'),
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
        detect: onRoot('[data-secret="shown"]'),
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
        detect: onControl(':autofill'),
      },
    ],
  },
  {
    id: 'place',
    title: 'Place',
    ladder: false,
    values: [
      { id: 'only', words: 'the only one', meaning: 'It stands alone.' },
      ...(
        [
          ['first', 'Others follow it.'],
          ['middle', 'Others are on either side of it.'],
          ['last', 'It follows others.'],
        ] as const
      ).map(([id, meaning]) => ({
        id,
        words: `${id === 'middle' ? 'in the middle' : id} of several`,
        meaning,
        detect: onRoot(`[data-place="${id}"]`),
        mark: root('data-place', id),
      })),
    ],
  },
];

const BY_ID = new Map(STATE_CATALOGUE.map(row => [row.id, row]));

export function stateAxis(id: string): StateAxisRow | undefined {
  return BY_ID.get(id);
}
