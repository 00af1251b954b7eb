import { randomly } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import { identified } from '@periwinkle/core/patch/identity';
import type { Patch } from '@periwinkle/core/patch/operations';
import { keptOf, type Kept } from './kept';
import { endsOf } from './own-history';
import { synchronise } from './machine';
import { synchronising, type SyncEffect, type SyncEvent } from './state';
import { NaiveServer, type Answer } from './test/naive-server';
import { WorkingCopy } from './working-copy';

/**
 * Windows against a server that does nothing but compare revisions, with a network that delays, loses and doubles whatever it carries:
 * all come to the same documents, and each edit is there once, or whoever made it is asked or told.
 */

const PATHS = ['a', 'b'];
/** Made, removed and made again. */
const PASSING = ['c', 'd'];
/** Rules may be given other ids; by what they were born as one knows them again. */
const BODY = { title: '', rules: ['a', 'b', 'c'].map(id => ({ id, born: id, said: [] as string[] })) };
type Body = typeof BODY;

/** Something under way: what it does where it arrives, and what happens where it is lost. */
interface Letter {
  readonly arrive: () => void;
  readonly lose: () => void;
}

class World {
  readonly server = new NaiveServer(Object.fromEntries(PATHS.map(path => [path, BODY])));
  readonly letters: Letter[] = [];
  /** What windows have left that were closed. */
  readonly left: Kept[] = [];
  /** Labels of edits that people were told about, by refusal or because they lost their place. */
  readonly told: string[] = [];
  readonly windows: Window[] = [];
  /** What was last asked for of changes that were taken back or brought back. */
  readonly steps = new Map<string, 'undo' | 'redo'>();
  /** Whether the next new edit is refused. */
  isRefusing = false;
  /** Keys of edits that were, whenever they come. */
  readonly refused = new Set<string>();

  /** Sends a question to the server; question and answer may each be lost, and the question may arrive twice. */
  ask<T>(question: () => T, answered: (answer: T) => void, lost: () => void): void {
    const back = (): void => {
      const answer = question();
      this.letters.push({ arrive: () => answered(answer), lose: lost });
    };
    this.letters.push({ arrive: back, lose: lost });
  }
}

class Window {
  state;
  isOpen = true;
  kept: Kept | null = null;
  /** What was done in it, in its order. */
  readonly log: string[] = [];
  hasBroughtBack = false;

  constructor(
    readonly world: World,
    readonly author: string,
  ) {
    const { documents, lastEdit } = world.server.whole();
    this.state = synchronising(WorkingCopy.of(documents, lastEdit), author, world.server.ends(author));
    world.left.splice(0).forEach(kept => this.takeUp(kept));
  }

  get copy(): WorkingCopy {
    return this.state.copy;
  }

  shown(path: string): Body {
    return this.copy.documents.get(path) as Body;
  }

  takeUp(kept: Kept): void {
    const again = (): void => (this.isOpen ? this.takeUp(kept) : void this.world.left.push(kept));
    this.world.ask(
      () => this.world.server.since(kept.lastEdit),
      since => {
        if (!this.isOpen) return again();
        const effects = this.dispatch({ type: 'taken up', kept, since });
        if (effects.some(({ type }) => type === 'not taken up')) again();
      },
      again,
    );
  }

  dispatch(event: SyncEvent): readonly SyncEffect[] {
    const { state, effects } = synchronise(this.state, event);
    this.state = state;
    effects.forEach(effect => this.carryOut(effect));
    return effects;
  }

  private carryOut(effect: SyncEffect): void {
    const { server } = this.world;
    const tell = (event: SyncEvent): void => void (this.isOpen && this.dispatch(event));
    if (effect.type === 'keep') this.kept = keptOf(this.copy, this.state.unplaced);
    if (effect.type === 'say') this.world.told.push(effect.text);
    if (effect.type === 'fill')
      this.world.ask(
        () => server.since(effect.after.id),
        edits => tell({ type: 'filled', edits }),
        () => tell({ type: 'filled', edits: null }),
      );
    if (effect.type === 'ask ends')
      this.world.ask(
        () => server.ends(this.author),
        ends => tell({ type: 'ends', ends }),
        () => tell({ type: 'ends', ends: null }),
      );
    if (effect.type !== 'send') return;
    const { edit, revisions } = effect;
    const { key } = edit;
    this.world.ask(
      (): Answer => {
        if (edit.step) return server.stepNamed(edit.step, this.author, key);
        const { refused } = this.world;
        const isKnown = edit.parts.some(part => server.edits.some(each => each.editKey === part.key));
        if (this.world.isRefusing && !isKnown) refused.add(key);
        this.world.isRefusing = false;
        return server.store(edit, revisions, this.author, refused.has(key));
      },
      answer => {
        if (answer.status === 'stored') tell({ type: 'stored', key, edits: answer.edits });
        else if (answer.status === 'stale') tell({ type: 'stale', edit, revisions, since: answer.since });
        else
          tell({
            type: 'refused',
            key,
            reason: `No “${edit.step?.change ?? key}”.`,
            isGone: answer.isGone === true,
          });
      },
      () => tell({ type: 'failed', key }),
    );
  }

