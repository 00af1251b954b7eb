import { freshSeed, runsOf } from '@periwinkle/core/test/runs';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { namesOf } from '@periwinkle/core/render/names';
import { HELD } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import type { PartDocument } from '@periwinkle/core/documents/part-document';
import { geometry, type PartBox } from '@periwinkle/core/layout/geometry';
import { smallDocuments } from '@periwinkle/core/test/small-system';
import type { Property } from '@periwinkle/core/css/property';
import { PROPERTIES } from '@periwinkle/core/css/property-registry';
import type { ValueTypeName } from '@periwinkle/core/css/value-types';
import { inBareBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Random trees of parts of every kind, with anything that rules can say: the core against the browser's rectangles. */

const TREES = runsOf('trees in a browser');
const WIDTH = 300;
/** px that a browser's rounding can come to. */
const NEAR = 0.5;
/** Of parts, that may be told as estimated. */
const MOST_ESTIMATED = 0.25;
const FONT = createRequire(__filename).resolve(
  '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
);
const FAMILY = 'Atkinson Hyperlegible Next Variable';
let driver: WebDriver;

inBareBrowser(browser => ({ driver } = browser));

beforeAll(async () => {
  await driver.get('data:text/html,<!doctype html>');
  await driver.executeAsyncScript(
    `const [family, bytes, done] = arguments;
     const face = new FontFace(family, 'url(data:font/woff2;base64,' + bytes + ')', { weight: '200 800' });
     document.fonts.add(face);
     face.load().then(() => done(), done);`,
    FAMILY,
    readFileSync(FONT).toString('base64'),
  );
}, TIMEOUT);

const LENGTHS = ['1lh', '0px', '7px', '30px', '41.5px', '1.5em', '1rem', '4pt', 'calc(1em + 3px)'];
const SHARES = ['25%', '60%', 'calc(50% - 11px)', 'max(20%, 30px)'];
/** Of which only a browser knows how much they are. */
const FAR = ['4vw', '10vh', '2ch'];
const BY_FAR = /^(?:max-)?(?:width|height)$/;

/** What is said of a property, besides its own keywords. */
const BY_KIND: Partial<Record<ValueTypeName, readonly string[]>> = {
  color: ['#123456', 'transparent'],
  length: LENGTHS,
  number: ['0', '1', '0.3', '2.5'],
  integer: ['-1', '0', '2'],
  time: ['120ms'],
  shadow: ['0 1px 2px #0003'],
  lineHeight: ['1', '1.4', '22px', '150%', '0.8'],
  fontWeight: ['400', '600'],
  fontFamily: [`'${FAMILY}'`, 'serif'],
};

const BY_NAME: Readonly<Record<string, readonly string[]>> = {
  'font-size': ['12px', '1.25em', '120%', '2rem', '1.1lh'],
  'letter-spacing': ['1px', '0.1em'],
  'word-spacing': ['3px'],
  'text-indent': ['5px'],
  margin: [...LENGTHS, '-3px', '0 5px', '10%'],
  translate: ['3px', '2px 10%', '-50% 4px'],
  scale: [],
  rotate: [],
  filter: ['blur(1px)'],
  'clip-path': ['inset(2px)'],
  'background-image': ['linear-gradient(#fff, #000)'],
  'border-width': ['1px', '2px', '1.6px', '0.4px', '3.2px 1px'],
};

/** Said now and then of one part among many, and it makes all around it an estimate. */
const RARE: Readonly<Record<string, readonly string[]>> = {
  'aspect-ratio': ['2 / 1'],
  overflow: ['auto', 'scroll'],
  'field-sizing': ['content'],
  scale: ['1.5'],
  rotate: ['5deg'],
  'min-height': [...FAR, 'min-content', 'max-content'],
  'max-height': [...FAR, 'min-content', 'max-content'],
};

const PER_CENT = /^(?:width|height|min-|max-|flex-basis|padding|inset|margin|gap|row-gap|column-gap)/;

/** How often what is usual is drawn for once that something rare is. */
const OFTEN = 14;

function texts({ name, kind, keywords, range: [least] }: Property): readonly string[] {
  const shares = PER_CENT.test(name) ? SHARES : [];
  const own = BY_NAME[name] ?? [...(BY_KIND[kind] ?? []), ...(kind === 'length' ? shares : [])];
  const rare = RARE[name] ?? (BY_FAR.test(name) ? FAR : []);
  const usual = [...own, ...keywords.filter(word => !rare.includes(word))];
  const often = Array.from({ length: OFTEN }, () => usual).flat();
  return [...often, ...rare].filter(text => least < 0 || !text.startsWith('-'));
}

const SAYABLE = PROPERTIES.map(property => [property.name, texts(property), property.scope] as const).filter(
  ([name, some]) => name !== 'present' && some.length > 0,
);
/** What decides on places is drawn more often than colours. */
const OF_PLACES =
  /^(?:width|height|min|max|flex|align|justify|order|padding|margin|inset|position|border-.*width|gap|row-gap|column-gap|line-height|font-size|direction)/;
const WEIGHED = [
  ...SAYABLE,
  ...SAYABLE.filter(([name]) => OF_PLACES.test(name)).flatMap(each => [each, each]),
];

/** What people say of parts of a kind before anything else: a drawing has a size, and of texts half keep to a measure. */
const FIRST: Readonly<Record<string, readonly Readonly<Record<string, string>>[]>> = {
  // One that is given none is drawn as well, where its width or height is said to be auto.
  icon: ['20px', '1.25em', '2rem', '16px', '24px', '1em', '18px', '32px'].flatMap(
    (size): Record<string, string>[] => [
      ...Array.from({ length: 5 }, () => ({ width: size, height: size })),
      { width: size },
      { height: size },
      { width: size, height: '18px' },
    ],
  ),
  text: [{ width: '60px' }, { width: '30%', 'white-space': 'nowrap' }, { width: '9em' }, {}],
  label: [{ width: '80px' }, { 'flex-basis': '70px' }, {}],
  action: [{ width: '44px', height: '32px' }, { width: '60px' }, {}],
};

const ON_LEAVES = WEIGHED.filter(([, , scope]) => scope !== 'box');

const looks = (most: number, isBox: boolean): fc.Arbitrary<Record<string, string>> =>
  fc
    .array(
      fc
        .constantFrom(...(isBox ? WEIGHED : ON_LEAVES))
        .chain(([name, some]) => fc.constantFrom(...some).map(text => [name, text])),
      { maxLength: most },
    )
    .map(entries => Object.fromEntries(entries) as Record<string, string>);

const WORDS = ['Berth', 'Salt wharf north', 'Draught in metres above the water line'];
const CONTROLS = [
  { element: 'input' },
  { element: 'input', type: 'password' },
  { element: 'textarea' },
  { element: 'select' },
  { element: 'button' },
] as const;

interface Shape {
  readonly kind: string;
  readonly children?: readonly Shape[];
}

/** Parts of boxes; most trees are without texts, whose widths are only ever reckoned. */
const shapesOf = (leaves: readonly string[]): fc.Arbitrary<Shape> =>
  fc.letrec<{ box: Shape; any: Shape }>(tie => ({
    any: fc.oneof(
      {
        weight: 5,
        arbitrary: fc.constantFrom(...leaves).map(kind => ({ kind })),
      },
      { weight: 3, arbitrary: tie('box') },
    ),
    box: fc.record({
      kind: fc.constantFrom('row', 'row', 'stack'),
      children: fc.array(tie('any'), { maxLength: 4 }),
    }),
  })).box;

interface Drawn {
  readonly anatomy: PartDocument;
  readonly set: Record<string, Record<string, string>>;
  readonly content: Record<string, string>;
}

const trees: fc.Arbitrary<Drawn> = fc
  .tuple(
    fc.oneof(
      { weight: 30, arbitrary: shapesOf(['icon']) },
      { weight: 1, arbitrary: shapesOf(['icon', 'icon', 'text', 'label', 'action']) },
    ),
    fc.constantFrom(...CONTROLS, null),
    fc.infiniteStream(fc.nat({ max: 2 })),
  )
  .chain(([shape, control, words]) => {
    const names: string[] = [];
    const kinds = new Map<string, string>();
    const content: Record<string, string> = {};
    const part = ({ kind, children = [] }: Shape): PartDocument => {
      const name = names.length === 0 ? 'root' : `p${names.length}`;
      names.push(name);
      kinds.set(name, kind);
      if (kind === 'row' || kind === 'stack') return { part: name, kind, children: children.map(part) };
      content[name] = kind === 'icon' ? 'mark' : WORDS[words.next().value!]!;
      return { part: name, kind, content: name };
    };
    const root = part(shape);
    const isFilled = control !== null;
    if (isFilled) names.push('control');
    const anatomy = isFilled
      ? { ...root, children: [...(root.children ?? []), { part: 'control', kind: 'control', ...control }] }
      : root;
    const look = (name: string): fc.Arbitrary<readonly [string, Record<string, string>]> =>
      fc
        .tuple(
          fc.constantFrom(...(FIRST[kinds.get(name)!] ?? [{}])),
          looks(4, ['row', 'stack'].includes(kinds.get(name)!)),
        )
        .map(([first, own]) => [name, { ...first, ...own }] as const);
    return fc
      .tuple(...names.map(look))
      .map(sets => ({ anatomy: anatomy as PartDocument, set: Object.fromEntries(sets), content }));
  });

const PARTS = { total: 0, estimated: 0 };

function systemOf({ anatomy, set, content }: Drawn): System {
  const root = { 'font-family': `'${FAMILY}'`, position: 'relative', ...set['root'] };
  const document = {
    format: 'periwinkle-component/1',
    id: 'f',
    anatomy,
    rules: [{ id: 'r', when: {}, set: { ...set, root } }],
    samples: [{ id: 's', content }],
  };
  return compileSystem(
    smallDocuments({
      documents: [
        ['components/f.component.json', document],
        ['icons/mark.svg', '<svg viewBox="0 0 8 8"><path d="M0 0h8v8z"/></svg>'],
      ],
    }),
  );
}

/** Where the core has the parts, and where the browser has them. */
async function both(
  tree: Drawn,
  direction: 'ltr' | 'rtl',
): Promise<{ places: Record<string, PartBox>; seen: Record<string, readonly number[]> }> {
  const system = systemOf(tree);
  const [component] = system.components as [System['components'][number]];
  const [sample] = component.samples;
  const names = namesOf(system).component('f');
  const { icons } = system;
  const drawn = fieldTree({ component, names, icons, sample, combination: {}, mode: 'held', id: 'g' });
  const places = geometry({ system, component, combination: {}, sample, width: WIDTH, direction });
  const seen = await driver.executeScript<Record<string, number[]>>(
    `const [css, html, classes, direction] = arguments;
     document.body.innerHTML = '<style>' + css + '</style><div dir="' + direction + '" style="width: ${WIDTH}px">' + html + '</div>';
     const root = document.querySelector('.p-f').getBoundingClientRect();
     return Object.fromEntries(classes.map(([name, css]) => {
       const at = document.querySelector(css).getBoundingClientRect();
       return [name, [direction === 'rtl' ? root.right - at.right : at.left - root.left, at.top - root.top, at.width, at.height]];
     }))`,
    stylesheetText(componentStylesheet({ system, component, scheme: HELD })),
    fieldHtml(drawn),
    Object.keys(places).map(name => [name, `.${names.part(name)}`]),
    direction,
  );
  return { places, seen };
}

test(
  `${TREES} trees lie as in the browser, or are told as estimated`,
  async () => {
    await fc.assert(
      fc.asyncProperty(trees, fc.constantFrom('ltr', 'rtl'), async (tree, direction) => {
        const { places, seen } = await both(tree, direction);
        const wrong: string[] = [];
        for (const [name, { x, y, width, height, estimated }] of Object.entries(places)) {
          PARTS.total++;
          if (estimated) PARTS.estimated++;
          const own = [x, y, width, height];
          if (!estimated && own.some((each, side) => Math.abs(each - seen[name]![side]!) > NEAR))
            wrong.push(`${name}: core ${own.join(' ')}, browser ${seen[name]!.join(' ')}`);
        }
        expect(wrong).toEqual([]);
      }),
      {
        seed: freshSeed('random geometry'),
        numRuns: TREES,
        interruptAfterTimeLimit: TIMEOUT - 60_000,
      },
    );
    process.stderr.write(
      `${((100 * PARTS.estimated) / PARTS.total).toFixed(1)} % of ${PARTS.total} parts estimated\n`,
    );
    expect(PARTS.estimated / PARTS.total).toBeLessThan(MOST_ESTIMATED);
  },
  TIMEOUT,
);
