import { freshSeed, runsOf } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser, type Browser } from './support/browser';
import { Line } from './support/line';
import { TIMEOUT } from './support/patience';

/**
 * Four windows of two people, whose lines are cut or fall silent at any moment, edit one field and take back what they did. Once they are brought
 * to rest, all screens show what the server has, and each edit is there once, was taken back, was decided against, or is shown as not placed.
 */

/** How often they begin anew. */
const RUNS = runsOf('four windows');
const ACTS = 24;
const DOCUMENT = 'components/text-field.component.json';

interface Person {
  readonly browser: Browser;
  readonly line: Line;
  readonly windows: readonly string[];
}

let application: Application;
let address: string;
let people: Person[];

beforeAll(async () => {
  application = new Application();
  address = await application.start();
  const { hostname, port } = new URL(address);
  people = [];
  for (let person = 0; person < 2; person++) {
    const line = new Line(hostname, Number(port));
    await line.open();
    const browser = await openBrowser();
    const windows = [];
    for (let each = 0; each < 2; each++) {
      if (each > 0) await browser.driver.switchTo().newWindow('window');
      windows.push(await browser.driver.getWindowHandle());
      await browser.driver.get(`http://127.0.0.1:${line.port}/quayside/text-field`);
      await find(browser.driver, '.sheets');
      await browser.driver.executeScript(ABOUT);
    }
    people.push({ browser, line, windows });
  }
}, TIMEOUT);
afterAll(async () => {
  for (const { browser, line } of people) {
    await browser.quit();
    await line.cut();
  }
  await application?.remove();
}, TIMEOUT);

/** What is done in a window, and what has become of its edits there. */
const ABOUT = `
  const waiting = () => periwinkle.sync.copy.pending.filter(({ step }) => !step).map(({ label }) => label);
  window.rules = () => periwinkle.sync.copy.shownAt('${DOCUMENT}').rules;
  window.given = new Set();
  window.doing = {
    insert: (label, at) => periwinkle.edit('${DOCUMENT}', [
      { op: 'add', path: '/rules/' + (at % (rules().length + 1)), value: { id: label, when: {}, set: { frame: { 'border-color': '#123456' } } } },
    ], label),
    reword: label => periwinkle.edit('${DOCUMENT}', [{ op: 'replace', path: '/summary', value: label }], label),
    rename: (label, at) => {
      const own = rules().flatMap(({ id }, index) => (/^w\\\\d+$/.test(id) ? [index] : []));
      if (own.length === 0) return false;
      periwinkle.edit('${DOCUMENT}', [
        { op: 'replace', path: '/rules/' + own[at % own.length] + '/set/frame/border-color', value: '#' + label.slice(1).padStart(6, '0') },
      ], label);
    },
    undo: () => {
      const before = waiting();
      periwinkle.step('undo');
      const after = waiting();
      // What waits is taken back where it waits, and never comes to be stored.
      for (const label of before) if (!after.includes(label)) given.add(label);
      // What may be stored already is taken back behind that; where it meets another first, nobody is asked.
      const { pending } = periwinkle.sync.copy;
      for (const { step } of pending)
        for (const { changeId, label } of pending) if (step && changeId === step.change) given.add(label);
    },
    redo: () => void periwinkle.step('redo'),
    decide: (_, at) => {
      const [meeting] = periwinkle.state().meetings;
      if (!meeting) return false;
      const keep = ['mine', 'theirs', 'aside'][at % 3];
      if (keep === 'theirs') given.add(meeting.mine.label);
      periwinkle.decide(meeting, keep);
    },
  };`;

const IN_WINDOWS = [
  'insert',
  'insert',
  'insert',
  'reword',
  'rename',
  'undo',
  'undo',
  'redo',
  'decide',
] as const;
const ON_LINES = ['cut', 'silent', 'open', 'open', 'wait'] as const;

const acts = fc.array(
  fc.record({
    window: fc.nat(3),
    act: fc.oneof(
      { weight: 3, arbitrary: fc.constantFrom(...IN_WINDOWS) },
      { weight: 1, arbitrary: fc.constantFrom(...ON_LINES) },
    ),
    at: fc.nat(100),
  }),
  { minLength: ACTS, maxLength: ACTS },
);

