import { alongEdits } from './along-edits';
import { guarded } from './identity';
import { applyPatch, type Patch } from './patch';

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
  const along = alongEdits(now, edits, mine);
  expect(along).toEqual({ ok: true, patch: [{ ...mine[0], path: '/rules/0/set/frame/color' }] });
  const { rules } = applyPatch(now, along.ok ? along.patch : []).document as typeof BASE;
  expect(rules.map(({ id, set }) => [id, set.frame?.color])).toEqual([
    ['b', 'blue'],
    ['first', undefined],
    ['c', 'red'],
  ]);
});

test('without anything since it is as it was made', () => {
  expect(alongEdits(BASE, [], mine)).toEqual({ ok: true, patch: mine });
});

test('the edit that it meets is told, with the place as it was there', () => {
  const { now, edits } = done(
    [{ op: 'add', path: '/rules/0', value: { id: 'first', set: {} } }],
    [{ op: 'replace', path: '/rules/2/set/frame/color', value: 'green' }],
    [{ op: 'replace', path: '/title', value: 'x' }],
  );
  expect(alongEdits(now, edits, mine)).toMatchObject({
    ok: false,
    index: 1,
    meeting: { path: '/rules/2/set/frame/color' },
  });
});

test('a document that was replaced as a whole is met by everything', () => {
  const { now, edits } = done([{ op: 'replace', path: '', value: { title: 'New', rules: [] } }]);
  expect(alongEdits(now, edits, mine)).toMatchObject({ ok: false, index: 0 });
});