  make(key: string, patches: ReadonlyMap<string, Patch>): void {
    const parts = [...patches].map(([path, patch], index) => ({
      key: index === 0 ? key : `${key}.${index}`,
      path,
      patch: identified(this.copy.shownAt(path), patch),
    }));
    this.dispatch({ type: 'made', edit: { key, changeId: key, label: key, parts } });
    this.log.push(key);
  }

  /** Is told what is stored, from somewhere on: what is known already may be told again. */
  hear(from: number): void {
    this.dispatch({ type: 'told', edits: this.world.server.since(Math.min(from, this.copy.lastEdit)) });
  }

  close(): void {
    this.isOpen = false;
    if (this.kept) this.world.left.push(this.kept);
    this.world.windows.splice(this.world.windows.indexOf(this), 1, new Window(this.world, this.author));
  }
}

const ACTS = [
  ...['together', 'together', 'make', 'replace', 'carry'],
  ...['say', 'say', 'say', 'insert', 'remove', 'move', 'rename', 'title', 'both'],
  ...['arrive', 'arrive', 'arrive', 'arrive', 'lose', 'double', 'hear', 'due', 'due'],
  ...['refuse', 'close', 'restart', 'undo', 'redo', 'there and back', 'decide'],
  ...['take back', 'take back', 'bring back', 'slip', 'slip'],
] as const;

const acts = fc.array(
  fc.record({
    window: fc.nat(3),
    act: fc.constantFrom(...ACTS),
    path: fc.constantFrom('a', 'a', 'b'),
    at: fc.nat(20),
    to: fc.nat(20),
  }),
  { maxLength: 60 },
);

/** A document is made by a window that closes, and stored after what was stored since has been asked for. */
const STORED_WHILE_TAKEN_UP = (['make', 'close', 'arrive'] as const).map(act => ({
  ...{ act, window: 1, path: 'a' as const, at: 0, to: 0 },
}));

/** Each says its key in one rule, by which one can tell afterwards whether it went to the rule that it was made for. */
function patchFor(act: string, key: string, { rules }: Body, at: number, to: number): Patch | null {
  const index = at % Math.max(1, rules.length);
  const insert = {
    op: 'add',
    path: `/rules/${at % (rules.length + 1)}`,
    value: { id: key, born: key, said: [] },
  } as const;
  if (act === 'insert') return [insert];
  if (act === 'title') return [{ op: 'replace', path: '/title', value: key }];
  if (rules.length === 0) return null;
  const say = (place: number) =>
    ({ op: 'add', path: `/rules/${place}/said/-`, value: `${key} to ${rules[index]!.born}` }) as const;
  switch (act) {
    case 'say':
      return [say(index)];
    case 'both':
      return [insert, say(at % (rules.length + 1) <= index ? index + 1 : index)];
    case 'rename':
      return [{ op: 'replace', path: `/rules/${index}/id`, value: key }];
    case 'remove':
      return [{ op: 'remove', path: `/rules/${index}` }];
    case 'move':
      return [{ op: 'move', from: `/rules/${index}`, path: `/rules/${to % rules.length}` }];
    default:
      return null;
  }
}

