import { checkSystem } from '../checks/check-system';
import { componentStylesheet } from '../output/stylesheet/component-css';
import { SHIPPED } from '../output/stylesheet/selector-scheme';
import { stylesheetText } from '../output/stylesheet/stylesheet';
import { tokensStylesheet } from '../output/tokens/tokens-css';
import { resolve } from '../cascade/resolve';
import { smallDocuments } from '../test/small-system';
import { componentNamed } from './system';

const FORMAT = 'periwinkle-component/1';
const srgb = (...channels: number[]) => ({
  colorSpace: 'srgb',
  components: channels.map(each => each / 255),
});
const TOKENS = {
  color: { $type: 'color', ink: { $value: srgb(17, 34, 51) }, harbour: { $value: srgb(0, 102, 119) } },
  gap: { $type: 'dimension', $value: { value: 4, unit: 'px' } },
};
const ACCENT = { id: 'accent', type: 'color', default: '{color.ink}', description: 'Line while focused.' };
const ROOM = { id: 'room', type: 'dimension', default: '{gap}' };

const button = (own: object = {}) => ({
  format: FORMAT,
  id: 'button',
  parameters: [ACCENT, ROOM],
  anatomy: { part: 'root', kind: 'row', children: [{ part: 'press', kind: 'action' }] },
  rules: [
    {
      id: 'base',
      when: {},
      set: { press: { color: '@accent', width: 'calc(@press.height + 2 * @room)', height: '10px' } },
    },
  ],
  ...own,
});

const field = (parameters: object, own: object = {}) => ({
  format: FORMAT,
  id: 'field',
  parameters: [{ ...ACCENT, default: '#abcdef' }],
  anatomy: {
    part: 'root',
    kind: 'row',
    children: [{ part: 'less', kind: 'use', component: 'button', parameters }],
  },
  rules: [{ id: 'base', when: {}, set: { root: { color: '@accent' } } }],
  ...own,
});

const checked = (...documents: { id: string }[]) =>
  checkSystem(
    smallDocuments({
      tokens: TOKENS,
      documents: documents.map(each => [`components/${each.id}.component.json`, each] as const),
    }),
  );

const lines = (...documents: { id: string }[]): string[] =>
  checked(...documents).problems.map(({ pointer, code, suggestion }) =>
    [pointer, code, suggestion ?? ''].join(' ').trim(),
  );

function values(id: string, ...documents: { id: string }[]): Record<string, string> {
  const { system, problems } = checked(...documents);
  expect(problems).toEqual([]);
  const { parts } = resolve(
    componentNamed(system, id)!,
    {},
    { tokens: system.tokens.usual(), rootFontSize: 16 },
  );
  return Object.fromEntries(
    Object.entries(parts).flatMap(([part, own]) =>
      Object.entries(own).map(([property, { value, trail }]) => [
        `${part}.${property}`,
        `${value} ${trail[0]!.text}`,
      ]),
    ),
  );
}

const css = (id: string, ...documents: { id: string }[]): string => {
  const { system } = checked(...documents);
  return stylesheetText(
    componentStylesheet({ system, component: componentNamed(system, id)!, scheme: SHIPPED }),
  );
};

test('a default holds where nobody sets a parameter; each use is a custom property with the default in its place', () => {
  expect(values('button', button())).toEqual({
    'press.color': '#112233 @accent',
    'press.width': '18px calc(@press.height + 2 * @room)',
    'press.height': '10px 10px',
  });
  const text = css('button', button());
  expect(text).toContain('color: var(--p-button-accent, var(--p-color-ink));');
  expect(text).toContain('(2 * var(--p-button-room, var(--p-gap)))');
  expect(text).not.toMatch(/^\s*--p-button-/m);
  const { system } = checked(button());
  expect(stylesheetText(tokensStylesheet(system))).toContain('--p-color-ink');
});

