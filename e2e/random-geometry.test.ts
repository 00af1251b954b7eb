import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import { compileSystem } from '@periwinkle/core/components/system';
import { componentStylesheet } from '@periwinkle/core/emit/component-css';
import { fieldTree } from '@periwinkle/core/emit/field-tree';
import { fieldHtml } from '@periwinkle/core/emit/html';
import { namesOf } from '@periwinkle/core/emit/names';
import { HELD } from '@periwinkle/core/emit/selector-scheme';
import { stylesheetText } from '@periwinkle/core/emit/stylesheet';
import { geometry } from '@periwinkle/core/geometry/geometry';
import { smallDocuments } from '@periwinkle/core/test/small-system';
import { inBareBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Random trees of boxes without text, with everything that decides where they lie: the core against the browser's rectangles. */

const TREES = 400;
/** Other trees can be asked for. */
const SEED = Number(process.env['PERIWINKLE_SEED'] ?? 20);
const WIDTH = 300;
const NEAR = 0.5;
let driver: WebDriver;

inBareBrowser(browser => ({ driver } = browser));

const TEXTS: Readonly<Record<string, readonly string[]>> = {
  width: ['40px', '25%', '3em', 'calc(50% - 11px)', 'auto', '130px'],
  height: ['18px', '2em', 'auto', '41.5px'],
  'min-width': ['30px', '90px'],
  'max-width': ['60px', '40%', 'none'],
  'min-height': ['12px', '33px'],
  'max-height': ['25px', 'none'],
  'flex-grow': ['0', '1', '2.5', '0.3'],
  'flex-shrink': ['0', '1', '3'],
  'flex-basis': ['auto', '0px', '50px'],
  'align-self': ['auto', 'center', 'flex-end', 'flex-start', 'stretch'],
  order: ['-1', '2'],
  padding: ['3px', '2px 7px'],
  margin: ['4px', '0 5px', '-3px'],
  'margin-inline-start': ['auto', '6px'],
  'margin-block-end': ['auto', '2px'],
  'border-width': ['2px'],
  'border-left-width': ['5px'],
};
const ON_BOXES: Readonly<Record<string, readonly string[]>> = {
  'flex-direction': ['row', 'column'],
  'flex-wrap': ['nowrap', 'wrap'],
  'align-items': ['stretch', 'center', 'flex-end', 'flex-start'],
  'justify-content': ['flex-start', 'center', 'flex-end', 'space-between'],
  gap: ['5px', '3px 8px'],
  position: ['relative'],
};
const ABSOLUTE: Readonly<Record<string, readonly string[]>> = {
  'inset-inline-start': ['4px', '10%'],
  'inset-inline-end': ['6px'],
  'inset-block-start': ['3px'],
  'inset-block-end': ['0px', '5px'],
};

const some = (
  table: Readonly<Record<string, readonly string[]>>,
  most: number,
): fc.Arbitrary<Record<string, string>> =>
  fc
    .subarray(Object.keys(table), { maxLength: most })
    .chain(names =>
      fc.tuple(...names.map(name => fc.constantFrom(...table[name]!).map(text => [name, text] as const))),
    )
    .map(entries => Object.fromEntries(entries));

/** Columns that are broken into several are not laid out. */
function withoutBrokenColumns(
  set: Record<string, string>,
  kind = set['flex-direction'],
): Record<string, string> {
  const { 'flex-wrap': _, ...rest } = set;
  return kind === 'row' ? set : rest;
}

const BOXES = ['root', 'outer', 'inner'];
const LEAVES = ['a', 'b', 'c', 'd', 'e'];
const ANATOMY = {
  part: 'root',
  kind: 'stack',
  children: [
    {
      part: 'outer',
      kind: 'row',
      children: [
        { part: 'a', kind: 'icon', content: 'i' },
        {
          part: 'inner',
          kind: 'row',
          children: ['b', 'c'].map(part => ({ part, kind: 'icon', content: 'i' })),
        },
        { part: 'd', kind: 'icon', content: 'i' },
      ],
    },
    { part: 'e', kind: 'icon', content: 'i' },
  ],
};
const SAMPLE = { id: 's', content: { i: 'mark' } };

const sets = fc.record(
  Object.fromEntries([
    ...BOXES.map(name => [
      name,
      fc
        .tuple(some(TEXTS, name === 'root' ? 0 : 3), some(ON_BOXES, 4))
        .map(([own, box]) => withoutBrokenColumns({ ...own, ...box })),
    ]),
    ...LEAVES.map(name => [name, some(TEXTS, 5)]),
    [
      'e',
      fc.oneof(
        some(TEXTS, 4),
        fc
          .tuple(some(TEXTS, 3), some(ABSOLUTE, 3))
          .map(([own, at]) => ({ ...own, ...at, 'align-self': 'auto', position: 'absolute' })),
      ),
    ],
  ]) as Record<string, fc.Arbitrary<Record<string, string>>>,
);

test(
  `${TREES} trees lie as in the browser`,
  async () => {
    await driver.get('about:blank');
    const lines: string[] = [];
    let index = 0;
    for (const set of fc.sample(sets, { seed: SEED, numRuns: TREES })) {
      const direction = index++ % 2 === 0 ? 'ltr' : 'rtl';
      const root = { ...set['root'], position: 'relative' };
      const system = compileSystem(
        smallDocuments({
          documents: [
            [
              'components/f.component.json',
              {
                format: 'periwinkle-component/1',
                id: 'f',
                anatomy: ANATOMY,
                rules: [{ id: 'r', when: {}, set: { ...set, root } }],
                samples: [SAMPLE],
              },
            ],
            ['icons/mark.svg', '<svg viewBox="0 0 8 8"><path d="M0 0h8v8z"/></svg>'],
          ],
        }),
      );
      const component = system.components[0]!;
      const names = namesOf(system).component('f');
      const tree = fieldTree({
        component,
        names,
        icons: new Map(),
        sample: SAMPLE,
        combination: {},
        mode: 'held',
        id: 'g',
      });
      const places = geometry({
        system,
        component,
        combination: {},
        sample: SAMPLE,
        width: WIDTH,
        direction,
      });
      const seen = await driver.executeScript<Record<string, number[]>>(
        `const [css, html, classes, direction] = arguments;
         document.body.innerHTML = '<style>' + css + '</style><div dir="' + direction + '" style="width: ${WIDTH}px">' + html + '</div>';
         const root = document.querySelector('.p-f').getBoundingClientRect();
         return Object.fromEntries(classes.map(([name, css]) => {
           const at = document.querySelector(css).getBoundingClientRect();
           return [name, [direction === 'rtl' ? root.right - at.right : at.left - root.left, at.top - root.top, at.width, at.height]];
         }))`,
        stylesheetText(componentStylesheet({ system, component, scheme: HELD })),
        fieldHtml(tree),
        Object.keys(places).map(name => [name, `.${names.part(name)}`]),
        direction,
      );
      for (const [name, { x, y, width, height }] of Object.entries(places)) {
        const own = [x, y, width, height];
        if (own.some((each, side) => Math.abs(each - seen[name]![side]!) > NEAR))
          lines.push(
            `${name}: core ${own.join(' ')}, browser ${seen[name]!.join(' ')} in ${direction} ${JSON.stringify({ ...set, root })}`,
          );
      }
    }
    expect(lines.slice(0, 3)).toEqual([]);
  },
  TIMEOUT,
);
