import { smallSystem } from '../test/small-system';
import { flexibleLengths, type FlexItem } from './flexible-lengths';
import { advanceOf, metricsOf } from './font-metrics';
import { geometry, type GeometryInput, type PartBox } from './geometry';
import { pxOf } from './lengths';

/** Boxes whose places can be worked out on paper; whether a browser has them there too is another test's matter. */

type Sets = Record<string, Record<string, string>>;

const leaf = (part: string): object => ({ part, kind: 'icon', content: part });
const BOXES = {
  part: 'root',
  kind: 'stack',
  children: [{ part: 'line', kind: 'row', children: [leaf('a'), leaf('b'), leaf('c')] }, leaf('d')],
};
const SAMPLE = { id: 's', content: { a: 'mark', b: 'mark', c: 'mark', d: 'mark', words: 'one two three' } };

function placed(
  set: Sets,
  more: Partial<GeometryInput> = {},
  anatomy: object = BOXES,
): Record<string, PartBox> {
  const system = smallSystem({
    documents: [
      [
        'components/f.component.json',
        {
          format: 'periwinkle-component/1',
          id: 'f',
          anatomy,
          rules: [{ id: 'r', when: {}, set }],
          samples: [SAMPLE],
        },
      ],
    ],
  });
  const [component] = system.components as [(typeof system.components)[number]];
  return geometry({ system, component, combination: {}, sample: SAMPLE, width: 200, ...more });
}

const box = ({ x, y, width, height }: PartBox): number[] => [x, y, width, height];
const square = { width: '20px', height: '20px' };

