import { meaningProblems } from '../../checks/meaning-problems';
import { componentStylesheet } from '../../output/stylesheet/component-css';
import { SHIPPED } from '../../output/stylesheet/selector-scheme';
import { stylesheetText } from '../../output/stylesheet/stylesheet';
import { resolve } from '../../cascade/resolve';
import { smallSystem } from '../../test/small-system';

const AXES = [{ id: 'validity', kind: 'state' }];
const STYLED = {
  axes: AXES,
  rules: [
    { id: 'a', when: {}, set: { 'inner::placeholder': { color: '#123456' }, frame: { color: '#123456' } } },
    {
      id: 'b',
      when: { validity: 'invalid' },
      set: {
        'inner::placeholder': { color: '#aa0000' },
        frame: { color: '#aa0000' },
        'inner::selection': { 'background-color': '#00aa00' },
      },
    },
  ],
};

const inner = (more: object): object => ({
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'frame', kind: 'row', children: [{ part: 'inner', kind: 'control', ...more }] },
      { part: 'words', kind: 'text', content: 'words' },
    ],
  },
});

test('rules name what a browser draws in a control, and stylesheets say it in blocks of its own', () => {
  const system = smallSystem({ component: STYLED });
  const [component] = system.components as [(typeof system.components)[number]];
  expect(meaningProblems(system)).toEqual([]);
  const { parts } = resolve(
    component,
    { validity: 'invalid' },
    { tokens: system.tokens.usual(), rootFontSize: 16 },
  );
  expect(parts['inner::placeholder']!['color']!.value).toBe('#aa0000');
  const css = stylesheetText(componentStylesheet({ system, component, scheme: SHIPPED }));
  expect(css).toContain('.p-f-inner::placeholder {\n  color: #123456;');
  expect(css).toMatch(/\.p-f-inner:where\(.*invalid.*\)::placeholder {\n {2}color: #aa0000;/);
  expect(css).toMatch(/\.p-f-inner:where\(.*invalid.*\)::selection {/);
  // One unknown selector in a list would take the others with it.
  expect(css).not.toMatch(/::(placeholder|selection),|,[^{}]*::(placeholder|selection) \{\n {2}color: #/);
});

test.each([
  [inner({ element: 'textarea' }), 'inner::placeholder', 'color', []],
  [inner({ element: 'select' }), 'inner::placeholder', 'color', ['unknown-part']],
  [inner({ type: 'date' }), 'inner::placeholder', 'color', ['unknown-part']],
  [inner({}), 'words::selection', 'color', ['unknown-part']],
  [inner({}), 'inner::before', 'color', ['unknown-part']],
  [inner({}), 'inner::placeholder', 'height', ['not-in-pseudo-part']],
  [inner({}), 'inner::placeholder', 'colour', ['unknown-property']],
  [inner({}), 'inner::selection', 'opacity', ['not-in-pseudo-part']],
])('%#: %j holds %s, which takes %s: %j', (component, part, property, codes) => {
  const set = { [part]: { [property]: property === 'height' ? '2px' : '#123456' } };
  const problems = meaningProblems(
    smallSystem({ component: { ...component, rules: [{ id: 'a', when: {}, set }] } }),
  );
  expect(problems.filter(({ severity }) => severity === 'error').map(({ code }) => code)).toEqual(codes);
});

test('a derived component without the control has nothing of what was said of its placeholder', () => {
  const base = {
    format: 'periwinkle-component/1',
    id: 'base',
    ...inner({}),
    rules: [
      { id: 'a', when: {}, set: { 'inner::placeholder': { color: '#123456' }, words: { color: '#123456' } } },
    ],
  };
  const derived = {
    format: 'periwinkle-component/1',
    id: 'derived',
    extends: 'base',
    anatomyEdits: [{ remove: 'inner' }],
  };
  const system = smallSystem({
    documents: [
      ['components/base.component.json', base],
      ['components/derived.component.json', derived],
    ],
  });
  const component = system.components.find(({ id }) => id === 'derived')!;
  expect(component.problems).toEqual([]);
  expect(component.rules[0]!.settings.map(({ part }) => part)).toEqual(['words']);
});