/** What an act does, by document: `together` speaks in two, `carry` puts what one holds under another name, as a file is renamed. */
function patchesFor(
  act: string,
  key: string,
  window: Window,
  path: string,
  at: number,
  to: number,
): Map<string, Patch> {
  const whole = (value: unknown): Patch => [{ op: 'replace', path: '', value }];
  const [first, second] = (at % 2 ? PASSING : [...PASSING].reverse()) as [string, string];
  const before = window.copy.shownAt(first);
  const patches: [string, Patch | null][] = [];
  if (act === 'together')
    for (const each of PATHS) patches.push([each, patchFor('say', key, window.shown(each), at, to)]);
  else if (act === 'make') patches.push([first, whole(before === null ? { ...BODY, title: key } : null)]);
  else if (act === 'replace')
    patches.push(
      [first, before === null ? null : [{ op: 'replace', path: '/title', value: key }]],
      [path, patchFor('say', key, window.shown(path), at, to)],
    );
  else if (act === 'carry') {
    if (before !== null && window.copy.shownAt(second) === null)
      patches.push([first, whole(null)], [second, whole(before)]);
  } else patches.push([path, patchFor(act, key, window.shown(path), at, to)]);
  return new Map(patches.flatMap(([each, patch]) => (patch ? [[each, patch]] : [])));
}

const wordsOf = (body: unknown): string[] => (body as Body).rules.flatMap(({ said }) => said);
const ALL = [...PATHS, ...PASSING];
const texts = ({ server }: World): string => JSON.stringify(ALL.map(path => server.body(path)));

/** Takes one of the author's changes back, or brings it back; taking back takes away nothing that others have said. */
function step(world: World, window: Window, state: 'done' | 'undone', at: number, key: string): void {
  const { server } = world;
  const own = server.changes.filter(each => each.author === window.author && each.state === state);
  const change = own[at % Math.max(1, own.length)];
  if (!change || window.copy.pending.length > 0) return;
  world.steps.delete(change.id);
  const ofOthers = (): string[] =>
    PATHS.flatMap(path => wordsOf(server.body(path))).filter(word => !word.startsWith(`${change.id} `));
  const before = ofOthers();
  const edits = server.step(change, window.author, key);
  if (state === 'done') expect(ofOthers()).toEqual(expect.arrayContaining(before));
  world.letters.push({ arrive: () => void window.dispatch({ type: 'told', edits }), lose: () => {} });
}

function run(
  world: World,
  made: Map<string, string>,
  done: typeof acts extends fc.Arbitrary<infer A> ? A : never,
): void {
  done.forEach(({ window: number, act, path, at, to }, count) => {
    const { windows, letters, server } = world;
    const window = windows[number % windows.length]!;
    const letter = (): Letter | undefined => letters.splice(at % Math.max(1, letters.length), 1)[0];
    const key = `e${count}`;
    switch (act) {
      case 'arrive':
        return letter()?.arrive();
      case 'lose':
        return letter()?.lose();
      case 'double': {
        const twice = letter();
        twice?.arrive();
        return twice?.arrive();
      }
      case 'hear':
        return window.hear(at);
      case 'due':
        return void window.dispatch({ type: 'due' });
      case 'refuse':
        world.isRefusing = true;
        return;
      case 'close':
        return window.close();
      case 'restart':
        return letters.splice(0).forEach(each => each.lose());
      case 'decide': {
        const [meeting] = window.copy.meetings;
        if (!meeting) return;
        const parts = at % 2 && meeting.parts?.map((part, index) => ({ ...part, key: `${key}.${index}` }));
        const mine = parts ? { ...meeting.mine, key, changeId: key, parts } : null;
        made.set(meeting.mine.key, 'decided');
        if (mine) made.set(key, 'made');
        return void window.dispatch({ type: 'decided', meeting, mine: mine && { ...mine, label: key } });
      }
      case 'undo':
        return step(world, window, 'done', at, key);
      case 'redo':
        return step(world, window, 'undone', at, key);
      case 'take back':
      case 'bring back': {
        const direction = act === 'take back' ? 'undo' : 'redo';
        const next = endsOf(window.state.history)[direction];
        if (act === 'take back') expectLastOf(world, window, next?.change);
        window.dispatch({ type: 'step', direction, key });
        // Made again it has another key, and stands behind what was done before it was.
        if (act === 'bring back') window.hasBroughtBack = true;
        if (!next) return;
        if (made.has(next.change)) made.set(next.change, 'stepped');
        world.steps.set(next.change, direction);
        return;
      }
      case 'slip': {
        // Done and taken back in one breath, whatever waits and whatever has been sent.
        const before = shownIn(window);
        const patches = patchesFor('say', key, window, path, at, to);
        window.make(key, patches);
        if (patches.size === 0) return;
        made.set(key, 'stepped');
        window.dispatch({ type: 'step', direction: 'undo', key: `${key}u` });
        world.steps.set(key, 'undo');
        return expect(shownIn(window)).toBe(before);
      }
      case 'there and back': {
        const change = server.changes.find(each => each.author === window.author && each.state === 'done');
        const before = texts(world);
        if (!change || server.step(change, window.author, key).length === 0) return;
        world.steps.delete(change.id);
        expect(server.step(change, window.author, `${key}b`)).not.toEqual([]);
        return expect(texts(world)).toBe(before);
      }
      default: {
        const patches = patchesFor(act, key, window, path, at, to);
        if (patches.size === 0) return;
        window.make(key, patches);
        made.set(key, 'made');
      }
    }
  });
}

