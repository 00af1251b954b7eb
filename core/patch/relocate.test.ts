import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { BASE, after, move, patchOf, put, remove, seeds, set } from '../test/random-patches';
import { guarded, identified } from './identity';
import type { Patch, PatchOperation } from './operations';
import { applyPatch } from './patch';
import { relocated } from './relocate';

/** Patches that say what they mean find it in a document that has changed since, or say why they do not. */

const RUNS = runsOf('relocating');
const text = (document: unknown): string => JSON.stringify(document);

const only = (rules: string[], base = BASE) => ({ ...base, rules: rules.map(id => ({ id, set: {} })) });

test('tests say which entries are meant, and hold on the document that the patch was made on', () => {
  expect(
    identified(BASE, [set('/rules/1/set/frame/gap', '2px'), set('/rules/1/set/frame/color', 'x')]),
  ).toEqual([
    { op: 'test', path: '/rules/1/id', value: 'b' },
    set('/rules/1/set/frame/gap', '2px'),
    set('/rules/1/set/frame/color', 'x'),
  ]);
  expect(identified(BASE, [remove('/words/2'), set('/anatomy/children/1/children/0/part', 'p')])).toEqual([
    { op: 'test', path: '/words/2', value: 'three' },
    remove('/words/2'),
    { op: 'test', path: '/anatomy/children/1/part', value: 'y' },
    { op: 'test', path: '/anatomy/children/1/children/0/part', value: 'y1' },
    set('/anatomy/children/1/children/0/part', 'p'),
  ]);
  fc.assert(
    fc.property(seeds, wanted => {
      const patch = patchOf('m', wanted);
      expect(text(after(BASE, identified(BASE, patch)))).toBe(text(after(BASE, patch)));
    }),
    { numRuns: RUNS, seed: freshSeed('identified') },
  );
});

test('on the document that it was made on, a patch comes back as it is', () => {
  fc.assert(
    fc.property(seeds, wanted => {
      const patch = identified(BASE, patchOf('m', wanted));
      const back = relocated(BASE, patch);
      expect(back.ok && text(after(BASE, back.patch))).toBe(text(after(BASE, patch)));
    }),
    { numRuns: RUNS, seed: freshSeed('placed') },
  );
});

test('an edit is taken back and brought back again without a trace, as often as one likes', () => {
  fc.assert(
    fc.property(seeds, wanted => {
      let document: unknown = BASE;
      let patch: Patch = patchOf('m', wanted);
      const seen: string[] = [];
      for (let times = 0; times < 4; times++) {
        seen.push(text(document));
        const { document: next, inverse } = applyPatch(document, patch);
        const back = relocated(next, guarded(next, inverse));
        if (!back.ok) throw new Error(`${back.reason} ${back.place}`);
        [document, patch] = [next, back.patch];
      }
      expect(seen.slice(2)).toEqual(seen.slice(0, 2));
    }),
    { numRuns: RUNS, seed: freshSeed('taken back') },
  );
});

const taken = (patch: Patch, since: Patch, base: unknown = BASE): unknown => {
  const { document, inverse } = applyPatch(base, patch);
  const now = after(document, since);
  const result = relocated(now, guarded(document, inverse));
  return result.ok ? after(now, result.patch) : `${result.reason} ${result.place}`;
};

