import type {
  AxisDocument,
  ContentDocument,
  LimitDocument,
  PlateDocument,
  RuleDocument,
  SampleDocument,
  SituationDocument,
} from '../../documents/component-document';
import type { PartDocument } from '../../documents/part-document';
import type { Drawing } from './drawings';

/** Part, then property, then text; a role in the place of a token: `{line.rest}`. */
type Settings = RuleDocument['set'];

/** What makes a field another than the plain one: what it adds, and what it says otherwise. */
export interface StartingPoint {
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  readonly control: Partial<PartDocument>;
  /** Beside the control, in the frame. */
  readonly before?: readonly PartDocument[];
  readonly after?: readonly PartDocument[];
  /** Beside the label. */
  readonly heading?: readonly PartDocument[];
  readonly content?: readonly ContentDocument[];
  readonly axes?: readonly AxisDocument[];
  readonly limits?: readonly LimitDocument[];
  /** Laid over the plain field's rules of the same id, part by part and property by property. */
  readonly over?: Readonly<Record<string, Settings>>;
  /** Behind the plain field's rules. */
  readonly rules?: readonly RuleDocument[];
  readonly situations?: readonly SituationDocument[];
  readonly sample: SampleDocument;
  readonly plates?: readonly PlateDocument[];
  readonly drawings?: readonly Drawing[];
  /** Whether it nests a button that is drawn. */
  readonly nestsButton?: boolean;
  /** States that it does not have. */
  readonly without?: readonly string[];
  readonly guide: { readonly use: string; readonly avoid: string };
  /** Made of its own from the top, where the plain field's order does not fit. */
  readonly anatomy?: PartDocument;
}

const icon = (part: string, content: string, description: string): PartDocument => ({
  part,
  kind: 'icon',
  description,
  content,
});

/** A nested button, off where the field cannot be changed, or on top of that where `when` holds. */
const button = (
  part: string,
  title: string,
  description: string,
  when?: Readonly<Record<string, string>>,
): PartDocument => ({
  part,
  kind: 'use',
  title,
  description,
  component: BUTTON,
  content: { name: `${part}Name`, icon: `${part}Icon` },
  with: {
    size: 'size',
    availability: [
      ...(when ? [{ when, is: 'disabled' }] : []),
      { when: { availability: ['readonly', 'disabled'] }, is: 'disabled' },
    ],
  },
});

/** Stands for the id of the component that draws a button. */
export const BUTTON = 'starting-button';

const iconBox = { width: '{icon.size}', height: '{icon.size}', color: '{text.hint}' };
const iconOff = { color: '{text.off}' };
const keyed = { 'font-variant-numeric': 'tabular-nums' };

const judged = (invalid: string, valid: string): SampleDocument['content'] => ({
  mark: { optional: 'optional', required: 'required' },
  message: { invalid, valid },
  messageIcon: { invalid: 'alert', valid: 'check' },
});

