import { runsOf } from '@periwinkle/core/test/runs';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { WebDriver } from 'selenium-webdriver';
import type { Component } from '@periwinkle/core/components/component';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { namesOf } from '@periwinkle/core/render/names';
import { tokensCssText } from '@periwinkle/core/output/outputs';
import { HELD } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import { geometry, type PartBox } from '@periwinkle/core/layout/geometry';
import type { Combination, Space } from '@periwinkle/core/space/space';
import { inBareBrowser } from './support/session';
import { demoSystem } from './support/demo';
import { TIMEOUT } from './support/patience';

/** Where the core says that parts lie, against the rectangles of the browser: heights, and whatever no text decides. */

const system = demoSystem();
const WIDTH = 320;
/** Half a pixel is what a browser's rounding can come to. */
const NEAR = 0.5;
const SETTINGS = ['roomy', 'compact'].flatMap(density =>
  (['ltr', 'rtl'] as const).flatMap(direction =>
    [16, 32].map(rootFontSize => ({ density, direction, rootFontSize })),
  ),
);
const FONT = createRequire(__filename).resolve(
  '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
);
let driver: WebDriver;

inBareBrowser(browser => ({ driver } = browser));

/** In each setting, others in each. */
const COMBINATIONS = runsOf('places of the demo in a browser');
const TOTAL = { combinations: 0, compared: 0, estimated: 0 };

/** Allowed combinations spread over a space, after so many others. */
function spread(space: Space, count: number, after: number): Combination[] {
  const all = Number(space.axes.reduce((product, axis) => product * axis.values.length, 1));
  return Array.from({ length: count }, (_, number) => {
    let rest = Math.floor((((number + after) * 0.6180339887498949 + 0.1) % 1) * all);
    const indices = space.axes.map(axis => {
      const index = rest % axis.values.length;
      rest = Math.floor(rest / axis.values.length);
      return index;
    });
    return space.written(space.settled(indices).combination);
  });
}

/** Rectangles of elements from the inline start of the first, by selector and number. */
const MEASURE = `
  const [html, wanted, { direction, rootFontSize, density }] = arguments;
  document.documentElement.style.fontSize = rootFontSize + 'px';
  document.documentElement.dataset.density = density;
  document.body.innerHTML = '<div dir="' + direction + '" style="width: ${WIDTH}px; position: relative">' + html + '</div>';
  const root = document.body.firstElementChild.firstElementChild.getBoundingClientRect();
  return wanted.map(([selector, number]) => {
    const found = document.querySelectorAll(selector)[number];
    if (!found) return null;
    const at = found.getBoundingClientRect();
    return [direction === 'rtl' ? root.right - at.right : at.left - root.left, at.top - root.top, at.width, at.height];
  });`;

async function differences(
  component: Component,
  combination: Combination,
  setting: (typeof SETTINGS)[number],
): Promise<string[]> {
  const names = namesOf(system).component(component.id);
  const sample = component.samples[0];
  const tree = fieldTree({
    component,
    names,
    icons: system.icons,
    sample,
    combination,
    mode: 'held',
    id: 'g',
  });
  const places = Object.entries(
    geometry({
      system,
      component,
      combination,
      sample,
      width: WIDTH,
      direction: setting.direction,
      rootFontSize: setting.rootFontSize,
      contexts: { density: setting.density },
    }),
  );
  const wanted = places.map(([name]) => {
    const copy = /:(\d+)\//.exec(name);
    return [`.${names.part(name.replace(/:\d+/, ''))}`, copy ? Number(copy[1]) - 1 : 0] as const;
  });
  const rectangles = await driver.executeScript<(readonly number[] | null)[]>(
    MEASURE,
    fieldHtml(tree),
    wanted,
    setting,
  );
  TOTAL.combinations++;
  return places.flatMap(([name, place], index) => {
    const rectangle = rectangles[index];
    if (!rectangle) return [`${name} is not there`];
    const [x, y, width, height] = rectangle as [number, number, number, number];
    const sides = ['y', 'height', ...(place.estimated ? [] : ['x', 'width'])] as (keyof PartBox)[];
    const seen = { x, y, width, height } as Record<string, number>;
    TOTAL.compared++;
    if (place.estimated) TOTAL.estimated++;
    return sides
      .filter(side => Math.abs(Number(place[side]) - seen[side]!) > NEAR)
      .map(
        side =>
          `${component.id} ${name} ${side}: core ${place[side]}, browser ${seen[side]} in ${JSON.stringify(setting)} ${JSON.stringify(combination)}`,
      );
  });
}

test.each(system.components.map(component => [component.id, component] as const))(
  '%s lies where the core says',
  async (_, component) => {
    await driver.get('about:blank');
    const font = readFileSync(FONT).toString('base64');
    // Without it some machines round each character's advance to whole pixels.
    const even = '* { text-rendering: geometricPrecision !important }';
    const face = `@font-face { font-family: 'Atkinson Hyperlegible Next Variable'; font-weight: 200 800; src: url(data:font/woff2;base64,${font}) }`;
    await driver.executeScript(
      `for (const text of arguments[0]) { const style = document.createElement('style'); style.textContent = text; document.head.append(style); }`,
      [
        face,
        even,
        tokensCssText(system),
        stylesheetText(componentStylesheet({ system, component, scheme: HELD })),
      ],
    );
    await driver.executeAsyncScript(
      `const done = arguments[0]; document.fonts.load('400 16px "Atkinson Hyperlegible Next Variable"').then(() => done())`,
    );
    const lines: string[] = [];
    for (const [index, setting] of SETTINGS.entries())
      for (const combination of spread(component.space, COMBINATIONS, index * COMBINATIONS))
        lines.push(...(await differences(component, combination, setting)));
    expect(lines.slice(0, 12)).toEqual([]);
  },
  TIMEOUT,
);

test('that were combinations of all of them', () => {
  process.stderr.write(
    `geometry: ${TOTAL.compared} places in ${TOTAL.combinations} combinations, ${((100 * TOTAL.estimated) / TOTAL.compared).toFixed(1)} % of them estimated along the line\n`,
  );
  expect(TOTAL.combinations).toBeGreaterThanOrEqual(125 * COMBINATIONS);
});