async function inWindow<Value>(window: number, script: string, ...args: readonly unknown[]): Promise<Value> {
  const { browser, windows } = people[window >> 1]!;
  await browser.driver.switchTo().window(windows[window % 2]!);
  return browser.driver.executeScript<Value>(script, ...args);
}

const EVERY = [0, 1, 2, 3];

/** Gives the labels of the edits that were made. */
async function play(
  run: number,
  done: typeof acts extends fc.Arbitrary<infer Acts> ? Acts : never,
): Promise<string[]> {
  const made: string[] = [];
  for (const [index, { window, act, at }] of done.entries()) {
    const { line } = people[window >> 1]!;
    if (act === 'cut') await line.cut();
    else if (act === 'open') await reopened(line);
    else if (act === 'silent') line.fallSilent();
    else if (act === 'wait') await new Promise(resolve => setTimeout(resolve, at * 10));
    else {
      const label = `w${run * 100 + index}`;
      const is = await inWindow<boolean | null>(
        window,
        'return doing[arguments[0]](arguments[1], arguments[2])',
        act,
        label,
        at,
      );
      if (is !== false && ['insert', 'reword', 'rename'].includes(act)) made.push(label);
    }
  }
  return made;
}

async function reopened(line: Line): Promise<void> {
  await line.cut();
  await line.open();
}

const AT_REST = `(() => {
  const { pending, meetings } = periwinkle.sync.copy;
  const [meeting] = meetings;
  if (meeting) doing.decide(null, meeting.mine.label.length + meetings.length);
  return pending.length + meetings.length === 0;
})()`;

/** Everything that can be said is said, and heard by all. */
async function bringToRest(): Promise<void> {
  for (const { line } of people) await reopened(line);
  for (const window of EVERY) await inWindow(window, `dispatchEvent(new Event('online'))`);
  const inDriver = (window: number): WebDriver => people[window >> 1]!.browser.driver;
  // A decision in one window may make another's meet again.
  for (let round = 0; round < 3; round++)
    for (const window of EVERY) {
      await inWindow(window, '');
      await eventually(inDriver(window), AT_REST);
    }
  const whole = (await (await fetch(`${address}/api/systems/quayside`)).json()) as { lastEdit: number };
  const { lastEdit } = whole;
  for (const window of EVERY) {
    await inWindow(window, '');
    await eventually(inDriver(window), `periwinkle.sync.copy.lastEdit >= ${lastEdit}`);
  }
}

const documentThere = async (): Promise<unknown> =>
  (await fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`)).json();

/** Words of all edits that are stored, without the steps by which they were taken back. */
async function storedLabels(): Promise<string[]> {
  const edits = await (await fetch(`${address}/api/systems/quayside/edits?after=0`)).json();
  return (edits as { kind: string; label: string }[]).flatMap(({ kind, label }) =>
    kind === 'edit' ? [label] : [],
  );
}

interface Rule {
  readonly id: string;
}

test(
  `${RUNS} times four windows come to rest with what the server has, each edit once`,
  async () => {
    const seed = freshSeed('four windows');
    for (const [run, done] of fc.sample(acts, { seed, numRuns: RUNS }).entries()) {
      const made = await play(run, done);
      await bringToRest();
      const there = await documentThere();
      for (const window of EVERY)
        expect(
          await inWindow(
            window,
            `return JSON.parse(JSON.stringify(periwinkle.state().edited.documents.get('${DOCUMENT}')))`,
          ),
        ).toEqual(there);
      const ids = (there as { rules: Rule[] }).rules.map(({ id }) => id);
      expect(ids.length).toBe(new Set(ids).size);
      const stored = await storedLabels();
      const aside: string[] = [];
      const given: string[] = [];
      for (const window of EVERY) {
        aside.push(
          ...(await inWindow<string[]>(
            window,
            'return periwinkle.state().unplaced.map(({ edit }) => edit.label)',
          )),
        );
        given.push(...(await inWindow<string[]>(window, 'return [...given]')));
      }
      const count = (label: string): number => stored.filter(each => each === label).length;
      expect(made.filter(label => count(label) > 1)).toEqual([]);
      expect(
        made.filter(label => count(label) + Number(aside.includes(label)) === 0 && !given.includes(label)),
      ).toEqual([]);
    }
  },
  Math.max(TIMEOUT, RUNS * 60_000),
);
