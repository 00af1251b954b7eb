import { meaningProblems } from '../../checks/meaning-problems';
import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { smallSystem } from '../../test/small-system';
import type { Combination } from '../../space/space';
import { componentStylesheet } from './component-css';
import { fieldTree, type FieldNode } from '../../render/field-tree';
import { namesOf } from '../../render/names';
import { HELD, HOST, SHIPPED, type SelectorScheme } from './selector-scheme';
import { stylesheetText } from './stylesheet';

/** Lists of choices, and controls that may be several elements. */

const state = (id: string): object => ({ id, kind: 'state' });
const ENTRY = {
  format: 'periwinkle-component/1',
  id: 'line',
  anatomy: { part: 'root', kind: 'row', children: [{ part: 'words', kind: 'text', content: 'label' }] },
  axes: ['pointer', 'focus', 'selection', 'availability', 'place'].map(state),
  rules: [
    { id: 'in', when: { focus: 'in' }, set: { root: { color: '#111111' } } },
    { id: 'keys', when: { focus: 'keyboard' }, set: { root: { color: '#222222' } } },
    { id: 'off', when: { availability: 'disabled' }, set: { words: { color: '#333333' } } },
    { id: 'had', when: { selection: 'selected' }, set: { words: { 'font-weight': '700' } } },
  ],
};
const FIELD = {
  format: 'periwinkle-component/1',
  id: 'pick',
  content: [{ id: 'options', kind: 'list', entry: [{ id: 'label', kind: 'text', required: true }] }],
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'label', kind: 'label', content: 'label' },
      { part: 'control', kind: 'control', content: 'value', elements: ['button', 'input', 'select'] },
      {
        part: 'list',
        kind: 'stack',
        children: [{ part: 'option', kind: 'use', component: 'line', repeat: 'options' }],
      },
    ],
  },
  axes: ['focus', 'content', 'requirement', 'availability', 'disclosure'].map(state),
  rules: [
    { id: 'filled', when: { content: 'filled' }, set: { control: { color: '#444444' } } },
    { id: 'shut', when: { disclosure: ['closed'] }, set: { list: { present: 'false' } } },
    { id: 'typed', when: { element: 'input' }, set: { control: { 'font-style': 'italic' } } },
  ],
  samples: [
    {
      id: 'quays',
      content: {
        label: 'Quay',
        value: 'South',
        placeholder: 'Any quay',
        options: [
          { label: 'North' },
          { label: 'South', is: { selection: 'selected' } },
          { label: 'Old', is: { focus: 'in', availability: 'disabled' } },
        ],
      },
    },
  ],
};

const systemOf = (field: object = FIELD, entry: object = ENTRY): System =>
  smallSystem({
    documents: [
      ['components/line.component.json', entry],
      ['components/pick.component.json', field],
    ],
  });
const system = systemOf();
const pick = system.components.find(({ id }) => id === 'pick')!;
const names = namesOf(system).component('pick');

function tree(
  combination: Combination,
  mode: 'held' | 'shipped' = 'shipped',
  component: Component = pick,
): FieldNode {
  const { space } = component;
  return fieldTree({
    component,
    names,
    icons: new Map(),
    sample: component.samples[0],
    combination: space.written(space.settled(space.indices(combination)).combination),
    mode,
    id: 'f',
  });
}

const every = (node: FieldNode): FieldNode[] => [
  node,
  ...node.children.flatMap(child => (typeof child === 'string' ? [] : every(child))),
];
const byPart = (root: FieldNode, part: string): FieldNode[] => every(root).filter(node => node.part === part);
const said = (node: FieldNode): Record<string, string> => Object.fromEntries(node.attributes);
const css = (scheme: SelectorScheme): string =>
  stylesheetText(componentStylesheet({ system, component: pick, scheme }));

test('is sound, and the control’s elements are an option, the first of them the usual', () => {
  expect(meaningProblems(system)).toEqual([]);
  const axis = pick.space.axes.at(-1)!;
  expect([axis.id, axis.kind, axis.rest, ...axis.values.map(({ id }) => id)]).toEqual([
    'element',
    'option',
    0,
    'button',
    'input',
    'select',
  ]);
  expect(pick.anatomy.byName.has('control::placeholder')).toBe(true);
});

test.each([
  ['button', 'button', ['South']],
  ['input', 'input', []],
])('element %s', (element, tag, children) => {
  const [control] = byPart(tree({ element, content: 'filled' }), 'control') as [FieldNode];
  expect([control.tag, control.children]).toEqual([tag, children]);
});

test('a button that is empty shows what else would be a placeholder', () => {
  const [control] = byPart(tree({ element: 'button', content: 'empty' }), 'control') as [FieldNode];
  expect(control.children).toEqual(['Any quay']);
});

