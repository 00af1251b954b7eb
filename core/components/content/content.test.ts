import { checkSystem } from '../../checks/check-system';
import { componentNamed } from '../system';
import { fieldTree, type FieldNode } from '../../render/field-tree';
import { namesOf } from '../../render/names';
import type { SampleDocument } from '../../documents/component-document';
import { smallDocuments } from '../../test/small-system';
import { CONVERSIONS } from './conversions';
import { derivedText } from './derived-text';
import { lengthOf } from '../../text/graphemes';

const around = (sources: Record<string, unknown>, value = '') => ({
  value: () => value,
  entries: () => 3,
  sources,
});

describe('where text comes from', () => {
  const chain = { id: 'sign', from: ['due.currency', 'port.currency'], as: 'currency-sign', else: '¤' };

  test('the first source that is there counts, then the last resort', () => {
    expect(derivedText(chain, around({ due: { currency: 'USD' }, port: { currency: 'EUR' } }))).toBe('$');
    expect(derivedText(chain, around({ due: {}, port: { currency: 'EUR' } }))).toBe('€');
    expect(derivedText(chain, around({ due: { currency: '' }, port: { currency: null } }))).toBe('¤');
    expect(derivedText({ id: 'x', from: ['a.b'] }, around({ a: 'b' }))).toBeUndefined();
    expect(derivedText({ id: 'x', from: ['a.constructor'] }, around({ a: {} }))).toBeUndefined();
    expect(derivedText({ id: 'x', from: ['a'], as: 'count' }, around({ a: 12345 }))).toBe('12,345');
  });

  test('templates over what is entered, its bounds, lists and sources', () => {
    const text = '{value.length} of { value.most }, {list.length} at {port.name}{port.nowhere}';
    const sources = { value: { most: 240 }, port: { name: 'Merrow' } };
    expect(derivedText({ id: 'x', text }, around(sources, 'Osprey'))).toBe('6 of 240, 3 at Merrow');
    expect(derivedText({ id: 'x', text: '{value}{' }, around({}, '<b>'))).toBe('<b>{');
  });

  test('characters are what people count', () => {
    expect(['', 'Osprey', 'नमस्ते', '👩‍✈️⚓', 'é'].map(lengthOf)).toEqual([0, 6, 3, 2, 1]);
  });
});

test.each([
  ['currency-sign', 'EUR', '€'],
  ['currency-sign', 'no currency', 'no currency'],
  ['upper-case', 'straße', 'STRASSE'],
  ['count', '1240', '1,240'],
  ['count', 'many', 'many'],
  ['time-12', '00:05', '12:05 am'],
  ['time-12', '12:00', '12:00 pm'],
  ['time-12', '23:59:10', '11:59 pm'],
  ['time-24', '2:30 pm', '14:30'],
  ['time-24', '12:00 AM', '00:00'],
  ['time-24', '25:00', '25:00'],
  ['time-24', '0:30 pm', '0:30 pm'],
])('%s of “%s” is “%s”', (as, given, text) => expect(CONVERSIONS[as]!(given)).toBe(text));

const FORMAT = 'periwinkle-component/1';

const ENTRY = {
  format: FORMAT,
  id: 'entry',
  anatomy: {
    part: 'root',
    kind: 'row',
    children: [
      { part: 'press', kind: 'action', content: 'label' },
      { part: 'hint', kind: 'text', content: 'hint' },
    ],
  },
  axes: [
    { id: 'selection', kind: 'state' },
    { id: 'place', kind: 'state' },
  ],
  rules: [],
};

const COUNTER = {
  format: FORMAT,
  id: 'counter',
  content: [{ id: 'text', text: '{value.length} of {value.most}' }],
  anatomy: { part: 'root', kind: 'row', children: [{ part: 'words', kind: 'text', content: 'text' }] },
  rules: [],
};

const BERTH = {
  format: FORMAT,
  id: 'berth',
  content: [
    { id: 'label', required: true },
    { id: 'options', kind: 'list', entry: [{ id: 'label', required: true }, { id: 'hint' }] },
    { id: 'found', text: '{list.length} berths' },
  ],
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'label', kind: 'label', content: 'label' },
      { part: 'control', kind: 'control', content: 'value' },
      { part: 'counter', kind: 'use', component: 'counter', content: { value: 'value' } },
      { part: 'entry', kind: 'use', component: 'entry', repeat: 'options' },
      { part: 'found', kind: 'text', content: 'found' },
    ],
  },
  axes: [{ id: 'content', kind: 'state' }],
  rules: [],
  samples: [
    {
      id: 'north',
      content: {
        label: 'Berth',
        value: 'North quay',
        options: [
          { label: 'North quay', hint: '8 m', is: { selection: 'selected' } },
          { label: 'South quay' },
          { label: 'Mole' },
        ],
      },
      sources: { value: { most: 40 } },
    },
  ],
};

