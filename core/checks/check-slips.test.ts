import type { BehaviourDocument } from '../documents/behaviour-document';
import { smallDocuments } from '../test/small-system';
import { checkSystem } from './check-system';
import { walkthroughProblems } from './walkthrough-problems';

/** Slips that are told where they were made, with what was probably meant; none of them is an error. */

interface Slip {
  readonly behaviour?: BehaviourDocument;
  readonly samples?: readonly object[];
  readonly content?: readonly object[];
  readonly children?: readonly object[];
  readonly limits?: readonly object[];
  readonly situations?: readonly object[];
  readonly set?: Record<string, Record<string, string>>;
}

const told = ({ behaviour, samples, content, children = [], set, ...rest }: Slip): string[] => {
  const { problems } = checkSystem(
    smallDocuments({
      component: {
        anatomy: {
          part: 'root',
          kind: 'stack',
          children: [
            { part: 'inner', kind: 'control', element: 'input', type: 'text' },
            { part: 'message', kind: 'text', content: 'message' },
            ...children,
            { part: 'name', kind: 'label' },
          ],
        },
        axes: [
          { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }], default: 'small' },
          { id: 'validity', kind: 'state' },
        ],
        rules: [
          { id: 'calm', when: {}, set: { message: { present: 'false' }, ...set } },
          { id: 'wrong', when: { validity: 'invalid' }, set: { message: { present: 'true' } } },
        ],
        samples: samples ?? [{ id: 'x', content: { message: 'Wrong.' } }],
        ...rest,
        ...(behaviour ? { behaviour } : {}),
        ...(content ? { content } : {}),
      },
    }),
  );
  return problems.map(
    ({ pointer, code, severity, suggestion }) =>
      `${severity} ${pointer} ${code}${suggestion ? ` (${suggestion})` : ''}`,
  );
};

test('what is in order has none', () => {
  const checks = [{ id: 'capital', kind: 'pattern', pattern: '^[A-Z]', message: 'message' }];
  const sample = {
    id: 'x',
    content: { message: { small: 'No.', large: 'Wrong.' }, value: 'Heron' },
    wrong: { capital: 'heron' },
  };
  expect(told({ behaviour: { checks }, samples: [sample] })).toEqual([]);
});

test.each<[string, Slip, string]>([
  [
    'a text by values of no axis',
    { samples: [{ id: 'x', content: { message: { smal: 'No.', big: 'Wrong.' } } }] },
    'warning /samples/0/content/message/smal unknown-value (small)',
  ],
  [
    'a text by a value that its axis has not',
    { samples: [{ id: 'x', content: { message: { small: 'No.', lage: 'Wrong.' } } }] },
    'warning /samples/0/content/message/lage unknown-value (large)',
  ],
  [
    'a value that is not of its kind',
    {
      behaviour: { value: { kind: 'time' } },
      samples: [{ id: 'x', content: { message: 'Wrong.', value: 'noon' } }],
    },
    'warning /samples/0/content/value unfit-value',
  ],
  [
    'something wrong that passes',
    {
      behaviour: { checks: [{ id: 'capital', kind: 'pattern', pattern: '^[A-Z]' }] },
      samples: [{ id: 'x', content: { message: 'Wrong.' }, wrong: { capital: 'Heron' } }],
    },
    'warning /samples/0/wrong/capital unfit-value',
  ],
  [
    'something wrong by a check that there is not',
    {
      behaviour: { checks: [{ id: 'capital', kind: 'pattern', pattern: '^[A-Z]' }] },
      samples: [{ id: 'x', content: { message: 'Wrong.' }, wrong: { capitel: 'heron' } }],
    },
    'warning /samples/0/wrong/capitel unknown-check (capital)',
  ],
  [
    'a message of nobody',
    { behaviour: { checks: [{ id: 'required', kind: 'required', message: 'mesage' }] } },
    'warning /behaviour/checks/0/message unknown-content (message)',
  ],
  [
    'a least of a text',
    { behaviour: { value: { kind: 'text', least: 2 } } },
    'warning /behaviour/value/least idle-member',
  ],
  [
    'a text that is compared with a number',
    { behaviour: { checks: [{ id: 'low', kind: 'least', least: 2 }] } },
    'warning /behaviour/checks/0/least idle-member',
  ],
  [
    'a code of no length',
    { behaviour: { value: { kind: 'code' } } },
    'warning /behaviour/value missing-member',
  ],
  [
    'a pattern that takes everything',
    { behaviour: { checks: [{ id: 'any', kind: 'pattern', pattern: '.' }] } },
    'warning /behaviour/checks/0/pattern idle-pattern',
  ],
  [
    'a type of input that there is not',
    { children: [{ part: 'other', kind: 'control', element: 'input', type: 'txet' }] },
    'warning /anatomy/children/2/type unknown-type (text)',
  ],
  [
    'a second control',
    { children: [{ part: 'other', kind: 'control', element: 'input', type: 'text' }] },
    'warning /anatomy/children/2/kind two-controls',
  ],
  [
    'a bound that nothing judges',
    {
      behaviour: {
        value: { kind: 'count', least: 1, most: 9 },
        checks: [{ id: 'l', kind: 'least', least: 1 }],
      },
    },
    'warning /behaviour/value/most idle-bound',
  ],
  [
    'a count without buttons',
    { behaviour: { value: { kind: 'count' } } },
    'warning /behaviour/value no-buttons',
  ],
  [
    'a comparison with a field that there is not',
    { behaviour: { value: { kind: 'text' }, checks: [{ id: 'same', kind: 'equals', equals: 'passfrase' }] } },
    'warning /behaviour/checks/0 unknown-field',
  ],
  [
    'a situation that never comes about',
    {
      limits: [{ while: { size: 'small' }, holds: { validity: 'none' } }],
      situations: [{ id: 'tiny', title: 'Tiny and wrong', when: { size: 'small', validity: 'invalid' } }],
    },
    'warning /situations/0/when idle-situation',
  ],
  [
    'lines of twenty times the font',
    { set: { root: { 'line-height': '20' } } },
    'warning /rules/0/set/root/line-height unlikely-value (20px)',
  ],
  [
    'a transition of what is no property',
    { set: { root: { 'transition-property': 'bordercolor, opacity' } } },
    'warning /rules/0/set/root/transition-property unknown-property (border-color)',
  ],
  [
    'left and right',
    { set: { root: { 'padding-left': '2px' } } },
    'error /rules/0/set/root/padding-left unknown-property (padding-inline-start)',
  ],
])('%s', (_, slip, wanted) => expect(told(slip)).toContain(wanted));