test.each<[string, Sets, Record<string, number[]>]>([
  [
    'a stack puts one below another, with padding and gap',
    { root: { padding: '5px 10px', gap: '4px' }, a: square, d: { height: '6px' } },
    { root: [0, 0, 200, 40], line: [10, 5, 180, 20], a: [10, 5, 20, 20], d: [10, 29, 180, 6] },
  ],
  [
    'what grows shares what is left',
    {
      line: { gap: '10px' },
      a: { ...square, 'flex-grow': '1' },
      b: { ...square, 'flex-grow': '3' },
      c: square,
    },
    { a: [0, 0, 50, 20], b: [60, 0, 110, 20], c: [180, 0, 20, 20] },
  ],
  [
    'what shrinks gives in proportion to its size, down to its least',
    {
      a: { width: '300px', height: '9px', 'flex-shrink': '1', 'min-width': '180px' },
      b: { width: '100px', height: '9px', 'flex-shrink': '1' },
      c: { width: '0px' },
    },
    { a: [0, 0, 180, 9], b: [180, 0, 20, 9] },
  ],
  [
    'alignment along and across',
    {
      line: { height: '40px', 'justify-content': 'space-between', 'align-items': 'center' },
      a: square,
      b: { ...square, 'align-self': 'flex-end' },
      c: { width: '20px' },
    },
    { a: [0, 10, 20, 20], b: [90, 20, 20, 20], c: [180, 20, 20, 0] },
  ],
  [
    'auto margins take what is left before anything is spread',
    { line: { 'justify-content': 'center' }, a: square, b: { ...square, 'margin-inline-start': 'auto' } },
    { a: [0, 0, 20, 20], b: [180, 0, 20, 20] },
  ],
  [
    'lines are broken where one is full, and share the height of the row',
    {
      line: { 'flex-wrap': 'wrap', gap: '2px 4px', height: '62px' },
      a: { width: '150px', height: '20px' },
      b: { width: '60px', height: '20px' },
      c: square,
    },
    { a: [0, 0, 150, 20], b: [0, 32, 60, 20], c: [64, 32, 20, 20] },
  ],
  [
    'a line is full only when something does not fit, however its room was reckoned',
    {
      root: { 'align-items': 'flex-start' },
      line: { 'flex-wrap': 'wrap', padding: '0.1px 56.2px' },
      a: square,
      b: square,
      c: square,
    },
    { a: [56.2, 0.1, 20, 20], b: [76.2, 0.1, 20, 20], c: [96.2, 0.1, 20, 20] },
  ],
  [
    'order is by number, then as written',
    { a: { ...square, order: '2' }, b: { ...square, order: '1' }, c: { ...square, order: '1' } },
    { b: [0, 0, 20, 20], c: [20, 0, 20, 20], a: [40, 0, 20, 20] },
  ],
  [
    'absolute parts lie by their insets in the padding box, and take no room',
    {
      root: { position: 'relative', padding: '7px', 'border-width': '2px' },
      d: { position: 'absolute', 'inset-inline': '10px 25%', 'inset-block-end': '3px', height: '5px' },
      a: { height: '30px' },
    },
    { root: [0, 0, 200, 48], d: [12, 38, 137, 5] },
  ],
  [
    'what is aligned between insets that leave it too little room lies within the frame all the same',
    {
      root: { position: 'relative', height: '100px' },
      d: { position: 'absolute', 'inset-block': '60px', height: '30px', 'align-self': 'center' },
      a: { position: 'absolute', 'inset-block': '0px 90px', height: '30px', 'align-self': 'flex-end' },
      b: { position: 'absolute', 'inset-block': '10px 90px', height: '30px' },
    },
    { d: [100, 45, 0, 30], a: [0, 0, 0, 30], b: [0, 10, 0, 30] },
  ],
  [
    'relative parts are moved, and move nothing',
    { a: { ...square, position: 'relative', inset: '3px' }, b: square },
    { a: [3, 3, 20, 20], b: [20, 0, 20, 20] },
  ],
  [
    'a greatest height makes a stack shrink what may',
    {
      line: { height: '80px', 'min-height': '10px' },
      d: { height: '60px', 'flex-shrink': '0' },
      root: { 'max-height': '90px' },
    },
    { root: [0, 0, 200, 90], line: [0, 0, 200, 30], d: [0, 30, 200, 60] },
  ],
  [
    'a reversed row begins at its other end, a reversed stack at its bottom',
    {
      root: { 'flex-direction': 'column-reverse' },
      line: { 'flex-direction': 'row-reverse' },
      a: { ...square, 'margin-inline-end': '5px' },
      b: square,
      d: { height: '6px' },
    },
    { d: [0, 0, 200, 6], line: [0, 6, 200, 20], a: [175, 6, 20, 20], b: [155, 6, 20, 20] },
  ],
  [
    'borders are whole pixels, and their words have widths',
    {
      root: { 'border-width': 'thick 1.6px 0.4px', padding: '1px' },
      d: { height: '6px' },
    },
    { root: [0, 0, 200, 14], d: [2, 6, 196, 6] },
  ],
  [
    'a share of a height counts where that height is definite',
    {
      root: { height: '100px' },
      line: { height: '50%', 'flex-shrink': '0' },
      a: { width: '20px', height: '40%' },
      b: { width: '20px', height: '50%' },
      d: { height: '10%' },
    },
    { line: [0, 0, 200, 50], a: [0, 0, 20, 20], b: [20, 0, 20, 25], d: [0, 50, 200, 10] },
  ],
  [
    'lines are spread over the height of the row',
    {
      line: { 'flex-wrap': 'wrap', 'align-content': 'space-between', height: '100px' },
      a: { width: '150px', height: '20px' },
      b: { width: '150px', height: '20px' },
      c: { width: '150px', height: '20px' },
    },
    { a: [0, 0, 150, 20], b: [0, 40, 150, 20], c: [0, 80, 150, 20] },
  ],
  [
    'base lines keep their margins',
    {
      line: { 'align-items': 'baseline' },
      a: { ...square, 'margin-block': '9px 1px' },
      b: { width: '20px', height: '30px' },
      c: square,
    },
    { line: [0, 0, 200, 31], a: [0, 10, 20, 20], b: [20, 0, 20, 30], c: [40, 10, 20, 20] },
  ],
  [
    'absolute parts lie in the nearest part around them that is positioned',
    {
      root: { position: 'relative', padding: '10px', 'border-width': '1px' },
      line: { padding: '5px' },
      b: square,
      a: { ...square, position: 'absolute', 'inset-block-start': '2px', 'inset-inline-start': '3px' },
      c: { ...square, position: 'absolute' },
    },
    { a: [4, 3, 20, 20], b: [16, 16, 20, 20], c: [16, 16, 20, 20] },
  ],
  [
    'what is translated moves nothing else',
    { a: { ...square, translate: '50% 3px' }, b: square },
    { a: [10, 3, 20, 20], b: [20, 0, 20, 20] },
  ],
  [
    'what is absent is left out',
    { line: { present: 'false' }, d: square },
    { root: [0, 0, 200, 20], d: [0, 0, 20, 20] },
  ],
])('%s', (_, set, wanted) => {
  const found = placed(set);
  expect(
    Object.fromEntries(Object.keys(wanted).map(name => [name, found[name] && box(found[name])])),
  ).toEqual(wanted);
  if ('line' in set && set['line']!['present'] === 'false') expect(found).not.toHaveProperty('a');
});

test('a control in a stack is as high as it says', () => {
  const found = placed(
    { entry: { height: '80px' }, d: { height: '6px' } },
    {},
    {
      part: 'root',
      kind: 'stack',
      children: [leaf('d'), { part: 'entry', kind: 'control', element: 'textarea' }],
    },
  );
  expect(box(found['entry']!)).toEqual([0, 6, 200, 80]);
  expect(found['root']!.height).toBe(86);
});

test('in a page that is written from right to left all is told from the right', () => {
  const set = { root: { 'border-right-width': '8px', 'border-left-width': '1px' }, a: square, b: square };
  const found = placed(set, { direction: 'rtl' });
  expect([box(found['line']!), box(found['b']!)]).toEqual([
    [8, 0, 191, 20],
    [28, 0, 20, 20],
  ]);
  const turned = placed({ ...set, line: { direction: 'ltr' } }, { direction: 'rtl' });
  expect(turned['a']!.x).toBe(8 + 191 - 20);
});

