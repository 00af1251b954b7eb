import { checkSystem } from '../checks/check-system';
import { componentNamed, compileSystem } from '../components/system';
import type { ComponentDocument } from '../documents/component-document';
import { smallDocuments } from '../test/small-system';

/** What a derived component stands for, where each thing was written, and what is told where it misses something. */

const FIELD = {
  format: 'periwinkle-component/1',
  id: 'field',
  title: 'Field',
  group: 'Entry',
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'label', kind: 'label', content: 'label' },
      {
        part: 'frame',
        kind: 'row',
        children: [
          { part: 'control', kind: 'control', element: 'input', type: 'text' },
          { part: 'unit', kind: 'text', content: 'unit' },
        ],
      },
    ],
  },
  axes: [
    {
      id: 'size',
      kind: 'option',
      title: 'Size',
      values: [{ id: 'small', description: 'In tables.' }, { id: 'medium' }, { id: 'large' }],
      default: 'medium',
    },
    { id: 'trailing', kind: 'option', values: [{ id: 'none' }, { id: 'unit' }], default: 'none' },
    { id: 'pointer', kind: 'state' },
    { id: 'validity', kind: 'state' },
  ],
  limits: [
    { id: 'calm', while: { validity: 'invalid' }, holds: { pointer: 'away' }, because: 'Calm.' },
    { while: { size: 'small' }, holds: { trailing: 'none' } },
  ],
  rules: [
    {
      id: 'base',
      when: {},
      set: {
        frame: { height: '30px', 'border-width': '1px' },
        control: { height: 'calc(@frame.height - 2 * @frame.border-width)' },
        unit: { width: '20px', opacity: '0.5' },
        label: { 'min-width': 'calc(@unit.width + 1px)' },
      },
    },
    { id: 'over', when: { pointer: 'over' }, set: { frame: { 'border-color': '#111111' } } },
    { id: 'small', when: { size: 'small' }, set: { frame: { height: '20px' } } },
    { id: 'unit', when: { trailing: 'unit' }, set: { unit: { opacity: '1' } } },
  ],
  situations: [
    { id: 'small', when: { size: ['small', 'medium'] } },
    { id: 'unit', when: { trailing: 'unit' } },
  ],
  samples: [{ id: 'vessel', content: { label: 'Vessel' } }],
  plates: [
    {
      id: 'all',
      across: ['trailing', 'pointer'],
      down: ['size'],
      hold: { trailing: 'unit' },
      sample: 'vessel',
    },
  ],
  decisions: [{ rules: ['over', 'small'], because: 'Meant.' }],
  guide: { use: 'Use it.' },
};

const path = (id: string): string => `components/${id}.component.json`;

const documents = (...own: readonly { id: string }[]) =>
  smallDocuments({ documents: [FIELD, ...own].map(each => [path(each.id), each] as const) });

const derived = (own: object, id = 'own', base = 'field') => ({
  format: 'periwinkle-component/1',
  id,
  extends: base,
  ...own,
});

/** What a derived component stands for, without a fault. */
function expanded(own: object): ComponentDocument {
  const { system, problems } = checkSystem(documents(derived(own)));
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
  return componentNamed(system, 'own')!.document;
}

/** File (where it is not the derived one), place and kind of everything that is told. */
const told = (...own: readonly { id: string }[]): string[] =>
  checkSystem(documents(...own)).problems.map(({ file, pointer, code }) =>
    [file === path('own') ? '' : file, pointer, code].filter(Boolean).join(' '),
  );

const rule = (document: ComponentDocument, id: string) => document.rules!.find(each => each.id === id);