test('text in a checkbox, and a component in the order that there is not', () => {
  const documents = smallDocuments({
    component: {
      anatomy: {
        part: 'root',
        kind: 'stack',
        children: [{ part: 'inner', kind: 'control', element: 'input', type: 'checkbox' }],
      },
      behaviour: { value: { kind: 'text' } },
    },
  });
  const manifest = documents.get('system.json') as object;
  documents.set('system.json', { ...manifest, order: ['f', 'g'] });
  expect(
    checkSystem(documents).problems.map(({ file, pointer, code }) => `${file} ${pointer} ${code}`),
  ).toEqual([
    'system.json /order/1 unknown-component',
    'components/f.component.json /anatomy/children/0/type unfit-type',
  ]);
});

const frame = { part: 'frame', kind: 'row', children: [{ part: 'inner', kind: 'control' }] };
const labelled = { part: 'root', kind: 'stack', children: [frame, { part: 'name', kind: 'label' }] };

describe('what is left out', () => {
  const heard = (component: object): string[] =>
    checkSystem(smallDocuments({ component })).problems.map(
      ({ pointer, code, severity }) => `${severity} ${pointer} ${code}`,
    );
  const sample = { id: 's', content: { value: 'Heron' } };

  test('a label of what is entered, once there is something to show', () => {
    const anatomy = { part: 'root', kind: 'stack', children: [frame] };
    expect(heard({ anatomy, samples: [sample] })).toEqual(['warning /anatomy no-label']);
    expect(heard({ anatomy: labelled, samples: [sample] })).toEqual([]);
    expect(heard({ anatomy, samples: [] })).toEqual([]);
    const button = { part: 'inner', kind: 'control', element: 'button' };
    expect(heard({ anatomy: { ...anatomy, children: [button] }, samples: [sample] })).toEqual([]);
  });

  test('a label is not asked of what others use, nor told again of what derives from one without', () => {
    const { problems } = checkSystem(
      smallDocuments({
        documents: [
          document({ id: 'cell', anatomy: frame, samples: [sample] }),
          document({ id: 'narrow', extends: 'cell' }),
          document({
            id: 'code',
            anatomy: {
              part: 'root',
              kind: 'row',
              children: [{ part: 'first', kind: 'use', component: 'cell' }],
            },
          }),
        ],
      }),
    );
    expect(problems.map(({ file, code }) => `${file} ${code}`)).toEqual([]);
  });

  test('the default of an option that can be chosen', () => {
    const size = { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] };
    expect(heard({ axes: [size] })).toEqual(['warning /axes/0 no-default']);
    expect(heard({ axes: [{ ...size, default: 'large' }] })).toEqual([]);
    expect(heard({ axes: [{ ...size, values: [{ id: 'small' }] }] })).toEqual([]);
  });

  test.each([
    ['no-default', { axes: [{ id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] }] }],
    ['unlikely-value', { rules: [{ id: 'r', when: {}, set: { frame: { 'line-height': '20' } } }] }],
  ])('%s, also where a component that takes all of it was looked through before', (code, said) => {
    const lists = { axes: [], content: [], rules: [], samples: [], situations: [] };
    const { problems } = checkSystem(
      smallDocuments({
        documents: [
          document({ id: 'almost', extends: 'f' }),
          document({ id: 'f', anatomy: labelled, ...lists, ...said }),
        ],
      }),
    );
    expect(problems.filter(each => each.code === code).map(({ file }) => file)).toEqual([
      'components/f.component.json',
    ]);
  });

  test('parts', () => {
    expect(heard({ anatomy: undefined })).toEqual(['error  missing-key']);
  });
});

