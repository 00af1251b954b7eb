import { demoDocuments } from '../../test/demo';
import type { Patch } from '../../patch/operations';
import { applyPatch } from '../../patch/patch';
import { compileSystem, componentNamed } from '../../components/system';
import { componentStylesheet } from '../stylesheet/component-css';
import { HELD, SHIPPED } from '../stylesheet/selector-scheme';
import { stylesheetText } from '../stylesheet/stylesheet';

/** A stylesheet is made again when, and only when, what it asked of the tokens has another answer. */

const demo = demoDocuments();
const edited = (file: string, patch: Patch): ReadonlyMap<string, unknown> =>
  new Map(demo).set(file, applyPatch(demo.get(file), patch).document);
const sheetOf = (documents: ReadonlyMap<string, unknown>, scheme = HELD) => {
  const system = compileSystem(documents);
  return componentStylesheet({ system, component: componentNamed(system, 'text-field')!, scheme });
};
const RAW = 'tokens/raw.tokens.json';
const LINE = '/raw/line/hair/$value';

test.each([HELD, SHIPPED])(
  'another value of a token that only stands in a custom property leaves it',
  scheme => {
    const other = edited(RAW, [{ op: 'replace', path: LINE, value: { value: 3, unit: 'px' } }]);
    expect(sheetOf(other, scheme)).toBe(sheetOf(demo, scheme));
  },
);

test.each<[string, Patch]>([
  ['beyond the range of its property', [{ op: 'replace', path: LINE, value: { value: -3, unit: 'px' } }]],
  [
    'under another name',
    [
      { op: 'move', from: '/raw/line/hair', path: '/raw/line/thin' },
      { op: 'add', path: '/raw/line/hair', value: { $root: { $value: '{raw.line.thin}' } } },
    ],
  ],
])('a token %s makes it anew, as a fresh system does', (_, patch) => {
  const other = edited(RAW, patch);
  const sheet = sheetOf(other);
  expect(stylesheetText(sheet)).toBe(stylesheetText(sheetOf(structuredClone(other))));
});

test('and back again it is as it was', () => {
  const before = stylesheetText(sheetOf(demo));
  const wild = sheetOf(edited(RAW, [{ op: 'replace', path: LINE, value: { value: -3, unit: 'px' } }]));
  expect(stylesheetText(wild)).not.toBe(before);
  expect(stylesheetText(sheetOf(demo))).toBe(before);
});