/** From what a new field can be begun. Adding one is adding a row. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  {
    id: 'text',
    title: 'Text',
    summary: 'One line of free text.',
    control: { element: 'input', type: 'text' },
    sample: {
      id: 'vessel',
      title: 'Vessel',
      content: {
        label: 'Vessel name',
        placeholder: 'As registered',
        value: 'Osprey of Merrow',
        ...judged('Not on the register', 'Registered in Merrow'),
      },
    },
    guide: {
      use: 'A name, an address, a remark that fits in a breath: one line, in the person’s own words.',
      avoid: 'For something that exists already, offer it to choose from instead.',
    },
  },
  {
    id: 'area',
    title: 'Area',
    summary: 'A few lines of free text, counted.',
    control: { element: 'textarea' },
    content: [
      { id: 'counter', kind: 'text', title: 'How much is written', text: '{value.length} of {value.most}' },
    ],
    heading: [
      { part: 'counter', kind: 'text', description: 'how much of the room is used', content: 'counter' },
    ],
    over: {
      base: {
        frame: {
          height: 'calc(3 * {height.medium})',
          'padding-block': '{gap.inside}',
          'align-items': 'stretch',
        },
        control: { height: 'calc(@frame.height - 2 * @frame.border-width - 2 * @frame.padding-block)' },
        counter: {
          color: '{text.hint}',
          'font-variant-numeric': 'tabular-nums',
          'margin-inline-start': 'auto',
        },
      },
      small: { frame: { height: 'calc(3 * {height.small})' } },
      large: { frame: { height: 'calc(3 * {height.large})' } },
    },
    sample: {
      id: 'pilot',
      title: 'Remark',
      content: {
        label: 'Remark for the pilot',
        placeholder: 'What to know before boarding',
        value: 'Ladder on the port side, three metres above the water',
        ...judged('Too long for the pilot’s slate', 'Passed on'),
      },
      sources: { value: { most: 120 } },
    },
    guide: {
      use: 'What takes more than a breath to say.',
      avoid: 'Not for one line: a large field asks for a long answer.',
    },
  },
  {
    id: 'secret',
    title: 'Secret',
    summary: 'Words that only one person knows, shown on demand.',
    control: { element: 'input', type: 'password' },
    after: [button('reveal', 'Show', 'shows what was entered, and hides it again', { content: 'empty' })],
    content: [{ id: 'revealName', kind: 'text', title: 'What the button does', required: true }],
    axes: [{ id: 'secret', kind: 'state' }],
    limits: [
      { while: { content: 'empty' }, holds: { secret: 'masked' }, because: 'There is nothing to show.' },
      {
        while: { availability: 'disabled' },
        holds: { secret: 'masked' },
        because: 'What cannot be changed is not shown either.',
      },
    ],
    situations: [
      {
        id: 'shown',
        title: 'Shown',
        when: { content: 'filled', secret: 'shown', focus: 'keyboard' },
        means: 'The person asked to see it and is alone.',
      },
    ],
    sample: {
      id: 'office',
      title: 'Harbour office',
      content: {
        label: 'Passphrase',
        placeholder: 'Four words or more',
        value: 'brass lantern ebb seven',
        revealName: { masked: 'Show the passphrase', shown: 'Hide the passphrase' },
        revealIcon: { masked: 'shutter', shown: 'shutter-open' },
        ...judged('Not the passphrase of this office', 'Known to the office'),
      },
    },
    plates: [
      {
        id: 'shown',
        title: 'Hidden and shown',
        across: ['secret', 'size'],
        down: ['focus'],
        hold: { content: 'filled' },
        sample: 'office',
        caption: 'Shown it stands as any other text: nothing moves.',
      },
    ],
    drawings: ['shutter', 'shutter-open'],
    nestsButton: true,
    guide: {
      use: 'Where someone proves who they are with words of their own.',
      avoid: 'Not for codes that are sent to people; these are meant to be seen.',
    },
  },
  {
    id: 'count',
    title: 'Count',
    summary: 'How many, by typing or by steps.',
    control: { element: 'input', type: 'text' },
    before: [button('less', 'Less', 'one fewer', { range: 'min' })],
    after: [button('more', 'More', 'one more', { range: 'max' })],
    content: [
      { id: 'lessName', kind: 'text', title: 'What the step down is called', required: true },
      { id: 'moreName', kind: 'text', title: 'What the step up is called', required: true },
    ],
    axes: [{ id: 'range', kind: 'state' }],
    limits: [
      { while: { content: 'empty' }, holds: { range: 'within' }, because: 'Nothing entered is at no end.' },
    ],
    over: {
      base: { control: { 'text-align': 'center', ...keyed } },
    },
    situations: [
      {
        id: 'fewest',
        title: 'At the lowest',
        when: { content: 'filled', range: 'min' },
        means: 'There are no fewer: the step down is spent.',
      },
      {
        id: 'most',
        title: 'At the highest',
        when: { content: 'filled', range: 'max' },
        means: 'There are no more: the step up is spent.',
      },
    ],
    sample: {
      id: 'crew',
      title: 'Crew',
      content: {
        label: 'Crew aboard',
        placeholder: '0',
        value: { within: '12', min: '1', max: '24' },
        lessName: 'One fewer',
        lessIcon: 'minus',
        moreName: 'One more',
        moreIcon: 'plus',
        ...judged('More than the vessel is certified for', 'As on the crew list'),
      },
    },
    drawings: ['minus', 'plus'],
    nestsButton: true,
    guide: {
      use: 'Counts of people and things that change by one.',
      avoid: 'Not for measures with a unit, and not for amounts of money.',
    },
  },
  {
    id: 'amount',
    title: 'Amount',
    summary: 'Money, its sign in front.',
    control: { element: 'input', type: 'text' },
    before: [{ part: 'sign', kind: 'text', description: 'of the money it is paid in', content: 'sign' }],
    content: [
      {
        id: 'sign',
        kind: 'text',
        title: 'Sign before the amount',
        from: ['due.currency', 'port.currency'],
        as: 'currency-sign',
        else: '¤',
      },
    ],
    over: {
      base: {
        sign: { color: '{text.hint}', 'white-space': 'nowrap' },
        control: { 'text-align': 'end', ...keyed },
      },
      disabled: { sign: { color: '{text.off}' } },
    },
    sample: {
      id: 'dues',
      title: 'Dues',
      content: {
        label: 'Harbour dues',
        placeholder: '0.00',
        value: '1,240.00',
        ...judged('Less than the least due', 'As the office reckons it'),
      },
      sources: { port: { currency: 'EUR' } },
    },
    guide: {
      use: 'Amounts that are paid. The sign follows from what is paid for and where.',
      avoid: 'Not for measures, which have a unit behind them.',
    },
  },
  {
    id: 'time',
    title: 'Time',
    summary: 'A time of day.',
    control: { element: 'input', type: 'time' },
    over: { base: { control: { ...keyed, direction: 'ltr' } } },
    sample: {
      id: 'tide',
      title: 'Tide',
      content: {
        label: 'High water',
        value: '07:42',
        ...judged('No high water at that time', 'As in the tide table'),
      },
    },
    guide: { use: 'Times that people know to the minute.', avoid: 'Not for how long something takes.' },
  },
  {
    id: 'code',
    title: 'Code',
    summary: 'A code of known length, its characters set apart.',
    control: { element: 'input', type: 'text' },
    over: {
      base: {
        control: { ...keyed, 'letter-spacing': '{inset.medium}', 'text-align': 'center', direction: 'ltr' },
      },
      small: { control: { 'letter-spacing': '{inset.small}' } },
      large: { control: { 'letter-spacing': '{inset.large}' } },
    },
    sample: {
      id: 'gate',
      title: 'Gate',
      content: {
        label: 'Gate code',
        placeholder: '000000',
        value: '417702',
        ...judged('That code opens no gate today', 'Gate 3, until 18:00'),
      },
    },
    guide: {
      use: 'Codes that are sent to people and typed once.',
      avoid: 'Not for passphrases, whose length is nobody’s business.',
    },
  },
  {
    id: 'choice',
    title: 'Choice',
    summary: 'One of a list.',
    control: { element: 'select' },
    after: [icon('arrow', 'arrowIcon', 'says that there is a list')],
    over: {
      base: { frame: { cursor: 'pointer' }, control: { cursor: 'inherit' }, arrow: iconBox },
      disabled: { arrow: iconOff },
    },
    sample: {
      id: 'berth',
      title: 'Berth',
      content: {
        label: 'Berth',
        value: 'Berth 4, north quay',
        arrowIcon: 'arrow',
        ...judged('That berth is taken', 'Free until noon'),
      },
    },
    drawings: ['arrow'],
    guide: {
      use: 'One of a few that are known beforehand.',
      avoid: 'Not for two: a toggle says both at once.',
    },
  },
  {
    id: 'search',
    title: 'Search',
    summary: 'Some letters, to find something by.',
    control: { element: 'input', type: 'search' },
    before: [icon('lens', 'lensIcon', 'decoration, lets the pointer through')],
    after: [button('clear', 'Clear', 'empties the field; there only when there is something')],
    content: [{ id: 'clearName', kind: 'text', title: 'What the button does', required: true }],
    over: {
      base: { lens: iconBox, clear: { present: 'false' } },
      disabled: { lens: iconOff },
    },
    rules: [{ id: 'clearing', when: { content: 'filled' }, set: { clear: { present: 'true' } } }],
    sample: {
      id: 'find',
      title: 'Find a vessel',
      content: {
        label: 'Find a vessel',
        placeholder: 'Name or call sign',
        value: 'Ospr',
        lensIcon: 'lens',
        clearName: 'Clear',
        clearIcon: 'cross',
        ...judged('No vessel of that name', 'Found'),
      },
    },
    drawings: ['lens', 'cross'],
    nestsButton: true,
    guide: { use: 'Finding one among many by a piece of its name.', avoid: 'Not for choosing among a few.' },
  },
  {
    id: 'toggle',
    title: 'Toggle',
    summary: 'Yes or no.',
    control: { element: 'input', type: 'checkbox' },
    without: ['content'],
    axes: [{ id: 'selection', kind: 'state' }],
    anatomy: {
      part: 'root',
      kind: 'stack',
      title: 'Field',
      description: 'everything together',
      children: [
        {
          part: 'line',
          kind: 'row',
          description: 'the box and what it says yes to',
          children: [
            {
              part: 'frame',
              kind: 'row',
              description: 'the box; a press in it lands on the control',
              children: [
                {
                  part: 'control',
                  kind: 'control',
                  description: 'what is pressed',
                  content: 'value',
                  element: 'input',
                  type: 'checkbox',
                },
                icon('tick', 'tickIcon', 'says yes without colour'),
              ],
            },
            { part: 'label', kind: 'label', description: 'what is said yes to', content: 'label' },
            { part: 'mark', kind: 'text', description: 'says in a word what is asked for', content: 'mark' },
          ],
        },
        {
          part: 'footer',
          kind: 'row',
          description: 'closes up when there is nothing to say',
          children: [
            icon('alert', 'messageIcon', 'says it again without colour'),
            {
              part: 'message',
              kind: 'text',
              description: 'what is wrong and what to do',
              content: 'message',
            },
          ],
        },
      ],
    },
    over: {
      base: {
        line: { gap: '{gap.inside}', 'align-items': 'center' },
        frame: {
          position: 'relative',
          width: '{icon.size}',
          height: '{icon.size}',
          'padding-inline': '0px',
          'flex-shrink': '0',
          cursor: 'pointer',
        },
        control: { position: 'absolute', inset: '0px', height: 'auto', cursor: 'inherit' },
        tick: { present: 'false', position: 'relative', width: '100%', height: '100%', color: '{text.body}' },
      },
      small: { frame: { height: '{icon.size}', 'padding-inline': '0px' } },
      large: { frame: { height: '{icon.size}', 'padding-inline': '0px' } },
      disabled: { tick: { color: '{text.off}' } },
    },
    rules: [{ id: 'selected', when: { selection: 'selected' }, set: { tick: { present: 'true' } } }],
    situations: [
      {
        id: 'yes',
        title: 'Yes',
        when: { selection: 'selected' },
        means: 'It was said yes to. The tick says so without colour.',
      },
    ],
    sample: {
      id: 'pilot',
      title: 'Pilot',
      content: {
        label: 'A pilot is needed',
        tickIcon: 'check',
        ...judged('Without a pilot this berth cannot be reached', 'A pilot is free'),
      },
    },
    guide: {
      use: 'A question that is answered by yes or no, at once.',
      avoid: 'Not for choosing between two things that are both something.',
    },
  },
];
