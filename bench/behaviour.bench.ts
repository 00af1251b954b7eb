/**
 * Behaviour: one letter typed in a form of fifty fields, from the key to the second animation frame after it, with the shipped scripts and on the
 * same form without; what ships of scripts, packed; the shortest way to each situation of the demo and into a space of 10^9 combinations.
 */
import { gzipSync } from 'node:zlib';
import type { WebDriver } from 'selenium-webdriver';
import { reach } from '@periwinkle/core/behaviour/reach';
import { compileSystem, componentNamed } from '@periwinkle/core/components/system';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import type { ComponentDocument } from '@periwinkle/core/documents/component-document';
import { delivery } from '@periwinkle/core/runtime/delivery';
import { openBrowser } from '../e2e/support/browser';
import { Delivery } from '../e2e/support/delivery';
import { demoSystem } from '../e2e/support/demo';
import { serveFolder } from '../e2e/support/serve-folder';

const print = (line: string): void => void process.stdout.write(`${line}\n`);

const FIELDS = 50;
const ROUNDS = 60;

const system = demoSystem();
const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

function form(isAlive: boolean): string {
  const fields = Array.from({ length: FIELDS }, (_, place) =>
    exampleMarkup(system, componentNamed(system, 'text-field')!, { content: 'empty' }, 'vessel', `f${place}`),
  );
  const script = isAlive
    ? `import { attach } from './behaviour/text-field.js';
       for (const root of document.querySelectorAll('form > .qs-text-field')) attach(root);`
    : '';
  return `<!doctype html><html lang="en"><meta charset="utf-8"><link rel="stylesheet" href="css/tokens.css"><link rel="stylesheet" href="css/text-field.css">
<form>${fields.join('')}</form><script type="module">${script} window.ready = true;</script></html>`;
}

/** ms of one letter: the page's own work for it, and the frames until it stands there. */
const TYPE = `
  const done = arguments[arguments.length - 1];
  const control = document.getElementById('f25-control');
  control.focus();
  const began = performance.now();
  document.execCommand('insertText', false, 'a');
  const worked = performance.now() - began;
  requestAnimationFrame(() => requestAnimationFrame(() => done([worked, performance.now() - began])));`;

async function typed(driver: WebDriver, address: string): Promise<readonly [work: number, whole: number]> {
  await driver.get(address);
  await driver.wait(() => driver.executeScript<boolean>('return window.ready === true'), 10_000);
  const found: (readonly [number, number])[] = [];
  for (let round = 0; round < ROUNDS; round++)
    found.push(await driver.executeAsyncScript<readonly [number, number]>(TYPE));
  return [median(found.map(([work]) => work)), median(found.map(([, whole]) => whole))];
}

const delivered = new Delivery(system);
delivered.write('alive.html', form(true));
delivered.write('plain.html', form(false));
const server = await serveFolder(delivered.folder);
const browser = await openBrowser();
try {
  const [ours, native] = [
    await typed(browser.driver, `${server.address}/alive.html`),
    await typed(browser.driver, `${server.address}/plain.html`),
  ];
  print(`One letter in a form of ${FIELDS} fields, median of ${ROUNDS}:`);
  print(`  with scripts   ${ours[0].toFixed(2)} ms of work, ${ours[1].toFixed(1)} ms until it stands there`);
  print(
    `  without        ${native[0].toFixed(2)} ms of work, ${native[1].toFixed(1)} ms until it stands there`,
  );
  print(
    `  ratio          ${(ours[0] / native[0]).toFixed(2)} of work, ${(ours[1] / native[1]).toFixed(2)} on the whole`,
  );
} finally {
  await browser.quit();
  server.close();
  delivered.remove();
}

const files = new Map(delivery(system).map(({ path, text }) => [path, text]));
const packed = (text: string): number => gzipSync(text, { level: 9 }).length;
/** A script and all that it asks for. */
function asked(path: string, found = new Set<string>()): Set<string> {
  const text = files.get(path);
  if (text === undefined || found.has(path)) return found;
  found.add(path);
  for (const [, other = ''] of text.matchAll(/(?:from|import)\s*['"](\.[^'"]+)['"]/g))
    asked(new URL(other, `file:///${path}`).pathname.slice(1), found);
  return found;
}
print('\nScripts, packed (each file by itself):');
print(`  base           ${packed(files.get('behaviour/shared/base.js')!)} B (aim 6144)`);
for (const path of files.keys())
  if (/^behaviour\/[^/]+\.js$/.test(path)) {
    const all = [...asked(path)];
    const whole = all.reduce((sum, each) => sum + packed(files.get(each)!), 0);
    print(
      `  ${path.slice(10, -3).padEnd(14)} ${packed(files.get(path)!)} B, ${whole} B with all it asks for`,
    );
  }

print('\nThe shortest way to each situation:');
for (const component of system.components) {
  if (!component.anatomy.control || !component.document.behaviour) continue;
  const times = component.situations.map(({ region }) => {
    const began = performance.now();
    reach({ system, component, sample: component.samples[0], target: region });
    return performance.now() - began;
  });
  print(
    `  ${component.id.padEnd(14)} ${times.length} situations, the slowest ${Math.max(...times).toFixed(0)} ms`,
  );
}

const path = system.fileOf.get('text-field')!;
const document = system.documents.get(path) as ComponentDocument;
const axes = Array.from({ length: 11 }, (_, place) => ({
  id: `extra-${place}`,
  kind: 'option' as const,
  values: ['a', 'b', 'c', 'd'].map(id => ({ id })),
}));
const wide = compileSystem(
  new Map(system.documents).set(path, { ...document, axes: [...document.axes!, ...axes] }),
);
const field = componentNamed(wide, 'text-field')!;
const target = field.space.indices({ 'extra-7': 'c', size: 'large', validity: 'invalid' });
const region = field.space.axes.map(({ id }, axis) =>
  ['extra-7', 'size', 'validity'].includes(id) ? 1 << target[axis]! : field.space.full[axis]!,
);
const began = performance.now();
const found = reach({ system: wide, component: field, sample: field.samples[0], target: region });
print(
  `\n${field.space.count()} combinations: ${(performance.now() - began).toFixed(0)} ms, ${found.reachable === true ? found.acts.join(', ') : found.because}`,
);