describe('what a derived component stands for', () => {
  test('without anything of its own it is its base, down to the same lists', () => {
    const system = compileSystem(documents(derived({}, 'twin')));
    const own = componentNamed(system, 'twin')!.document;
    expect(own).toMatchObject({ id: 'twin', title: 'Field', group: 'Entry', anatomy: FIELD.anatomy });
    for (const key of ['anatomy', 'axes', 'limits', 'rules', 'situations', 'samples', 'plates'] as const)
      expect(own[key]).toBe(FIELD[key]);
  });

  test('fewer, other and new values: conditions of the base ask for what is left', () => {
    const own = expanded({
      axes: [
        {
          id: 'size',
          title: 'How large',
          values: [{ id: 'huge' }, { id: 'medium' }, { id: 'small', title: 'tiny' }],
        },
        { id: 'pointer', values: [{ id: 'away' }, { id: 'down' }] },
        { id: 'tone', kind: 'option', values: [{ id: 'plain' }, { id: 'loud' }] },
      ],
    });
    expect(own.axes!.map(({ id }) => id)).toEqual(['size', 'trailing', 'pointer', 'validity', 'tone']);
    expect(own.axes![0]).toEqual({
      id: 'size',
      kind: 'option',
      title: 'How large',
      values: [{ id: 'huge' }, { id: 'medium' }, { id: 'small', title: 'tiny', description: 'In tables.' }],
      default: 'medium',
    });
    // The next rung that is left.
    expect(rule(own, 'over')!.when).toEqual({ pointer: 'down' });
    expect(rule(own, 'base')).toEqual(FIELD.rules[0]);
  });

  test('what asks for a value that is gone holds nowhere; a list keeps the others', () => {
    const own = expanded({ axes: [{ id: 'size', values: [{ id: 'medium' }, { id: 'large' }] }] });
    expect(own.rules!.map(({ id }) => id)).toEqual(['base', 'over', 'unit']);
    expect(own.situations![0]!.when).toEqual({ size: ['medium'] });
    expect(own.limits).toEqual([FIELD.limits[0]]);
    expect(own.decisions).toEqual([]);
  });

  test('an axis that is left out is held at its default, on plates too', () => {
    const own = expanded({ without: { axes: ['trailing'] } });
    expect(own.axes!.map(({ id }) => id)).toEqual(['size', 'pointer', 'validity']);
    expect(own.rules!.map(({ id }) => id)).toEqual(['base', 'over', 'small']);
    expect(own.limits).toHaveLength(1);
    expect(own.plates![0]).toMatchObject({ across: ['pointer'], down: ['size'], hold: {} });
    expect(own.situations!.map(({ id }) => id)).toEqual(['small']);
  });

  test('the anatomy is edited step by step; of a part that is gone nothing is left in the rules', () => {
    const own = expanded({
      anatomyEdits: [
        { remove: 'unit' },
        { insert: { part: 'eye', kind: 'action', content: 'eye' }, after: 'control' },
        { insert: { part: 'first', kind: 'icon', content: 'icon' }, before: 'control' },
        { change: 'control', to: { type: 'password' } },
        { wrap: ['first', 'control'], in: { part: 'inner', kind: 'row' } },
        { move: 'label', into: 'inner' },
        { replace: 'label', by: { part: 'label', kind: 'label', content: 'name' } },
      ],
    });
    expect(own.anatomy).toEqual({
      part: 'root',
      kind: 'stack',
      children: [
        {
          part: 'frame',
          kind: 'row',
          children: [
            {
              part: 'inner',
              kind: 'row',
              children: [
                { part: 'first', kind: 'icon', content: 'icon' },
                { part: 'control', kind: 'control', element: 'input', type: 'password' },
                { part: 'label', kind: 'label', content: 'name' },
              ],
            },
            { part: 'eye', kind: 'action', content: 'eye' },
          ],
        },
      ],
    });
    expect(own.rules!.map(({ id }) => id)).toEqual(['base', 'over', 'small']);
    expect(rule(own, 'base')!.set).toEqual({
      ...FIELD.rules[0]!.set,
      unit: undefined,
      label: { 'min-width': 'calc(0px + 1px)' },
    });
  });

  test('a rule of which nothing is left can be stood behind, in what is derived further, too', () => {
    const { system, problems } = checkSystem(
      documents(
        derived({
          id: 'middle',
          anatomyEdits: [{ remove: 'unit' }],
          without: { axes: ['trailing'] },
          axes: [{ id: 'size', values: [{ id: 'medium' }, { id: 'large' }] }],
          rules: [
            { id: 'beside', when: {}, after: 'unit', set: { root: { gap: '1px' } } },
            { id: 'little', when: {}, after: 'small', set: { root: { gap: '2px' } } },
          ],
        }),
        derived(
          {
            rules: [
              { id: 'further', when: {}, after: 'unit', set: { root: { gap: '3px' } } },
              { id: 'less', when: {}, after: 'small', set: { root: { gap: '4px' } } },
            ],
          },
          'own',
          'middle',
        ),
      ),
    );
    expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    expect(componentNamed(system, 'own')!.rules.map(({ id }) => id)).toEqual([
      'base',
      'over',
      'less',
      'little',
      'further',
      'beside',
    ]);
  });

  test('nothing can lie over a rule that holds nowhere', () => {
    const { problems } = checkSystem(
      documents(
        derived({ id: 'middle', axes: [{ id: 'size', values: [{ id: 'medium' }, { id: 'large' }] }] }),
        derived({ rules: [{ id: 'small', set: { root: { gap: '1px' } } }] }, 'own', 'middle'),
      ),
    );
    expect(problems.filter(({ severity }) => severity === 'error')).toMatchObject([
      { code: 'unknown-rule', pointer: '/rules/0/id' },
    ]);
  });

  test('rules lie over those of the base in their place, or stand behind one', () => {
    const own = expanded({
      rules: [
        {
          id: 'base',
          set: { frame: { height: null, 'border-width': '2px', opacity: '0.9' } },
          note: 'Thicker.',
        },
        { id: 'last', when: {}, set: { root: { opacity: '1' } } },
        { id: 'one', when: { size: 'large' }, after: 'over', set: { root: { gap: '1px' } } },
        { id: 'two', when: {}, after: 'over', set: { root: { gap: '2px' } } },
        { id: 'three', when: {}, after: 'one', set: { root: { gap: '3px' } } },
      ],
    });
    expect(own.rules!.map(({ id }) => id)).toEqual([
      'base',
      'over',
      'one',
      'three',
      'two',
      'small',
      'unit',
      'last',
    ]);
    expect(rule(own, 'base')).toEqual({
      ...FIELD.rules[0],
      set: { ...FIELD.rules[0]!.set, frame: { 'border-width': '2px', opacity: '0.9' } },
      note: 'Thicker.',
    });
  });

  test('entries of lists replace those of the same id in their place; others are added; words of the guide go by key', () => {
    const own = expanded({
      limits: [{ id: 'calm', while: { validity: 'valid' }, holds: { pointer: 'away' } }],
      situations: [
        { id: 'small', when: { size: 'small' } },
        { id: 'new', when: { size: 'large' } },
      ],
      without: { samples: ['vessel'] },
      samples: [{ id: 'berth', content: {} }],
      guide: { avoid: 'Do not.' },
    });
    expect(own.limits![0]).toMatchObject({ while: { validity: 'valid' } });
    expect(own.situations!.map(({ id }) => id)).toEqual(['small', 'unit', 'new']);
    expect(own.samples!.map(({ id }) => id)).toEqual(['berth']);
    expect(own.plates![0]!.sample).toBeUndefined();
    expect(own.guide).toEqual({ use: 'Use it.', avoid: 'Do not.' });
  });

  test('an edit of the base reaches what is derived from it, and leaves departures alone', () => {
    const own = derived({ rules: [{ id: 'base', set: { frame: { height: '40px' } } }] });
    const changed = {
      ...FIELD,
      rules: [{ ...FIELD.rules[0]!, set: { frame: { height: '31px', 'border-width': '5px' } } }],
    };
    const system = compileSystem(documents(own));
    const next = compileSystem(new Map(documents(own)).set(path('field'), changed));
    expect(rule(componentNamed(next, 'own')!.document, 'base')!.set['frame']).toEqual({
      height: '40px',
      'border-width': '5px',
    });
    expect(componentNamed(next, 'own')!.space).toBe(componentNamed(system, 'own')!.space);
  });

  test('what an edit of the base leaves alone is not read again, with parameters or without', () => {
    for (const parameters of [[], [{ id: 'accent', type: 'color', default: 'red' }]]) {
      const base = { ...FIELD, rules: [...FIELD.rules, { id: 'last', when: {}, set: {} }], parameters };
      const all = new Map(documents(derived({}))).set(path('field'), base);
      const rules = base.rules.map(each => (each.id === 'last' ? { ...each, note: 'Other.' } : each));
      const before = componentNamed(compileSystem(all), 'own')!;
      const after = componentNamed(
        compileSystem(new Map(all).set(path('field'), { ...base, rules })),
        'own',
      )!;
      expect(after.rules[0]).toBe(before.rules[0]);
      expect(after.rules.at(-1)!.note).toBe('Other.');
    }
  });
});

