import { randomly } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { beginning, moments } from '@periwinkle/core/behaviour/play';
import { performAct } from '@periwinkle/core/behaviour/user-input';
import { readAct, RefusedAct } from '@periwinkle/core/behaviour/acts';
import { seenAt, type PlayedField } from '@periwinkle/core/behaviour/rendered-field';
import type { FieldState } from '@periwinkle/core/behaviour/field-state';
import type { Plan } from '@periwinkle/core/behaviour/plan';
import { named } from '@periwinkle/core/behaviour/make-plan';
import { combinationAt } from '@periwinkle/core/behaviour/derived-states';
import { componentNamed } from '@periwinkle/core/components/system';
import type { Component } from '@periwinkle/core/components/component';
import { announcedParts } from '@periwinkle/core/render/accessibility';
import type { System } from '@periwinkle/core/components/system';
import { plainFields } from '@periwinkle/core/test/plain-fields';
import { BehaviourHands, behaviourPage, Unreachable, type Found } from './support/behaviour-page';
import { eventually, openBrowser, type Browser } from './support/browser';
import { Delivery } from './support/delivery';
import { demoSystem } from './support/demo';
import { serveFolder } from './support/serve-folder';
import { TIMEOUT } from './support/patience';

/** Acts done with real pointer and keys on what ships come to the same as in the core. */

const demo = demoSystem();
const plain = plainFields();
const delivery = new Delivery(demo);
const plainDelivery = new Delivery(plain);
let browser: Browser;
let servers: Awaited<ReturnType<typeof serveFolder>>[];

beforeAll(async () => {
  browser = await openBrowser();
  servers = [await serveFolder(delivery.folder), await serveFolder(plainDelivery.folder)];
  await (browser.driver as Driver).sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
  });
}, TIMEOUT);
afterAll(async () => {
  await browser.quit();
  servers.forEach(server => server.close());
  delivery.remove();
  plainDelivery.remove();
}, TIMEOUT);

interface Doing {
  readonly system: System;
  readonly component: Component;
  readonly sample: string | undefined;
  readonly set: Readonly<Record<string, string>>;
  readonly acts: readonly string[];
}

/** Does acts on a page of their own, and in the core; gives which could be done, and what was found after each. */
async function done({
  system,
  component,
  sample,
  set,
  acts,
}: Doing): Promise<{ acts: string[]; found: Found[] }> {
  const given = component.samples.find(({ id }) => id === sample) ?? component.samples[0];
  const { field, state: start } = beginning({ system, component, sample: given, set });
  const [folder, server] = system === demo ? [delivery, servers[0]!] : [plainDelivery, servers[1]!];
  folder.write('page.html', behaviourPage(system, component, given?.id, set, start.value));
  await browser.driver.get(`${server.address}/page.html`);
  await eventually(browser.driver, 'window.ready === true');
  const hands = new BehaviourHands(browser.driver, component, system, [...announcedParts(component)]);
  const found: Found[] = [];
  const did: string[] = [];
  let state = start;
  for (const text of acts) {
    const next = after(field, state, text);
    if (!next) continue;
    try {
      await hands.do(text);
    } catch (error) {
      if (error instanceof Unreachable) continue;
      throw error;
    }
    state = next;
    did.push(text);
    const seen = await hands.read();
    const isPointed = ['point', 'press', 'hold', 'release'].includes(readAct(text).kind);
    found.push(
      !isPointed || isUnsteady(field.plan, state)
        ? { ...seen, combination: { ...seen.combination, pointer: pointerIn(field, state) } }
        : seen,
    );
  }
  return { acts: did, found };
}

/**
 * Difference that a browser forces: what lies in a label is within it, and HTML has what it labels match `:hover`, too. Chromium lets it match or not by
 * the way on which the pointer has come. And what other acts bring under a pointer that stays counts as pointed at only as it moves.
 */
function isUnsteady({ targets, axes, control }: Plan, { pointer: { part } }: FieldState): boolean {
  const target = part === null || part === control?.part ? undefined : targets[part];
  const isInLabel = target?.kind === 'control' || (target?.kind === 'button' && target.isInFrame);
  return isInLabel && axes.some(({ id }) => id === 'pointer');
}

const pointerIn = ({ component, plan }: PlayedField, state: FieldState): string =>
  component.space.written(combinationAt(plan, state))['pointer'] ?? '';

