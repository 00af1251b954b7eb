import fc from 'fast-check';
import { applyPatch, type Patch } from '@periwinkle/core/formats/patch';
import { freshSeed } from '@periwinkle/core/test/seed';
import type { StoredEdit } from './api';
import { WorkingCopy, type PendingEdit } from './working-copy';

/**
 * Windows on one document against a server that does nothing but compare revisions: whatever is made, sent, lost, told late or
 * twice, all come to the same document, and each edit is there once, or whoever made it is asked or told.
 */

const PATH = 'components/a.component.json';
const BODY = { title: '', rules: ['a', 'b', 'c'].map(id => ({ id, said: [] as string[] })) };
type Body = typeof BODY;

/** The server: a list of edits, each made on the revision before it. */
class Server {
  readonly edits: StoredEdit[] = [];
  body: unknown = BODY;

  /** Stores an edit, or gives what has been stored since the revision that it was made on. */
  store(edit: PendingEdit, revision: number): readonly StoredEdit[] {
    const twin = this.edits.find(each => each.editKey === edit.key);
    if (twin) return [twin];
    if (revision !== this.edits.length) return this.edits.slice(revision);
    this.body = applyPatch(this.body, edit.patch).document;
    const id = this.edits.length + 1;
    const { key: editKey, changeId, label, patch } = edit;
    const stored = { id, path: PATH, revision: id, patch, kind: 'edit' as const, changeId, editKey, label };
    this.edits.push({ ...stored, author: '', at: '' });
    return [this.edits.at(-1)!];
  }
}

class Window {
  copy = WorkingCopy.of([{ path: PATH, revision: 0, body: BODY }], 0);
  /** Keys of edits that went with one that was refused. */
  readonly lost: string[] = [];

  get shown(): Body {
    return this.copy.documents.get(PATH) as Body;
  }

  make(key: string, patch: Patch): void {
    this.copy = this.copy.withEdit({ key, changeId: key, path: PATH, patch, label: key });
  }

  hear(edits: readonly StoredEdit[]): void {
    for (const edit of edits) this.copy = this.copy.withStored(edit);
  }

  /** Sends the first edit that waits; its answer may be lost. */
  send(server: Server, isLost: boolean): void {
    const [edit] = this.copy.pending;
    if (!edit) return;
    const answer = server.store(edit, this.copy.confirmed.get(PATH)!.revision);
    if (!isLost) this.hear(answer);
  }

  /** Sends the first edit that waits to a server that refuses it, unless it has been stored and the answer was lost. */
  beRefused(server: Server): void {
    const [edit] = this.copy.pending;
    if (!edit) return;
    if (server.edits.some(each => each.editKey === edit.key)) return this.send(server, false);
    const { copy, lost } = this.copy.without(edit.key);
    this.copy = copy;
    this.lost.push(edit.key, ...lost.map(({ key }) => key));
  }
}

const acts = fc.array(
  fc.record({
    window: fc.nat(3),
    act: fc.constantFrom(
      'say',
      'say',
      'insert',
      'remove',
      'move',
      'title',
      'send',
      'send',
      'lose',
      'hear',
      'refuse',
      'both',
    ),
    at: fc.nat(20),
    to: fc.nat(20),
  }),
  { maxLength: 40 },
);

/** Each says its key in one rule, by which one can tell afterwards whether it went to the rule that it was made for. */
function patchFor(act: string, key: string, { rules }: Body, at: number, to: number): Patch | null {
  const index = at % Math.max(1, rules.length);
  const insert = {
    op: 'add',
    path: `/rules/${at % (rules.length + 1)}`,
    value: { id: key, said: [] },
  } as const;
  if (act === 'insert') return [insert];
  if (act === 'title') return [{ op: 'replace', path: '/title', value: key }];
  if (rules.length === 0) return null;
  const say = (place: number) =>
    ({ op: 'add', path: `/rules/${place}/said/-`, value: `${key} to ${rules[index]!.id}` }) as const;
  switch (act) {
    case 'say':
      return [say(index)];
    case 'both':
      return [insert, say(at % (rules.length + 1) <= index ? index + 1 : index)];
    case 'remove':
      return [{ op: 'remove', path: `/rules/${index}` }];
    default:
      return [{ op: 'move', from: `/rules/${index}`, path: `/rules/${to % rules.length}` }];
  }
}

test('all windows come to what the server has, and every edit is where it was meant, once', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 4 }), acts, (count, done) => {
      const server = new Server();
      const windows = Array.from({ length: count }, () => new Window());
      const made = new Map<string, Window>();
      done.forEach(({ window: number, act, at, to }, step) => {
        const window = windows[number % count]!;
        if (act === 'send' || act === 'lose') return window.send(server, act === 'lose');
        // From anywhere on: what is known already may be told again.
        if (act === 'hear') return window.hear(server.edits.slice(at % (window.copy.lastEdit + 1)));
        if (act === 'refuse') return window.beRefused(server);
        const key = `e${step}`;
        const patch = patchFor(act, key, window.shown, at, to);
        if (!patch) return;
        window.make(key, patch);
        made.set(key, window);
      });
      for (const window of windows)
        for (let most = 200; window.copy.pending.length > 0 && most > 0; most--) window.send(server, false);
      for (const window of windows) {
        window.hear(server.edits.slice(window.copy.lastEdit));
        expect(window.shown).toEqual(server.body);
      }
      const storedKeys = server.edits.map(edit => edit.editKey);
      expect(new Set(storedKeys).size).toBe(storedKeys.length);
      for (const [key, window] of made) {
        const isStored = storedKeys.includes(key);
        const isAsked = window.copy.meetings.some(meeting => meeting.mine.key === key);
        expect([key, [isStored, isAsked, window.lost.includes(key)].filter(Boolean).length]).toEqual([
          key,
          1,
        ]);
      }
      for (const { id, said } of (server.body as Body).rules)
        for (const word of said) expect(word.endsWith(` to ${id}`)).toBe(true);
    }),
    { numRuns: Number(process.env['PERIWINKLE_RUNS'] ?? 400), seed: freshSeed('windows') },
  );
});