const document = (members: { id: string; [member: string]: unknown }): [string, object] => [
  `components/${members.id}.component.json`,
  { format: 'periwinkle-component/1', ...members },
];

describe('what is said and changes nothing', () => {
  const whole = (component: object): string[] => {
    const { system, problems } = checkSystem(
      smallDocuments({ component: { anatomy: labelled, ...component } }),
    );
    return [...problems, ...walkthroughProblems(system)].map(({ pointer, code }) => `${pointer} ${code}`);
  };
  const size = {
    id: 'size',
    kind: 'option',
    values: [{ id: 'small' }, { id: 'large' }],
    default: 'small',
  };
  const over = { id: 'over', when: { pointer: 'over' }, set: { frame: { color: '#112233' } } };
  const pointer = { id: 'pointer', kind: 'state' };

  test('a rule that sets nothing', () => {
    expect(whole({ rules: [{ id: 'r', when: {}, set: { frame: {} } }] })).toEqual(['/rules/0 idle-rule']);
  });

  test('an option on which nothing depends, once rules depend on something', () => {
    expect(whole({ axes: [size, pointer], rules: [over] })).toEqual(['/axes/0 idle-axis']);
    expect(whole({ axes: [size, pointer], rules: [] })).toEqual([]);
    const large = { ...over, id: 'large', when: { size: 'large' } };
    expect(whole({ axes: [size, pointer], rules: [over, large] })).toEqual([]);
  });

  test('an option on which only a text depends has an effect', () => {
    const sample = { id: 's', content: { placeholder: { small: 'No.', large: 'Number' } } };
    expect(whole({ axes: [size, pointer], rules: [over], samples: [sample] })).toEqual([]);
  });

  test('a transition of what no rule sets', () => {
    const rule = (name: string): object => ({
      id: 'moves',
      when: {},
      set: { frame: { 'transition-property': name, 'transition-duration': '90ms', 'border-width': '1px' } },
    });
    expect(whole({ rules: [rule('border-width, opacity')] })).toEqual([
      '/rules/0/set/frame/transition-property idle-transition',
    ]);
    expect(whole({ rules: [rule('border-top-width')] })).toEqual([]);
  });

  test('a text of a sample that no part shows', () => {
    const sample = { id: 's', content: { lable: 'Vessel', value: 'Heron' } };
    expect(whole({ samples: [sample] })).toEqual(['/samples/0/content/lable unused-content']);
  });

  test('a walkthrough that stops, where it stops', () => {
    const walkthroughs = [{ id: 'w', acts: ['press inner', 'leave', 'type Heron'] }];
    expect(whole({ walkthroughs })).toEqual(['/walkthroughs/0/acts/2 stopped-walkthrough']);
  });

  test('a component in a file of another name, but for one made beside another', () => {
    const field = { format: 'periwinkle-component/1', id: 'f', anatomy: { part: 'root', kind: 'stack' } };
    const at = (path: string): string[] =>
      checkSystem(smallDocuments({ documents: [[`components/${path}.component.json`, field]] })).problems.map(
        ({ code, suggestion }) => `${code} ${suggestion}`,
      );
    expect([at('field'), at('f'), at('f-2')]).toEqual([['other-file field'], [], []]);
  });
});