test('what only a browser knows is told as estimated, with all that hangs on it, and nothing else', () => {
  const estimated = (set: Sets): string[] =>
    Object.entries(placed(set))
      .filter(([, place]) => place.estimated)
      .map(([name]) => name);
  expect(estimated({ a: square })).toEqual([]);
  expect(estimated({ a: { ...square, width: '10vw' }, b: square })).toEqual(['a', 'b', 'c']);
  expect(estimated({ line: { height: '10vh' }, d: square })).toEqual(['root', 'line', 'a', 'b', 'c', 'd']);
  expect(estimated({ d: { height: '10vh' }, root: { height: '60px' } })).toEqual(['d']);
  expect(estimated({ a: { ...square, 'aspect-ratio': '2' }, line: { height: '40px' } })).toEqual([
    'a',
    'b',
    'c',
  ]);
  expect(estimated({ a: { ...square, rotate: '5deg' }, b: square })).toEqual(['a']);
});

describe('text', () => {
  const WORDS = {
    part: 'root',
    kind: 'row',
    children: [{ part: 'words', kind: 'text', content: 'words' }, leaf('a')],
  };
  const said = { 'font-size': '10px', 'line-height': '1.5', 'font-family': 'monospace' };

  test('decides a width, which is then only estimated, and all that comes after it', () => {
    const found = placed({ words: said, a: square }, {}, WORDS);
    expect(found['words']).toMatchObject({ height: 20, estimated: true });
    expect(found['words']!.width).toBeCloseTo(13 * 6.02);
    expect(found['a']).toMatchObject({ estimated: true });
    expect(found['root']).toMatchObject({ estimated: false, height: 20 });
  });

  test('breaks at spaces, and not where it may not', () => {
    const narrow = { ...said, width: '50px', 'flex-shrink': '0' };
    expect(placed({ words: narrow, root: { 'align-items': 'flex-start' } }, {}, WORDS)['words']!.height).toBe(
      30,
    );
    const whole = { ...narrow, 'white-space': 'nowrap' };
    expect(placed({ words: whole, root: { 'align-items': 'flex-start' } }, {}, WORDS)['words']!.height).toBe(
      15,
    );
  });

  test('follows the size of the page’s text', () => {
    const set = { words: { 'font-size': '2rem', 'line-height': '1' } };
    expect(placed(set, { rootFontSize: 32, width: 2000 }, WORDS)['words']!.height).toBe(64);
  });
});

const item = (base: number, more: Partial<FlexItem> = {}): FlexItem => ({
  base,
  edge: 0,
  least: 0,
  most: Infinity,
  grow: 0,
  shrink: 1,
  outside: 0,
  ...more,
});

test.each<[string, FlexItem[], number, number[]]>([
  [
    'nothing grows beyond its most; the others take it',
    [item(10, { grow: 1, most: 20 }), item(10, { grow: 1 })],
    100,
    [20, 80],
  ],
  [
    'factors below one take a part of what is left',
    [item(0, { grow: 0.25 }), item(0, { grow: 0.25 })],
    100,
    [25, 25],
  ],
  ['a basis of nothing shares everything', [item(0, { grow: 1 }), item(0, { grow: 2 })], 90, [30, 60]],
  ['margins take part of the room', [item(10, { grow: 1, outside: 20 })], 100, [80]],
  ['no room and no size is no division', [item(0), item(0)], -10, [0, 0]],
  ['nothing at all', [], 10, []],
])('%s', (_, items, room, sizes) => expect(flexibleLengths(items, 0, room)).toEqual(sizes));

test.each([
  ['calc(50% - 1em)', 90],
  ['2em', 20],
  ['25%', 50],
  ['auto', null],
  ['max-content', null],
  ['calc(nothing)', null],
  ['10vw', null],
])('%s is %s', (text, px) => expect(pxOf(text, { em: 10, rem: 16, whole: 200 })).toBe(px));

test('a percentage of what is not known is nothing', () =>
  expect(pxOf('calc(10% + 1px)', { em: 10, rem: 16, whole: null })).toBeNull());

test('fonts: the first family that is known, any case and quotes; figures of one width; other scripts by the mean', () => {
  const known = metricsOf('"Nobody Knows", \'Atkinson Hyperlegible Next\', serif');
  expect(known.ascent).toBe(0.984);
  expect(metricsOf('Nobody Knows')).toBe(metricsOf('sans-serif'));
  const set = { weight: 400, isTabular: false };
  expect(advanceOf('1', known, set)).toBeLessThan(advanceOf('8', known, set));
  const tabular = { ...set, isTabular: true };
  expect(advanceOf('1', known, tabular)).toBe(advanceOf('8', known, tabular));
  expect(advanceOf('港', known, set)).toBeCloseTo(known.advance * known.kerned);
  expect(advanceOf('m', known, { ...set, weight: 700 })).toBeGreaterThan(advanceOf('m', known, set));
});