/** Where an act leads in the core; `null` where it cannot be done, or not by one pair of hands. */
function after(field: PlayedField, state: FieldState, text: string): FieldState | null {
  const what = readAct(text);
  const { pointer, asking } = state;
  if (pointer.isDown && ['press', 'hold', 'point'].includes(what.kind)) return null;
  // A browser lets go of what is held down once a key presses it, too.
  if (pointer.isDown && what.kind === 'key' && ['Enter', ' '].includes(what.key)) return null;
  // What is selected stays so until a press on it ends.
  if (pointer.isDown && ['type', 'paste'].includes(what.kind)) return null;
  if (what.kind === 'release' && !pointer.isDown) return null;
  if (what.kind === 'answer' && !asking) return null;
  try {
    return performAct(field.plan, state, named(field.component, what), at => seenAt(field, at)).state;
  } catch (error) {
    if (error instanceof RefusedAct) return null;
    throw error;
  }
}

/** The same in the core. */
function inCore({ system, component, sample, set, acts }: Doing): Found[] {
  const given = component.samples.find(({ id }) => id === sample) ?? component.samples[0];
  return moments({ system, component, sample: given, set, acts }).map(({ played }) => ({
    value: played.value,
    focus: played.focus,
    combination: played.combination,
    messages: played.messages,
    announced: played.announced,
  }));
}

/** Line by line, with of the combination what is not at rest. */
const told = ({ component, acts }: Doing, found: readonly Found[]): string[] =>
  found.map(({ value, focus, combination, messages, announced }, place) => {
    const states = component.space.axes
      .filter(({ id, kind, values, rest }) => kind === 'state' && combination[id] !== values[rest]!.id)
      .map(({ id }) => `${id} ${combination[id]}`);
    return [
      acts[place],
      JSON.stringify(value),
      focus ?? '—',
      ...states,
      ...messages,
      ...announced.map(each => `! ${each}`),
    ].join(' · ');
  });

const walkthroughs = demo.components.flatMap(component =>
  component.anatomy.control
    ? (component.document.walkthroughs ?? []).map(
        ({ id, sample, set = {}, acts }) =>
          [component.id, id, { system: demo, component, sample, set, acts }] as const,
      )
    : [],
);

test.each(walkthroughs)(
  'walkthrough %s: %s',
  async (_, __, doing) => {
    const { acts, found } = await done(doing);
    expect(acts).toEqual(doing.acts);
    expect(told(doing, found)).toEqual(told(doing, inCore(doing)));
  },
  TIMEOUT,
);

/** Rows of the keyboard tables of the ARIA Authoring Practices, as acts; that they come to what the tables say is told in the core's own tests. */
const ROWS: Readonly<Record<string, readonly string[]>> = {
  berth: [
    ...['ArrowDown', 'Enter', 'Space', 'ArrowUp', 'Home', 'End', 'Alt+ArrowDown', 's'].map(
      key => `key ${key}`,
    ),
    'type sal · key Enter',
    'key ArrowDown · key Escape',
    'key ArrowDown · key ArrowDown · key Enter',
    'key ArrowDown · key ArrowDown · key Space',
    'key End · key ArrowDown · key PageUp · key PageDown',
    'key ArrowDown · key Alt+ArrowUp',
    'key ArrowDown · key ArrowDown · key Tab',
    'key s · key ArrowDown · key Home · key End',
    'key r · key r · key r',
    'type ro · wait 600ms · key s',
  ],
  crew: ['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Home', 'End'].map(key => `key ${key}`),
  passphrase: ['key Tab · key Space', 'key Tab · key Enter', 'key Tab · key Tab', 'key Tab · key Shift+Tab'],
  'find-vessel': ['key Escape', 'key Tab · key Space', 'key Tab · key Enter'],
};

test.each(Object.entries(ROWS))(
  'every row of the keyboard table: %s',
  async (id, rows) => {
    const component = componentNamed(demo, id)!;
    for (const row of rows) {
      const acts = ['press control', ...(id === 'berth' ? ['key Escape'] : []), ...row.split(' · ')];
      const doing = { system: demo, component, sample: component.samples[0]?.id, set: {}, acts };
      const { acts: did, found } = await done(doing);
      expect(did).toEqual(acts);
      expect(told(doing, found)).toEqual(told(doing, inCore(doing)));
    }
  },
  TIMEOUT,
);

const SYSTEMS: Readonly<Record<string, System>> = { demo, plain };

/** What has differed before. */
const DIFFERED: readonly (readonly [words: string, id: string, acts: readonly string[]])[] = [
  [
    'what is reset in another locale is written in that',
    'draught',
    ['press frame', 'app locale=de', 'key Control+a', 'reset', 'key Backspace', 'leave'],
  ],
  [
    'Enter in a checkbox sends the form',
    'agreed',
    ['press frame', 'app requirement=required', 'press frame', 'key Enter', 'leave'],
  ],
  [
    'a select that can only be read keeps what it holds',
    'native',
    ['press frame', 'key End', 'app availability=readonly', 'key Home', 'key ArrowUp'],
  ],
];