const checked = (...changed: object[]) => {
  const all = new Map([ENTRY, COUNTER, BERTH, ...changed].map(each => [(each as { id: string }).id, each]));
  return checkSystem(
    smallDocuments({
      documents: [...all].map(([id, each]) => [`components/${id}.component.json`, each] as const),
    }),
  );
};

const lines = (...changed: object[]): string[] =>
  checked(...changed).problems.map(({ pointer, code, suggestion }) =>
    [pointer, code, suggestion ?? ''].join(' ').trim(),
  );

/** Each node with a class, its text, and the attributes asked for. */
function told(node: FieldNode, names: readonly string[]): string[] {
  const attributes = node.attributes.filter(([name]) => names.includes(name)).map(each => each.join('='));
  const text = node.children.filter(child => typeof child === 'string').join('');
  const own = [node.part, text, ...attributes].filter(each => each !== '').join(' ');
  return [own, ...node.children.flatMap(child => (typeof child === 'string' ? [] : told(child, names)))];
}

function shown(
  mode: 'held' | 'shipped',
  combination: Record<string, string>,
  names: readonly string[],
): string[] {
  const { system } = checked();
  const component = componentNamed(system, 'berth')!;
  return told(
    fieldTree({
      component,
      names: namesOf(system).component('berth'),
      icons: system.icons,
      sample: BERTH.samples[0] as SampleDocument,
      combination,
      mode,
      id: 'b',
    }),
    names,
  );
}

describe('content of nested components', () => {
  test('entries of a list, each with its content, state and place; counters over what is entered', () => {
    const attributes = ['data-place', 'data-selection', 'id', 'for'];
    expect(shown('held', { content: 'filled' }, attributes)).toEqual([
      'root',
      'label Berth for=b-control',
      'control id=b-control',
      'counter/root',
      'counter/words 10 of 40 id=b-counter--words',
      'entry/root data-selection=selected data-place=first',
      'entry/press North quay',
      'entry/hint 8 m',
      'entry/root data-selection=unselected data-place=middle',
      'entry/press South quay',
      'entry/root data-selection=unselected data-place=last',
      'entry/press Mole',
      'found 3 berths id=b-found',
    ]);
  });

  test('nothing is counted in an empty field; states are markup where a page shows it', () => {
    const found = shown('shipped', { content: 'empty' }, ['aria-selected', 'data-place']);
    expect(found).toContain('counter/words 0 of 40');
    expect(found).toContain('entry/root aria-selected=true data-place=first');
  });
});

test('content that is made of itself is nothing, and ends', () => {
  const content = [
    { id: 'label' },
    { id: 'value', text: 'so {value}' },
    { id: 'options', kind: 'list', text: '{list.length}' },
    { id: 'found', text: '{list.length} of {value}' },
  ];
  const [sample] = BERTH.samples;
  const { system } = checked({
    ...BERTH,
    content,
    samples: [{ ...sample, content: { label: 'Berth' } }],
  });
  const component = componentNamed(system, 'berth')!;
  const tree = fieldTree({
    component,
    names: namesOf(system).component('berth'),
    icons: system.icons,
    sample: component.samples[0],
    combination: { content: 'filled' },
    mode: 'held',
    id: 'b',
  });
  expect(told(tree, []).at(-1)).toBe('found 1 of so ');
});

test('what is wrong with content is told at its place', () => {
  expect(lines()).toEqual([]);
  const content = (own: object): object => ({ ...BERTH, content: [...BERTH.content, own] });
  expect(lines(content({ id: 'fuond', text: 'x' }))).toEqual(['/content/3 unused-content']);
  const found = (own: object): object => ({
    ...BERTH,
    content: [...BERTH.content.slice(0, 2), { id: 'found', ...own }],
  });
  expect(lines(found({ from: ['port.name'], as: 'uper-case' }))).toEqual([
    '/content/2/as unknown-conversion upper-case',
  ]);
  expect(lines(found({ text: '{value.lenght} of {list}', from: ['a'] }))).toEqual([
    '/content/2/text said-twice',
    '/content/2/text unknown-word value.length',
    '/content/2/text unknown-word',
  ]);
  const [sample] = BERTH.samples;
  const samples = (own: object): object => ({ ...BERTH, samples: [{ ...sample, content: own }] });
  expect(lines(samples({ options: [{ hint: '8 m' }, 'Mole'] }))).toEqual([
    '/samples/0/content/options/1 wrong-type',
    '/samples/0/content missing-content',
    '/samples/0/content/options/0 missing-content',
  ]);
  expect(lines(samples({ label: 'Berth', options: 'none' }))).toEqual([
    '/samples/0/content/options wrong-type',
  ]);
  const uses = JSON.stringify(BERTH)
    .replace('"repeat":"options"', '"repeat":"label"')
    .replace('"content":{"value":"value"}', '"content":{"txt":"value"}');
  expect(lines(JSON.parse(uses) as object)).toEqual([
    '/content/1 unused-content',
    '/anatomy/children/2/content/txt unknown-content text',
    '/anatomy/children/3/repeat not-a-list',
  ]);
});