test('a use sets them, to values or to parameters of its own component', () => {
  expect(values('field', button(), field({ accent: '{color.harbour}', room: '1px' }))).toMatchObject({
    'less/press.color': '#006677 @accent',
    'less/press.width': '12px calc(@press.height + 2 * @room)',
  });
  const handed = field({ accent: '@accent' });
  expect(values('field', button(), handed)).toMatchObject({ 'less/press.color': '#abcdef @accent' });
  const text = css('field', button(), handed);
  expect(text).toContain('--p-button-accent: var(--p-field-accent, #abcdef);');
  expect(text).toMatch(/\.p-field-less--press \{[^}]*color: var\(--p-button-accent, var\(--p-color-ink\)\);/);
});

test('through two levels', () => {
  const outer = {
    format: FORMAT,
    id: 'outer',
    anatomy: {
      part: 'root',
      kind: 'row',
      children: [{ part: 'in', kind: 'use', component: 'field', parameters: { accent: '{color.harbour}' } }],
    },
    rules: [],
  };
  expect(values('outer', button(), field({ accent: '@accent' }), outer)).toMatchObject({
    'in/root.color': '#006677 @accent',
    'in/less/press.color': '#006677 @accent',
  });
  const text = css('outer', button(), field({ accent: '@accent' }), outer);
  expect(text).toContain('--p-field-accent: var(--p-color-harbour);');
  expect(text).toContain('--p-button-accent: var(--p-field-accent, #abcdef);');
});

test('a derived component reads its own name, then that of its base', () => {
  const derived = { format: FORMAT, id: 'small', extends: 'button', rules: [] };
  expect(css('small', button(), derived)).toContain(
    'color: var(--p-small-accent, var(--p-button-accent, var(--p-color-ink)));',
  );
  const own = { ...derived, parameters: [{ ...ACCENT, default: '{color.harbour}' }] };
  expect(css('small', button(), own)).toContain('color: var(--p-small-accent, var(--p-color-harbour));');
  expect(values('small', button(), own)).toMatchObject({ 'press.color': '#006677 @accent' });
});

test('what is wrong is told at its place', () => {
  const set = (press: object): string[] => lines(button({ rules: [{ id: 'r', when: {}, set: { press } }] }));
  const used = { color: '@accent', width: '@room' };
  expect(set(used)).toEqual([]);
  expect(set({ ...used, height: '@rom' })).toEqual(['/rules/0/set/press/height unknown-parameter room']);
  expect(set({ ...used, height: '@accent' })).toEqual(['/rules/0/set/press/height wrong-type']);
  expect(set({ ...used, height: 'calc(@accent * 2)' })).toEqual(['/rules/0/set/press/height wrong-unit']);
  expect(set({ color: '@accent' })).toEqual(['/parameters/1 unused-parameter']);
  // What it comes to is looked at, unless a default is to blame.
  const sum = 'calc(@room + @press.height)';
  for (const wrong of ['calc(@room 1px)', 'calc(@room + )', 'calc(@room + #ffffff)', '@room 2px'])
    expect(set({ ...used, width: sum, 'min-width': wrong })[0]).toMatch(
      /^\/rules\/0\/set\/press\/min-width wrong-/,
    );
  const spoilt = { parameters: [ACCENT, { ...ROOM, default: 'wide' }] };
  expect(lines(button(spoilt))).toEqual(['/parameters/1/default wrong-type']);
  const parameter = (own: object): string[] => lines(button({ parameters: [{ ...ACCENT, ...own }, ROOM] }));
  expect(parameter({ type: 'colour' })).toEqual(['/parameters/0/type unknown-type color']);
  expect(parameter({ default: '12px' })).toEqual(['/parameters/0/default wrong-type']);
  expect(parameter({ default: '{gap}' })).toEqual(['/parameters/0/default wrong-type']);
  expect(parameter({ default: '{color.inc}' })).toEqual(['/parameters/0/default unknown-token color.ink']);
  const use = (parameters: object): string[] => lines(button(), field(parameters));
  const at = '/anatomy/children/0/parameters';
  expect(use({ acent: '#000000' })).toEqual([`${at}/acent unknown-parameter accent`]);
  expect(use({ accent: '12px' })).toEqual([`${at}/accent wrong-type`]);
  expect(use({ accent: '@acent' })).toEqual([`${at}/accent unknown-parameter accent`]);
  expect(use({ room: '@accent' })).toEqual([`${at}/room wrong-type`]);
});
