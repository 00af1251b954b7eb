import type { System } from '../components/system';
import { meaningProblems } from '../checks/meaning-problems';
import { componentStylesheet } from '../output/stylesheet/component-css';
import { SHIPPED } from '../output/stylesheet/selector-scheme';
import { stylesheetText } from '../output/stylesheet/stylesheet';
import { smallSystem } from '../test/small-system';
import { resolve } from './resolve';

/** What values come to beside their plain reading, and that stylesheets say the same in words that browsers do not drop. */

const px = (value: number, unit = 'px'): object => ({ $type: 'dimension', $value: { value, unit } });
const number = (value: number): object => ({ $type: 'number', $value: value });
const TOKENS = {
  neg: px(-4),
  none: px(0),
  big: number(1500),
  part: number(1.5),
  low: { $type: 'duration', $value: { value: -5, unit: 'ms' } },
};

const systemOf = (set: Record<string, Record<string, string>>): System =>
  smallSystem({ tokens: TOKENS, set });

const valueOf = (set: Record<string, Record<string, string>>, part: string, property: string): string => {
  const system = systemOf(set);
  expect(meaningProblems(system)).toEqual([]);
  const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
  return resolve(system.components[0]!, {}, context).parts[part]![property]!.value;
};
const cssOf = (set: Record<string, Record<string, string>>): string => {
  const system = systemOf(set);
  return stylesheetText(componentStylesheet({ system, component: system.components[0]!, scheme: SHIPPED }));
};

test.each([
  ['width', '{neg}', '0px', 'calc(var(--p-neg))'],
  ['max-width', '{neg}', '0px', 'calc(var(--p-neg))'],
  ['border-width', '{neg}', '0px', 'calc(var(--p-neg))'],
  ['font-size', '{neg}', '0px', 'calc(var(--p-neg))'],
  ['margin-inline', '{neg}', '-4px', 'var(--p-neg)'],
  ['order', '{part}', '2', 'calc(var(--p-part))'],
  ['order', 'calc({part} * -1)', '-1', 'calc(var(--p-part) * -1)'],
  ['font-weight', '{big}', '1000', 'calc(var(--p-big))'],
  ['opacity', '2', '1', '2'],
  ['opacity', '40%', '0.4', '40%'],
  ['transition-duration', '{low}', '0ms', 'calc(var(--p-low))'],
  ['line-height', 'calc(0 - {part})', '0', 'calc(0 - var(--p-part))'],
])('%s: %s comes to %s', (property, text, value, css) => {
  const set = { frame: { [property]: text } };
  expect(valueOf(set, 'frame', property)).toBe(value);
  expect(cssOf(set)).toContain(`${property}: ${css};`);
});

test.each([
  [
    '@ of a negative token is what the property makes of it',
    { width: '{neg}' },
    'calc(@frame.width + 1px)',
    '1px',
  ],
  ['nothing said of a least width is none', {}, 'calc(@frame.min-width + 1px)', '1px'],
  [
    '`em` is that of the part it was said on',
    { 'font-size': '20px', height: '2em' },
    'calc(@frame.height + 1px)',
    '41px',
  ],
  ['a thick line is 5px', { 'border-width': 'thick' }, 'calc(@frame.border-width * 2)', '10px'],
  ['a bare 0 can be calculated with', { 'padding-inline': '0' }, 'calc(@frame.padding-inline + 3px)', '3px'],
  [
    'clamping holds where a calculation is not worked out',
    { height: 'calc(1em - 40px)' },
    'calc(@frame.height + 2px)',
    'calc(max(0px, (1 * 1em) - 40px) + 2px)',
  ],
])('%s', (_, frame, text, value) => {
  const set = { frame: frame as Record<string, string>, inner: { height: text } };
  expect(valueOf(set, 'inner', 'height').replace('1em - 40px', '(1 * 1em) - 40px')).toBe(value);
});

test.each([
  ['0', '1'],
  // No number: where a browser meets a length there, the declaration counts for nothing.
  ['0px', ''],
  ['{none}', ''],
])('a line height of %s makes a share of space %s', (lineHeight, value) => {
  const set = {
    frame: { 'line-height': lineHeight },
    inner: { 'flex-grow': 'calc(@frame.line-height + 1)' },
  };
  expect(valueOf(set, 'inner', 'flex-grow')).toBe(value);
});

test('`inherit` asks the part around where it is said, and nowhere else', () => {
  const rules = [
    {
      id: 'a',
      when: {},
      set: { root: { 'border-width': '7px' }, frame: { height: 'calc(@frame.border-width * 2)' } },
    },
    { id: 'b', when: { pointer: 'over' }, set: { frame: { 'border-width': 'inherit' } } },
  ];
  const system = smallSystem({ component: { axes: [{ id: 'pointer', kind: 'state' }], rules } });
  const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
  const height = (pointer: string): string =>
    resolve(system.components[0]!, { pointer }, context).parts['frame']!['height']!.value;
  expect([height('away'), height('over')]).toEqual(['0px', '14px']);
});

test.each([
  ['gap', '-2px'],
  ['flex-shrink', '-1'],
  ['width', 'revert'],
  ['border-width', 'calc(10% + 1px)'],
  ['order', '1.5'],
])('%s cannot be %s', (property, text) => {
  expect(meaningProblems(systemOf({ frame: { [property]: text } })).map(({ code }) => code)).toEqual([
    expect.stringMatching(/wrong-(value|unit)/),
  ]);
});

test('a percentage of something else is no font size, for nobody knows what it is a share of elsewhere', () => {
  const system = systemOf({
    inner: { 'font-size': 'calc(max(@inner.width, 40px))', width: '25%', 'margin-inline': 'calc(1em * 2)' },
    frame: { height: 'calc(@inner.margin-inline)' },
  });
  const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
  const { inner, frame } = resolve(system.components[0]!, {}, context).parts;
  expect([inner!['font-size']!.value, frame!['height']!.value]).toEqual(['', '']);
});

test('`em` that leads back to the font size it is measured by is a circle', () => {
  const set = { inner: { 'border-width': '1em', 'font-size': 'calc(@inner.border-width * 2)' } };
  expect(meaningProblems(systemOf(set)).map(({ code }) => code)).toContain('reference-cycle');
});