describe('where things come from', () => {
  const chain = compileSystem(
    documents(
      derived({
        id: 'middle',
        rules: [
          { id: 'mine', when: {}, after: 'base', set: { root: { gap: '1px' } } },
          { id: 'base', set: { frame: { opacity: '0.9' } } },
        ],
        anatomyEdits: [{ insert: { part: 'eye', kind: 'action' }, after: 'control' }],
      }),
      derived(
        { rules: [{ id: 'base', set: { frame: { height: '1px' } } }], anatomyEdits: [{ remove: 'label' }] },
        'own',
        'middle',
      ),
    ),
  );

  test.each([
    ['/rules/0', 'field', '/rules/0'],
    ['/rules/0/set/frame/border-width', 'field', '/rules/0/set/frame/border-width'],
    ['/rules/0/set/frame/height', 'own', '/rules/0/set/frame/height'],
    ['/rules/0/set/frame/opacity', 'middle', '/rules/1/set/frame/opacity'],
    ['/rules/1/set/root/gap', 'middle', '/rules/0/set/root/gap'],
    ['/rules/2/when', 'field', '/rules/1/when'],
    ['/anatomy/children/0', 'field', '/anatomy/children/1'],
    ['/anatomy/children/0/children/1/kind', 'middle', '/anatomyEdits/0/insert/kind'],
    ['/anatomy/children/0/children/2/content', 'field', '/anatomy/children/1/children/1/content'],
    ['/axes/2', 'field', '/axes/2'],
    ['/id', 'own', '/id'],
    ['/title', 'field', '/title'],
  ])('%s', (pointer, id, written) => {
    expect(chain.origin({ file: path('own'), pointer })).toEqual({ file: path(id), pointer: written });
  });
});

