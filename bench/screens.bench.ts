/**
 * Screens at size: Quayside with 5,000 tokens more. How long the page is deaf at most while one types a filter or a value on the tokens
 * screen, what an edit of a token costs on the contents page, and how long both take to open, against Quayside as it is.
 */
import type { WebDriver } from 'selenium-webdriver';
import { Application } from '../e2e/support/application';
import { openBrowser } from '../e2e/support/browser';
import { withManyTokens } from '../e2e/support/many-tokens';
import { median } from './support/generated';

const TASK_MS = 50;
const FRAME_MS = 16;
const MANY = 5000;
/** Script: the longest time in which no other task came to its turn, from an act until so long after it, in ms. */
const LONGEST = `
  window.longest = (act, until = 700) => new Promise(resolve => {
    const channel = new MessageChannel();
    const start = performance.now();
    let last = start, most = 0;
    channel.port1.onmessage = () => {
      const now = performance.now();
      most = Math.max(most, now - last);
      last = now;
      if (now - start > until) resolve(most);
      else channel.port2.postMessage(0);
    };
    channel.port2.postMessage(0);
    setTimeout(act, 20);
  });`;

const longest = (driver: WebDriver, act: string): Promise<number> =>
  driver.executeAsyncScript<number>(
    `const done = arguments[arguments.length - 1]; longest(() => { ${act} }).then(done)`,
  );

/** Time of the script of an act, what it has the screens draw anew included, in ms. */
const scripted = (driver: WebDriver, act: string): Promise<number> =>
  driver.executeAsyncScript<number>(
    `const done = arguments[arguments.length - 1];
     setTimeout(() => {
       const start = performance.now();
       ${act};
       queueMicrotask(() => {
         const time = performance.now() - start;
         setTimeout(() => done(time), 700);
       });
     }, 20);`,
  );

/** Script: types into an input as a person does, one letter more. */
const type = (input: string, text: string): string =>
  `const input = document.querySelector('${input}');
   Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, ${JSON.stringify(text)});
   input.dispatchEvent(new Event('input', { bubbles: true }));`;

interface Timings {
  readonly filter: number;
  readonly value: number;
  readonly tokensOpen: number;
  readonly contentsOpen: number;
  readonly contentsEdit: number;
}

async function opened(driver: WebDriver, url: string, ready: string): Promise<number> {
  await driver.get('about:blank');
  await driver.get(url);
  await driver.wait(() => driver.executeScript(`return ${ready}`), 60_000);
  await driver.executeScript(LONGEST);
  const time = await driver.executeScript<number>(
    `return performance.now() - performance.getEntriesByType('navigation')[0].startTime`,
  );
  // What comes with opening, fonts and the worker's start, is no part of what is measured then.
  await new Promise(resolve => setTimeout(resolve, 2000));
  return time;
}

async function measured(driver: WebDriver, address: string, id: string): Promise<Timings> {
  const filters: number[] = [];
  const values: number[] = [];
  const edits: number[] = [];
  const tokensOpen = await opened(
    driver,
    `${address}/${id}/tokens?token=color.line.rest`,
    `document.querySelector('.tokens-table tbody tr [class=entry]') !== null`,
  );
  for (const text of ['r', 'ra', 'raw', 'ra', 'r', ''])
    filters.push(await longest(driver, type('.name-filter', text)));
  await driver.executeScript(`document.querySelector('[data-token="color.line.rest"] .entry').click()`);
  await driver.wait(
    () => driver.executeScript(`return document.querySelector('.editor input') !== null`),
    10_000,
  );
  for (const text of ['#1', '#12', '#123', '#1234', '#12345', '#123456'])
    values.push(await longest(driver, type('.editor input', text)));
  const contentsOpen = await opened(
    driver,
    `${address}/${id}`,
    `document.querySelectorAll('.contents .specimen').length >= 15`,
  );
  for (let round = 0; round < 15; round++) {
    const value = `{ colorSpace: 'srgb', components: [${round / 20}, 0.04, 0.04] }`;
    edits.push(
      await scripted(
        driver,
        `periwinkle.edit('tokens/day.tokens.json', [{ op: 'replace', path: '/color/line/rest/$value', value: ${value} }], 'bench')`,
      ),
    );
  }
  return {
    filter: Math.max(...filters),
    value: Math.max(...values),
    tokensOpen,
    contentsOpen,
    contentsEdit: median(edits),
  };
}

const application = new Application();
const address = await application.start();
const response = await fetch(`${address}/api/systems`, {
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify({ documents: withManyTokens('many', MANY) }),
});
if (!response.ok) throw new Error(await response.text());
const browser = await openBrowser();
try {
  await measured(browser.driver, address, 'quayside');
  const few = await measured(browser.driver, address, 'quayside');
  const many = await measured(browser.driver, address, 'many');
  const line = (words: string, name: keyof Timings, aim: string): string =>
    `  ${words}: ${many[name].toFixed(0)} ms (${aim}), ${(many[name] / few[name]).toFixed(2)} times\n`;
  process.stdout.write(
    `Quayside with 5,000 tokens more, against Quayside (longest task unless said otherwise)\n${[
      line('a letter typed into the filter of the tokens', 'filter', `aim ${TASK_MS}`),
      line('a letter typed into a value', 'value', `aim ${TASK_MS}`),
      line(
        'the script of an edit of a token on the contents page, median',
        'contentsEdit',
        `aim ${FRAME_MS}`,
      ),
      line('the tokens opened, until a row is there', 'tokensOpen', 'no aim'),
      line('the contents opened, until all specimens are there', 'contentsOpen', 'no aim'),
    ].join('')}`,
  );
} finally {
  await browser.quit();
  await application.remove();
}
