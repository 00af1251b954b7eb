import { compileSystem, type System } from '../components/system';
import type { BehaviourDocument } from '../documents/behaviour-document';
import type { ContentDocument, SampleDocument } from '../documents/component-document';
import type { PartDocument } from '../documents/part-document';
import { smallDocuments } from './small-system';

/** Fields of every sort that the demo has none of: other types of input, other elements, without a message, with buttons of their own. */

const STATES = ['pointer', 'focus', 'content', 'validity', 'requirement', 'availability'];

const REQUIRED = { id: 'required', kind: 'required', message: 'message' };

interface Plain {
  readonly control: Partial<PartDocument>;
  readonly behaviour: BehaviourDocument;
  readonly content?: SampleDocument['content'];
  readonly states?: readonly string[];
  /** Behind the control, in the frame. */
  readonly beside?: readonly PartDocument[];
  readonly declares?: readonly ContentDocument[];
  readonly isSilent?: boolean;
}

const text = (checks: BehaviourDocument['checks'] = []): BehaviourDocument => ({
  value: { kind: 'text' },
  checks: [REQUIRED, ...checks!],
});

const ENTRIES = [
  { id: 'n', label: 'North quay' },
  { id: 's', label: 'Salt wharf', is: { availability: 'disabled' } },
  { id: 'l', label: 'Lantern pier' },
];

const button = (part: string): PartDocument => ({ part, kind: 'action', content: `${part}Word` });

const FIELDS: Readonly<Record<string, Plain>> = {
  email: { control: { type: 'email' }, behaviour: text() },
  url: { control: { type: 'url' }, behaviour: text() },
  telephone: { control: { type: 'tel' }, behaviour: text() },
  number: { control: { type: 'number' }, behaviour: text() },
  date: { control: { type: 'date' }, behaviour: text() },
  hour: { control: { type: 'time' }, behaviour: { value: { kind: 'time' }, checks: [REQUIRED] } },
  month: { control: { type: 'month' }, behaviour: text() },
  area: {
    control: { element: 'textarea' },
    behaviour: { value: { kind: 'area' }, checks: [REQUIRED] },
  },
  agreed: {
    control: { type: 'checkbox' },
    behaviour: { value: { kind: 'toggle' }, checks: [REQUIRED] },
    states: ['selection'],
  },
  switched: {
    control: { element: 'button' },
    behaviour: { value: { kind: 'toggle' }, checks: [REQUIRED] },
    states: ['selection'],
  },
  native: {
    control: { element: 'select' },
    behaviour: { value: { kind: 'choice' }, checks: [REQUIRED] },
    content: { options: ENTRIES, placeholder: 'Choose' },
    declares: [{ id: 'options', kind: 'list', entry: [{ id: 'label', kind: 'text' }] }],
  },
  unheard: {
    control: {},
    behaviour: text([{ id: 'capital', kind: 'pattern', pattern: '^[A-Z]', message: 'message' }]),
    isSilent: true,
  },
  buttons: {
    control: { type: 'password' },
    behaviour: { ...text(), value: { kind: 'secret' }, parts: { reveal: 'reveal' } },
    content: { revealWord: 'Show', helpWord: 'Help' },
    states: ['secret'],
    beside: [button('reveal'), button('help')],
  },
  counting: {
    control: {},
    behaviour: {
      value: { kind: 'count', least: 0, most: 3 },
      parts: { less: 'less', more: 'more' },
      checks: ['kind', 'least', 'most'].map(kind => ({ id: kind, kind, message: 'message' })),
    },
    content: { lessWord: 'less', moreWord: 'more' },
    states: ['range'],
    beside: [button('less'), button('more')],
  },
};

function plainField([id, { control, behaviour, content, states = [], beside = [], declares, isSilent }]: [
  string,
  Plain,
]): readonly [string, object] {
  const children: PartDocument[] = [
    { part: 'label', kind: 'label', content: 'label' },
    {
      part: 'frame',
      kind: 'row',
      children: [
        {
          part: 'control',
          kind: 'control',
          element: 'input',
          ...(control.element ? {} : { type: 'text' }),
          content: 'value',
          ...control,
        },
        ...beside,
      ],
    },
    ...(isSilent ? [] : [{ part: 'message', kind: 'text', content: 'message' }]),
  ];
  return [
    `components/${id}.component.json`,
    {
      format: 'periwinkle-component/1',
      id,
      anatomy: { part: 'root', kind: 'stack', children },
      axes: [...STATES, ...states].map(axis => ({ id: axis, kind: 'state' })),
      limits: [
        {
          while: { availability: 'disabled' },
          holds: { pointer: 'away', focus: 'out' },
          because: 'It is off.',
        },
      ],
      behaviour,
      ...(declares ? { content: declares } : {}),
      rules: [
        {
          id: 'base',
          when: {},
          set: {
            frame: { 'padding-block-start': '6px', 'padding-block-end': '6px', 'column-gap': '8px' },
            ...(isSilent ? {} : { message: { present: 'false' } }),
          },
        },
        ...(isSilent
          ? []
          : [{ id: 'invalid', when: { validity: 'invalid' }, set: { message: { present: 'true' } } }]),
      ],
      samples: [
        {
          id: 'x',
          title: 'X',
          content: {
            label: 'Vessel',
            ...content,
            ...(isSilent ? {} : { message: 'Something is wrong.' }),
          },
        },
      ],
    },
  ];
}

export const plainFields = (): System =>
  compileSystem(smallDocuments({ documents: Object.entries(FIELDS).map(plainField) }));