describe('what is told', () => {
  test.each<[string, object, string[]]>([
    ['a base that is not there', { extends: 'feild' }, ['/extends unknown-component']],
    ['itself as base', { extends: 'own' }, ['/extends extends-cycle']],
    ['an anatomy of its own', { anatomy: FIELD.anatomy }, ['/anatomy has-base']],
    [
      'an edit that does two things',
      { anatomyEdits: [{ remove: 'unit', move: 'label' }] },
      ['/anatomyEdits/0 wrong-shape'],
    ],
    [
      'an edit without a place',
      { anatomyEdits: [{ insert: { part: 'a', kind: 'row' } }] },
      ['/anatomyEdits/0 wrong-shape'],
    ],
    [
      'an edit of a part that is gone',
      { anatomyEdits: [{ remove: 'unit' }, { move: 'unit', after: 'label' }] },
      ['/anatomyEdits/1/move unknown-part'],
    ],
    [
      'a part beside nothing',
      { anatomyEdits: [{ move: 'unit', after: 'lable' }] },
      ['/anatomyEdits/0/after unknown-part'],
    ],
    [
      'a part in a leaf',
      { anatomyEdits: [{ move: 'unit', into: 'label' }] },
      ['/anatomyEdits/0/into leaf-with-children'],
    ],
    [
      'a part in itself',
      { anatomyEdits: [{ move: 'frame', into: 'frame' }] },
      ['/anatomyEdits/0/into moved-into-itself'],
    ],
    ['the root taken out', { anatomyEdits: [{ remove: 'root' }] }, ['/anatomyEdits/0/remove fixed-root']],
    [
      'a name that is taken',
      { anatomyEdits: [{ insert: { part: 'unit', kind: 'row' }, into: 'root' }] },
      ['/anatomyEdits/0/insert/part duplicate-id'],
    ],
    [
      'a part renamed',
      { anatomyEdits: [{ change: 'unit', to: { part: 'sign' } }] },
      ['/anatomyEdits/0/to/part fixed-member'],
    ],
    [
      'parts that do not stand together wrapped',
      { anatomyEdits: [{ wrap: ['label', 'unit'], in: { part: 'a', kind: 'row' } }] },
      ['/anatomyEdits/0/wrap not-beside'],
    ],
    [
      'a member of a part that is no text, or that no part has',
      { anatomyEdits: [{ change: 'unit', to: { element: { a: 1 }, colour: 'red' } }] },
      ['/anatomyEdits/0/to/colour unknown-key', '/anatomyEdits/0/to/element wrong-type'],
    ],
    [
      'a kind of part that is unknown',
      { anatomyEdits: [{ change: 'unit', to: { kind: 'txet' } }] },
      ['/anatomyEdits/0/to/kind unknown-kind'],
    ],
    [
      'a default that is lost',
      { axes: [{ id: 'size', values: [{ id: 'large' }] }] },
      ['/axes/0/values lost-default'],
    ],
    [
      'states in another order',
      { axes: [{ id: 'pointer', values: [{ id: 'down' }, { id: 'away' }] }] },
      ['/axes/0/values reordered-state'],
    ],
    ['another kind of axis', { axes: [{ id: 'size', kind: 'state' }] }, ['/axes/0/kind fixed-member']],
    [
      'an axis of its own without a kind',
      { axes: [{ id: 'tone', values: [{ id: 'a' }] }] },
      ['/axes/0 missing-key'],
    ],
    [
      'a limit with nothing left',
      { axes: [{ id: 'trailing', values: [{ id: 'unit' }], default: 'unit' }] },
      ['/axes/0 limit-without-values'],
    ],
    [
      'an overlay over nothing',
      { rules: [{ id: 'ovr', set: { frame: { opacity: '1' } } }] },
      ['/rules/0/id unknown-rule'],
    ],
    [
      'an overlay over what is left out',
      { without: { rules: ['over'] }, rules: [{ id: 'over', set: {} }] },
      ['/rules/0/id unknown-rule', '/without/rules/0 said-twice'],
    ],
    [
      'an overlay over what holds nowhere',
      { without: { axes: ['trailing'] }, rules: [{ id: 'unit', set: {} }] },
      ['/rules/0/id unknown-rule'],
    ],
    [
      'an overlay with a condition',
      { rules: [{ id: 'over', when: {}, set: {} }] },
      ['/rules/0/when fixed-member'],
    ],
    [
      'two overlays over one',
      {
        rules: [
          { id: 'over', set: {} },
          { id: 'over', set: {} },
        ],
      },
      ['/rules/1/id duplicate-id'],
    ],
    [
      'nothing to take out',
      { rules: [{ id: 'over', set: { frame: { opacity: null } } }] },
      ['/rules/0/set/frame/opacity unknown-entry'],
    ],
    [
      'something taken out of its own',
      { rules: [{ id: 'a', when: {}, set: { frame: { opacity: null, gap: '1px' } } }] },
      ['/rules/0/set/frame/opacity wrong-type'],
    ],
    [
      'a value that is none, in an overlay',
      { rules: [{ id: 'over', set: { frame: { opacity: '7px' } } }] },
      ['/rules/0/set/frame/opacity wrong-value'],
    ],
    [
      'a part that is gone, in an overlay',
      { anatomyEdits: [{ remove: 'unit' }], rules: [{ id: 'over', set: { unit: { opacity: '1' } } }] },
      ['/rules/0/set/unit unknown-part'],
    ],
    [
      'an axis that is gone, in a rule of its own',
      {
        without: { axes: ['trailing'] },
        rules: [{ id: 'a', when: { trailing: 'unit' }, set: { frame: { gap: '1px' } } }],
      },
      ['/rules/0/when/trailing unknown-axis'],
    ],
    [
      'a place behind nothing',
      { rules: [{ id: 'a', when: {}, after: 'ovr', set: { frame: { gap: '1px' } } }] },
      ['/rules/0/after unknown-rule'],
    ],
    [
      'two behind each other',
      {
        rules: [
          { id: 'a', when: {}, after: 'b', set: { frame: { gap: '1px' } } },
          { id: 'b', when: {}, after: 'a', set: { frame: { opacity: '1' } } },
        ],
      },
      ['/rules/0/after unknown-rule', '/rules/1/after unknown-rule'],
    ],
    [
      'something left out that is not there',
      { without: { rules: ['ovre'], axes: ['sise'] } },
      ['/without/axes/0 unknown-entry', '/without/rules/0 unknown-entry'],
    ],
  ])('%s', (_, own, expected) => {
    expect(told(derived(own)).sort()).toEqual(expected.sort());
  });

  test('only derived components have edits, overlays and empty conditions', () => {
    expect(
      told({
        ...FIELD,
        id: 'own',
        axes: [{ id: 'size', values: [{ id: 'a' }] }],
        limits: [],
        rules: [{ id: 'a' }],
        situations: [],
        plates: [],
        decisions: [],
      } as { id: string }),
    ).toEqual(expect.arrayContaining(['/axes/0 missing-key', '/rules/0 missing-key']));
  });

  test('components derived from each other, once each', () => {
    expect(told(derived({}, 'own', 'b'), derived({}, 'b', 'c'), derived({}, 'c', 'own'))).toEqual([
      expect.stringMatching(/extends extends-cycle$/),
    ]);
  });

  test('eight times over, and no more', () => {
    const chain = Array.from({ length: 10 }, (_, index) =>
      derived({}, `d${index + 1}`, index === 0 ? 'field' : `d${index}`),
    );
    const { system } = checkSystem(documents(...chain));
    expect(system.components.map(({ id }) => id)).toContain('d8');
    expect(told(...chain)).toEqual([`${path('d9')} /extends too-deep`]);
  });

  test('a fault of the base is the base’s, once; one that only a departure makes is the departure’s', () => {
    const broken = {
      ...FIELD,
      rules: [...FIELD.rules, { id: 'wrong', when: {}, set: { frame: { opacity: '7px' } } }],
    };
    const all = new Map(documents(derived({}), derived({}, 'more', 'own'))).set(path('field'), broken);
    expect(checkSystem(all).problems.map(({ file, pointer }) => `${file} ${pointer}`)).toEqual([
      `${path('field')} /rules/4/set/frame/opacity`,
    ]);
    expect(
      told(derived({ rules: [{ id: 'base', set: { frame: { height: 'calc(@control.height + 1px)' } } }] })),
    ).toEqual(['/rules/0/set/frame/height reference-cycle']);
  });

  test('a base that cannot be read whole does not blame what is derived from it', () => {
    const damaged = { ...FIELD, rules: 'none', axes: 7 };
    const own = derived({
      rules: [{ id: 'over', set: { frame: { opacity: '1' } } }],
      without: { axes: ['trailing'] },
    });
    const all = new Map(documents(own)).set(path('field'), damaged);
    expect(new Set(checkSystem(all).problems.map(({ file }) => file))).toEqual(new Set([path('field')]));
  });
});
