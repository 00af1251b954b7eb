import { randomly } from '../test/runs';
import fc from 'fast-check';
import { rebaseOverEdits } from './rebase-over-edits';
import { guarded } from './identity';
import { PatchError, type Patch } from './operations';
import { applyPatch } from './patch';
import { rebase } from './rebase';

/** A patch follows what was done since it was made, as whoever heard of that step by step would have it. */

const BASE = {
  title: 'Field',
  rules: ['a', 'b', 'c'].map(id => ({ id, set: { frame: { color: 'red' } } })),
};

/** Edits done one after another, each with what takes it back as it is stored, and what they leave. */
function done(...patches: readonly Patch[]) {
  let now: unknown = BASE;
  const edits = patches.map(patch => {
    const { document, inverse } = applyPatch(now, patch);
    now = document;
    return { patch, inverse: guarded(document, inverse) };
  });
  return { now, edits };
}

const mine: Patch = [{ op: 'replace', path: '/rules/1/set/frame/color', value: 'blue' }];

test('its places follow what was put in, taken out and moved', () => {
  const { now, edits } = done(
    [{ op: 'add', path: '/rules/0', value: { id: 'first', set: {} } }],
    [{ op: 'move', from: '/rules/2', path: '/rules/0' }],
    [{ op: 'remove', path: '/rules/2' }],
    [{ op: 'replace', path: '/title', value: 'Text field' }],
  );
  const along = rebaseOverEdits(now, edits, mine);
  expect(along).toEqual({ ok: true, patch: [{ ...mine[0], path: '/rules/0/set/frame/color' }] });
  const { rules } = applyPatch(now, along.ok ? along.patch : []).document as typeof BASE;
  expect(rules.map(({ id, set }) => [id, set.frame?.color])).toEqual([
    ['b', 'blue'],
    ['first', undefined],
    ['c', 'red'],
  ]);
});

test('without anything since it is as it was made', () => {
  expect(rebaseOverEdits(BASE, [], mine)).toEqual({ ok: true, patch: mine });
});

test('the edit that it meets is told, with the place as it was there', () => {
  const { now, edits } = done(
    [{ op: 'add', path: '/rules/0', value: { id: 'first', set: {} } }],
    [{ op: 'replace', path: '/rules/2/set/frame/color', value: 'green' }],
    [{ op: 'replace', path: '/title', value: 'x' }],
  );
  expect(rebaseOverEdits(now, edits, mine)).toMatchObject({
    ok: false,
    index: 1,
    meeting: { path: '/rules/2/set/frame/color' },
  });
});

test('a document that was replaced as a whole is met by everything', () => {
  const { now, edits } = done([{ op: 'replace', path: '', value: { title: 'New', rules: [] } }]);
  expect(rebaseOverEdits(now, edits, mine)).toMatchObject({ ok: false, index: 0 });
});

const PLACES = [
  '',
  '/title',
  '/0',
  '/1',
  '/-',
  '/list',
  '/list/0',
  '/list/1',
  '/list/-',
  '/list/0/a',
  '/list/1/a',
  '/a',
  '/a/b',
  '/ab',
];
const place = fc.constantFrom(...PLACES);
const operation = fc.oneof(
  fc.record({
    op: fc.constantFrom('add', 'replace', 'test'),
    path: place,
    value: fc.constantFrom(1, { a: 1 }, [1, { a: 2 }]),
  }),
  fc.record({ op: fc.constant('remove'), path: place }),
  fc.record({ op: fc.constantFrom('move', 'copy'), path: place, from: place }),
);
const patches = fc.array(fc.array(operation, { minLength: 1, maxLength: 2 }), { maxLength: 4 });
const START = { title: '', 0: { a: 1 }, a: { b: 1 }, ab: 1, list: [{ a: 1 }, { a: 2 }, 3] };

test('it comes to what following each edit by itself comes to', () => {
  let [compared, met] = [0, 0];
  fc.assert(
    fc.property(patches, fc.array(operation, { minLength: 1, maxLength: 2 }), (theirs, own) => {
      const states: unknown[] = [START];
      const edits: { patch: Patch; inverse: Patch }[] = [];
      let mine = own as Patch;
      try {
        applyPatch(START, mine);
        for (const patch of theirs as Patch[]) {
          const { document, inverse } = applyPatch(states.at(-1), patch);
          edits.push({ patch, inverse });
          states.push(document);
        }
      } catch (error) {
        if (error instanceof PatchError) return;
        throw error;
      }
      const along = rebaseOverEdits(states.at(-1), edits, mine);
      for (const [index, { patch }] of edits.entries()) {
        const both = rebase(states[index], mine, patch);
        if (!both.ok) {
          met++;
          return expect(along).toMatchObject({ ok: false, index, meeting: both.meeting });
        }
        mine = both.mine;
      }
      compared++;
      expect(along.ok && applyPatch(states.at(-1), along.patch)).toEqual(applyPatch(states.at(-1), mine));
    }),
    randomly('rebasing over edits'),
  );
  expect(Math.min(compared, met)).toBeGreaterThan(20);
});