test('a select offers the entries; what stands in it is chosen, or the placeholder is', () => {
  const options = (content: string): (readonly [string, unknown])[] => {
    const [control] = byPart(tree({ element: 'select', content }), 'control') as [FieldNode];
    return (control.children as FieldNode[]).map(each => [String(each.children[0]), said(each)]);
  };
  expect(options('filled')).toEqual([
    ['North', {}],
    ['South', { selected: '' }],
    ['Old', { disabled: '' }],
  ]);
  expect(options('empty')[0]).toEqual(['Any quay', { value: '', selected: '' }]);
});

test('an open list is wired: list box, options with their states, the one that the focus points to', () => {
  const root = tree({ disclosure: 'open', focus: 'keyboard', content: 'filled' });
  const [control] = byPart(root, 'control') as [FieldNode];
  const [list] = byPart(root, 'list') as [FieldNode];
  const options = byPart(root, 'option/root');
  expect(said(control)).toMatchObject({
    role: 'combobox',
    'aria-haspopup': 'listbox',
    'aria-expanded': 'true',
    'aria-controls': said(list)['id'],
    'aria-activedescendant': said(options[2]!)['id'],
  });
  expect(said(list)).toMatchObject({ role: 'listbox' });
  expect(options.map(each => said(each)['role'])).toEqual(['option', 'option', 'option']);
  expect(options.map(each => said(each)['aria-selected'])).toEqual(['false', 'true', 'false']);
  expect(said(options[2]!)).toMatchObject({
    'data-focus': 'in',
    'aria-disabled': 'true',
    'data-place': 'last',
  });
  expect(new Set(every(root).flatMap(each => said(each)['id'] ?? [])).size).toBe(
    every(root).filter(each => 'id' in said(each)).length,
  );
});

test('closed it points to nothing, a select opens a list of its own, and plates tell nobody anything', () => {
  const closed = said(byPart(tree({}), 'control')[0]!);
  expect(closed).toMatchObject({ role: 'combobox', 'aria-expanded': 'false' });
  expect(closed).not.toHaveProperty('aria-activedescendant');
  expect(said(byPart(tree({ element: 'select' }), 'control')[0]!)).not.toHaveProperty('role');
  expect(every(tree({ disclosure: 'open' }, 'held')).some(each => 'role' in said(each))).toBe(false);
});

test('what HTML does not give to an element is said by ARIA, and what no browser tells by attributes', () => {
  const attributes = (combination: Combination, part: string): Record<string, string> =>
    said(byPart(tree(combination), part)[0]!);
  const off = { availability: 'readonly', requirement: 'required', content: 'filled' };
  expect(attributes({ ...off, element: 'button' }, 'control')).toMatchObject({
    'aria-readonly': 'true',
    'aria-required': 'true',
  });
  expect(attributes({ ...off, element: 'input' }, 'control')).toMatchObject({ readonly: '', required: '' });
  expect(attributes({ ...off, element: 'select' }, 'control')).toMatchObject({
    'aria-readonly': 'true',
    required: '',
  });
  expect(attributes({ ...off, element: 'select' }, 'root')['data-content']).toBe('filled');
  expect(attributes({ ...off, element: 'input' }, 'root')).not.toHaveProperty('data-content');
});

test('selectors: of what can show a placeholder the browser tells that it is filled, of the others an attribute', () => {
  expect(css(SHIPPED)).toMatch(
    /\.p-pick-control:is\(input\):not\(:placeholder-shown\)\)[^{]*\[data-content="filled"\]/,
  );
  // The focus is never in an entry, it only points to one.
  for (const scheme of [SHIPPED, HOST]) {
    expect(css(scheme)).toContain('[data-focus="keyboard"]');
    expect(css(scheme)).toContain('[aria-disabled="true"]');
    expect(css(scheme)).not.toMatch(/p-pick-option[^ ,{]*:focus/);
  }
  expect(css(HELD)).toContain('[data-content="filled"]');
});

test.each([
  [{ elements: ['input', 'selekt'] }, 'unknown-element'],
  [{ elements: ['input', 'input'] }, 'duplicate-id'],
  [{ element: 'input', elements: ['input', 'select'] }, 'said-twice'],
])('%j: %s', (wrong, code) => {
  const control = { part: 'control', kind: 'control', content: 'value', ...wrong };
  const [label, , list] = FIELD.anatomy.children;
  const anatomy = { ...FIELD.anatomy, children: [label, control, list] };
  const found = meaningProblems(systemOf({ ...FIELD, anatomy, rules: [] }));
  expect(found.map(problem => problem.code)).toContain(code);
});

test('a sample of very many entries is told, and drawn in part', () => {
  const entries = Array.from({ length: 10_000 }, (_, index) => ({ label: `Quay ${index}` }));
  const samples = [{ id: 'many', content: { ...FIELD.samples[0]!.content, options: entries } }];
  const many = systemOf({ ...FIELD, samples });
  expect(meaningProblems(many).map(({ code }) => code)).toEqual(['too-many-entries']);
  const component = many.components.find(({ id }) => id === 'pick')!;
  expect(byPart(tree({ disclosure: 'open' }, 'shipped', component), 'option/root')).toHaveLength(200);
});