test.each(DIFFERED)(
  '%s',
  async (_, id, acts) => {
    const system = [demo, plain].find(each => componentNamed(each, id))!;
    const sample = componentNamed(system, id)!.samples[0]?.id;
    const doing = { system, component: componentNamed(system, id)!, sample, set: {}, acts };
    const { acts: did, found } = await done(doing);
    expect(did).toEqual(acts);
    expect(told(doing, found)).toEqual(told(doing, inCore(doing)));
  },
  TIMEOUT,
);

const WORDS = ['a', 'Osprey', '7', '4', '330p', '12.5', '-', ' ', 'two words', 'north', 'r', 'ß', '0'];
const KEYS = [
  'Backspace',
  'Delete',
  'ArrowLeft',
  'ArrowRight',
  'Home',
  'End',
  'Escape',
  'Tab',
  'Shift+Tab',
  'Space',
  'Control+a',
  'Shift+ArrowLeft',
  'Control+Backspace',
  'Control+Delete',
  'x',
  '5',
];
/** Keys that take a caret to where only a browser knows, but for kinds that do something else with them; Alt with arrows opens a browser's own suggestions. */
const MORE_KEYS: Readonly<Record<string, readonly string[]>> = {
  text: ['ArrowUp', 'ArrowDown', 'Enter'],
  count: ['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Enter'],
  choice: ['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Enter', 'Alt+ArrowUp'],
};

/** Something that can be done with a field, as far as it is known without looking at it. */
function acts(component: Component): fc.Arbitrary<string> {
  // A press on the platform's own list opens it, and then keys go into it.
  const isNative = component.anatomy.control!.element === 'select';
  const parts = component.anatomy.parts
    .map(({ name }) => name)
    .filter(name => !name.startsWith('option') && !(isNative && name === 'control'));
  // A space in what is sought opens that list on a machine that is so slow that the browser takes what went before it to be over.
  const words = WORDS.filter(word => !isNative || !/. ./.test(word));
  const kind = component.document.behaviour!.value!.kind;
  const keys = [...KEYS, ...(MORE_KEYS[kind] ?? ['Enter'])];
  const asks = component.document.behaviour!.checks!.flatMap(({ ask }) => ask ?? []);
  const one = (prefix: string, from: readonly string[]): fc.Arbitrary<string> =>
    fc.constantFrom(...from).map(each => `${prefix} ${each}`);
  return fc.oneof(
    { weight: 4, arbitrary: one('press', parts) },
    { weight: 4, arbitrary: one('type', words) },
    { weight: 5, arbitrary: one('key', keys) },
    { weight: 1, arbitrary: one('point', [...parts, 'away']) },
    { weight: 1, arbitrary: one('hold', parts) },
    { weight: 1, arbitrary: one('paste', ['41 77 12', 'two\nlines', 'Heron']) },
    {
      weight: 2,
      arbitrary: fc.constantFrom('leave', 'send', 'reset', 'release', 'wait 450ms', 'point away'),
    },
    {
      weight: 1,
      arbitrary: one('app', [
        'value=12',
        'value=',
        'availability=disabled',
        'availability=enabled',
        'availability=readonly',
        'requirement=required',
        'locale=de',
      ]),
    },
    ...(asks.length > 0
      ? [
          {
            weight: 2,
            arbitrary: one(
              'answer',
              asks.flatMap(ask => [`${ask} accepted`, `${ask} rejected`]),
            ),
          },
        ]
      : []),
    ...(kind === 'choice'
      ? [{ weight: 4, arbitrary: one('press', ['entry:1', 'entry:2', 'entry:4', 'entry "Salt wharf"']) }]
      : []),
  );
}

test.each(['demo', 'plain'] as const)(
  'whatever is done in whatever order, %s',
  async name => {
    const system = SYSTEMS[name]!;
    const family = system.components.filter(({ anatomy, document }) => anatomy.control && document.behaviour);
    const sequences = fc
      .constantFrom(...family.map(({ id }) => id))
      .chain(id =>
        fc.tuple(
          fc.constant(id),
          fc.array(acts(componentNamed(system, id)!), { minLength: 6, maxLength: 18 }),
        ),
      );
    await fc.assert(
      fc.asyncProperty(sequences, async ([id, list]) => {
        const component = componentNamed(system, id)!;
        const doing = { system, component, sample: component.samples[0]?.id, set: {}, acts: list };
        const { acts, found } = await done(doing);
        const tried = { ...doing, acts };
        expect(told(tried, found)).toEqual(told(tried, inCore(tried)));
      }),
      {
        ...randomly('acts in a browser'),
        interruptAfterTimeLimit: TIMEOUT - 60_000,
      },
    );
  },
  TIMEOUT,
);