test.each<[string, PatchOperation[], PatchOperation[], PatchOperation[] | string]>([
  [
    'a value, in a rule that others have moved',
    [set('/rules/0/set/frame/color', 'm')],
    [move('/rules/0', '/rules/3')],
    [move('/rules/0', '/rules/3')],
  ],
  [
    'a rule that was put in, after others put one in before it',
    [put('/rules/1', { id: 'm' })],
    [put('/rules/0', { id: 't' })],
    [put('/rules/0', { id: 't' })],
  ],
  [
    'a rule that was taken out, to behind the one that it stood behind',
    [remove('/rules/2')],
    [move('/rules/1', '/rules/0')],
    [move('/rules/1', '/rules/0'), remove('/rules/2'), put('/rules/1', BASE.rules[2])],
  ],
  [
    'a rule that was taken out, before its follower where the one before it is gone',
    [remove('/rules/2')],
    [remove('/rules/1')],
    [remove('/rules/1')],
  ],
  [
    'a move, to where its neighbours are by now',
    [move('/rules/3', '/rules/1')],
    [put('/rules/0', { id: 't' })],
    [put('/rules/0', { id: 't' })],
  ],
  [
    'a value that others have set since',
    [set('/rules/0/set/frame/color', 'm')],
    [set('/rules/0/set/frame/color', 't')],
    'changed /rules/0/set/frame/color',
  ],
  [
    'a value in a rule that is gone',
    [set('/rules/1/set/frame/color', 'm')],
    [remove('/rules/1')],
    'gone /rules/1',
  ],
  [
    'a rule in which others have written',
    [put('/rules/1', { id: 'm', set: {} })],
    [put('/rules/1/set/frame', {})],
    'changed /rules/1',
  ],
  [
    'a member whose place is taken',
    [remove('/rules/1/set/frame/gap')],
    [put('/rules/1/set/frame/gap', 't')],
    'taken /rules/1/set/frame/gap',
  ],
  ['a text of a list, wherever it is', [put('/words/1', 'm')], [remove('/words/0')], [remove('/words/0')]],
])('taking back %s', (_, patch, since, expected) => {
  expect(taken(patch, since)).toEqual(typeof expected === 'string' ? expected : after(BASE, expected));
});

test('what is taken back touches nothing that others have made, whatever they did', () => {
  fc.assert(
    fc.property(seeds, seeds, (wanted, others) => {
      const { document, inverse } = applyPatch(BASE as unknown, patchOf('m', wanted));
      const now = after(document, patchOf('t', others, document));
      const back = relocated(now, guarded(document, inverse));
      if (!back.ok) return;
      const theirs = (each: unknown): string[] =>
        text(each)
          .match(/"t\d+"/g)
          ?.sort() ?? [];
      const then = after(now, back.patch);
      expect(theirs(then)).toEqual(theirs(now));
      // And back again.
      const again = guarded(then, applyPatch(now, back.patch).inverse);
      const forth = relocated(then, again);
      expect(forth.ok && text(after(then, forth.patch))).toBe(text(now));
    }),
    { numRuns: RUNS, seed: freshSeed('others') },
  );
});

test('entries of one name are told apart by their places', () => {
  const twins = only(['a', 'b', 'a']);
  expect(relocated(twins, identified(twins, [set('/rules/2/id', 'c')]))).toEqual({
    ok: true,
    patch: [set('/rules/2/id', 'c')],
  });
});

test('entries without a name are known by all they hold', () => {
  const layers = { shadow: [{ blur: 1 }, { blur: 2 }] };
  const patch = [set('/shadow/1/blur', 3)];
  expect(taken(patch, [put('/shadow/0', { blur: 9 })], layers)).toEqual({
    shadow: [{ blur: 9 }, { blur: 1 }, { blur: 2 }],
  });
  expect(taken(patch, [put('/shadow/1/colour', 'red')], layers)).toBe('changed /shadow/1');
});

test('what would go into the entry behind it, as others have ordered them, has no place instead of failing', () => {
  const entry = (part: string) => ({ part, children: [{ part: `${part}1` }] });
  const before = { children: [entry('x'), entry('y'), entry('z')] };
  const patch = identified(before, [{ op: 'move', from: '/children/2', path: '/children/0/children/0' }]);
  // By now what is moved stands before what it is to go into.
  const now = { children: [entry('z'), entry('x'), entry('y')] };
  expect(relocated(now, patch)).toMatchObject({ ok: false, reason: 'changed' });
});
