import { checkSystem } from '../../checks/check-system';
import { componentNamed } from '../system';
import type { Problem } from '../../json/problem';
import { contests } from '../../cascade/questions/contests';
import { resolve } from '../../cascade/resolve';
import { smallDocuments } from '../../test/small-system';

/** What is wrong with uses of other components is told at its place, once, and nothing else is lost. */

const SIZE = { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }], default: 'small' };

interface Written {
  readonly uses?: readonly object[];
  readonly axes?: readonly object[];
  readonly rules?: readonly object[];
  readonly more?: object;
}

const component = (id: string, { uses = [], axes = [], rules = [], more = {} }: Written = {}) =>
  [
    `components/${id}.component.json`,
    {
      format: 'periwinkle-component/1',
      id,
      anatomy: { part: 'root', kind: 'row', children: [...uses, { part: 'bearer', kind: 'action' }] },
      axes,
      rules,
      ...more,
    },
  ] as const;

const BUTTON = component('button', {
  axes: [SIZE, { id: 'pointer', kind: 'state' }],
  rules: [
    { id: 'base', when: {}, set: { bearer: { color: '#112233', height: '20px' } } },
    { id: 'large', when: { size: 'large' }, set: { bearer: { opacity: '0.9' } } },
    { id: 'over', when: { pointer: 'over' }, set: { bearer: { color: '#445566' } } },
    { id: 'tall', when: { pointer: 'down' }, set: { root: { height: '30px' } } },
  ],
});

const use = (members: object = {}, part = 'less'): object => ({
  part,
  kind: 'use',
  component: 'button',
  ...members,
});

const check = (...documents: (readonly [string, unknown])[]) => checkSystem(smallDocuments({ documents }));

const lines = (problems: readonly Problem[]): string[] =>
  problems.map(({ file, pointer, code, suggestion }) =>
    [file.replace(/^components\/|\.component\.json$/g, ''), pointer, code, suggestion ?? ''].join(' ').trim(),
  );

const found = (written: Written): string[] => lines(check(BUTTON, component('field', written)).problems);

test('a sound use is no problem', () => {
  expect(found({ uses: [use({ with: { size: 'size' } })], axes: [SIZE] })).toEqual([]);
});

test('a component that is not there, and nothing that only follows from that', () => {
  const rules = [{ id: 'r', when: {}, after: 'less/base', set: { 'less/bearer': { color: '#000000' } } }];
  expect(found({ uses: [use({ component: 'buton' })], rules })).toEqual([
    'field /anatomy/children/0/component unknown-component button',
  ]);
  expect(found({ uses: [{ part: 'less', kind: 'use' }] })).toEqual(['field /anatomy/children/0 missing-key']);
});

test('a component that lies within itself through three others', () => {
  const chain = ['a', 'b', 'c', 'd'].map((id, index, all) =>
    component(id, { uses: [use({ component: all[(index + 1) % all.length] })] }),
  );
  const { system, problems } = check(...chain);
  expect(lines(problems)).toEqual(['d /anatomy/children/0/component use-cycle']);
  expect(problems[0]!.message).toContain('a → b → c → d → a');
  expect(system.components).toHaveLength(4);
});

test('more than eight levels', () => {
  const chain = Array.from({ length: 10 }, (_, level) =>
    component(`c${level}`, level === 9 ? {} : { uses: [use({ component: `c${level + 1}` })] }),
  );
  expect(lines(check(...chain.slice(1)).problems)).toEqual([]);
  expect(lines(check(...chain).problems)).toEqual(['c0 /anatomy/children/0/component too-deep']);
});

test('bindings to what is not there, and in no known form', () => {
  const binding = (written: unknown): string[] =>
    found({ uses: [use({ with: { size: written } })], axes: [SIZE] });
  const at = 'field /anatomy/children/0/with/size';
  expect(found({ uses: [use({ with: { sise: 'size' } })], axes: [SIZE] })).toEqual([
    'field /anatomy/children/0/with/sise unknown-axis size',
  ]);
  expect(binding('sze')).toEqual([`${at} unknown-axis size`]);
  expect(binding({ is: 'lage' })).toEqual([`${at}/is unknown-value large`]);
  expect(binding({ axis: 'size', map: { smal: 'large', large: 'lrge' } })).toEqual([
    `${at}/map/smal unknown-value small`,
    `${at}/map/large unknown-value large`,
  ]);
  expect(binding([{ when: { size: 'smal' }, is: 'large' }, { is: 'small' }])).toEqual([
    `${at}/0/when/size unknown-value small`,
    `${at}/1 wrong-shape`,
  ]);
  for (const written of [7, null, {}, { is: 'small', map: {} }, { axis: 'size' }])
    expect(binding(written)).toEqual([`${at} wrong-shape`]);
  expect(
    found({
      uses: [use({ with: { size: 'width' } })],
      axes: [{ id: 'width', kind: 'option', values: [{ id: 'small' }, { id: 'huge' }], default: 'small' }],
    }),
  ).toEqual([`${at} unmatched-value`]);
});