const shownIn = ({ copy }: Window): string => JSON.stringify(ALL.map(path => copy.shownAt(path)));

/** What is to be taken back is what was done last in this window of what stands, if it has heard of everything. */
function expectLastOf(
  { server }: World,
  { copy, log, hasBroughtBack }: Window,
  found: string | undefined,
): void {
  if (copy.lastEdit < server.edits.length || hasBroughtBack) return;
  const isUndoing = (id: string): boolean => copy.pending.some(({ step: done }) => done?.change === id);
  const stands = log.filter(id => {
    const change = server.changes.find(each => each.id === id);
    const isWaiting = copy.pending.some(({ changeId }) => changeId === id);
    return !isUndoing(id) && (isWaiting || (change?.state === 'done' && !change.isInTheWay));
  });
  const last = stands.at(-1);
  const steps = copy.pending.some(({ step: done }) => done);
  if (last !== undefined && !steps && !server.edits.some(({ kind }) => kind === 'redo'))
    expect(found).toBe(last);
}

/** Lets everything arrive, and whoever waits send, until nothing is under way. */
function settle(world: World): void {
  const { windows, letters, server } = world;
  world.isRefusing = false;
  for (let most = 2000; most > 0; most--) {
    // What was left by a window that closed while it took up another's.
    world.left.splice(0).forEach(kept => windows[0]!.takeUp(kept));
    const letter = letters.shift();
    letter?.arrive();
    if (letter && most % 20 > 0) continue;
    if (
      letters.length === 0 &&
      windows.every(({ copy }) => copy.pending.length === 0 && copy.lastEdit === server.edits.length)
    )
      return;
    for (const window of windows) {
      window.hear(window.copy.lastEdit);
      window.dispatch({ type: 'due' });
    }
  }
  throw new Error('It does not come to rest.');
}

test('all windows come to what the server has, and every edit is where it was meant, once', () => {
  const seen = { stored: 0, asked: 0, told: 0, stepped: 0 };
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 4 }), acts, (count, done) => {
      const world = new World();
      for (let each = 0; each < count; each++) world.windows.push(new Window(world, `p${each}`));
      const made = new Map<string, string>();
      run(world, made, done);
      settle(world);
      const { server, windows } = world;
      for (const path of ALL)
        for (const window of windows) expect(window.copy.shownAt(path)).toEqual(server.body(path));
      const storedKeys = server.edits.map(edit => edit.editKey);
      expect(new Set(storedKeys).size).toBe(storedKeys.length);
      for (const [key, outcome] of made) {
        if (outcome === 'decided') continue;
        if (outcome === 'stepped') {
          const change = server.changes.find(({ id }) => id === key);
          const isTold = world.told.some(text => text.includes(`“${key}”`));
          const wanted = world.steps.get(key) === 'undo' ? 'undone' : 'done';
          if (!isTold && world.steps.has(key) && change) expect([key, change.state]).toEqual([key, wanted]);
          seen.stepped++;
          continue;
        }
        const isStored = storedKeys.includes(key);
        const isAsked = windows.some(({ copy }) => copy.meetings.some(({ mine }) => mine.key === key));
        const isTold = world.told.some(text => text.includes(`“${key}”`));
        expect([key, [isStored, isAsked, isTold].filter(Boolean).length]).toEqual([key, 1]);
        seen.stored += Number(isStored);
        seen.asked += Number(isAsked);
        seen.told += Number(isTold);
      }
      for (const path of PATHS)
        for (const { born, said } of (server.body(path) as Body).rules)
          for (const word of said) expect(word.endsWith(` to ${born}`)).toBe(true);
    }),
    {
      ...randomly('windows'),
      examples: [[2, STORED_WHILE_TAKEN_UP]],
    },
  );
  expect(Math.min(seen.stored, seen.asked, seen.told, seen.stepped)).toBeGreaterThan(2);
});