test('a map that names most values of an option and forgets another', () => {
  const width = {
    id: 'width',
    kind: 'option',
    values: ['slim', 'plain', 'wide'].map(id => ({ id })),
    default: 'plain',
  };
  const mapped = (map: object): string[] =>
    found({ uses: [use({ with: { size: { axis: 'width', map } } })], axes: [width] });
  expect(mapped({ slim: 'small', plain: 'large' })).toEqual([
    'field /anatomy/children/0/with/size/map unmapped-value "wide": "small"',
  ]);
  // What is named departs from the default; the default of both is as good as said.
  for (const map of [{ wide: 'large' }, { slim: 'small', wide: 'large' }]) expect(mapped(map)).toEqual([]);
});

test('rules that stand behind nothing, or speak of parts and properties that are not there', () => {
  const rule = (members: object): string[] =>
    found({ uses: [use()], rules: [{ id: 'r', when: {}, ...members }] });
  const set = { 'less/bearer': { opacity: '0.5' } };
  expect(rule({ set, after: 'less/bas' })).toEqual(['field /rules/0/after unknown-rule less/base']);
  expect(rule({ set: { 'less/bearr': { opacity: '0.5' } } })).toEqual([
    'field /rules/0/set/less~1bearr unknown-part less/bearer',
  ]);
  expect(rule({ set: { less: { opacty: '0.5' } } })).toEqual([
    'field /rules/0/set/less/opacty unknown-property opacity',
  ]);
  expect(rule({ set: { 'less//bearer': { opacity: '0.5' } } })).toEqual([
    'field /rules/0/set/less~1~1bearer bad-name',
  ]);
});

test('calculations that reach into what a nested component keeps to itself, or into one of many', () => {
  const rule = (text: string, members: object = {}): string[] =>
    found({ uses: [use(members)], rules: [{ id: 'r', when: {}, set: { root: { width: text } } }] });
  expect(rule('calc(@less/bearer.height + 2px)')).toEqual([]);
  expect(rule('calc(@less.height + 2px)')).toEqual(['field /rules/0/set/root/width free-reference']);
  expect(rule('calc(@less/bearr.height)')).toEqual([
    'field /rules/0/set/root/width unknown-part @less/bearer.height',
  ]);
  expect(rule('calc(@less/bearer.height)', { repeat: 'options' })).toEqual([
    'field /rules/0/set/root/width many-referred',
  ]);
});

test('a rule that silences a nested state everywhere is told, with where it would not', () => {
  const written = (members: object): Written => ({
    uses: [use()],
    rules: [{ id: 'ours', when: {}, set: { 'less/bearer': { color: '#998877' } }, ...members }],
  });
  expect(found(written({}))).toEqual([
    'field /rules/0/set/less~1bearer/color silenced-state "after": "less/base"',
  ]);
  expect(found(written({ after: 'less/base' }))).toEqual([]);
});

test('what is wrong in a nested component is told there, once', () => {
  const broken = component('button', {
    rules: [
      { id: 'base', when: {}, set: { bearer: { color: '{color.nowhere}', height: 'calc(@root.height)' } } },
      { id: 'turn', when: {}, set: { root: { height: 'calc(@bearer.height)' } } },
    ],
  });
  expect(lines(check(broken, component('field', { uses: [use()] })).problems)).toEqual([
    'button /rules/0/set/bearer/color unknown-token',
    'button /rules/1/set/root/height reference-cycle',
  ]);
});

test('a decision can name a nested rule', () => {
  const { system, problems } = check(
    BUTTON,
    component('field', {
      uses: [use()],
      axes: [SIZE],
      rules: [{ id: 'ours', when: { size: 'large' }, set: { 'less/bearer': { color: '#998877' } } }],
      more: { decisions: [{ rules: ['less/over', 'ours'], because: 'Large ones are quiet.' }] },
    }),
  );
  const field = componentNamed(system, 'field')!;
  expect(lines(problems)).toEqual([]);
  expect(field.decisions).toHaveLength(1);
  expect(contests(field).map(({ earlier, later }) => [earlier.id, later.id])).toEqual([
    ['less/over', 'ours'],
  ]);
});

test('copies are addressed by number, each in states of its own', () => {
  const { system } = check(BUTTON, component('field', { uses: [use({ repeat: 'options' })] }));
  const field = componentNamed(system, 'field')!;
  const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
  const { combination, parts } = resolve(
    field,
    { 'less/pointer': 'over', 'less:2/pointer': 'away' },
    context,
  );
  expect(combination).toEqual({ 'less/pointer': 'over', 'less:2/pointer': 'away' });
  expect(parts['less/bearer']!['color']!.value).toBe('#445566');
  expect(parts['less:2/bearer']!['color']!.value).toBe('#112233');
});
