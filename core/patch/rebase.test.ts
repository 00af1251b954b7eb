import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { BASE, after, move, patchOf, put, remove, seeds, set } from '../test/random-patches';
import type { Patch, PatchOperation } from './operations';
import { rebaseInsisting, rebase } from './rebase';

/** Patches made on the same document by two sides: each can follow the other, and an edit never touches another thing than it was made for. */

/** More can be asked for than a run of all tests has time for. */
const RUNS = runsOf('rebasing');

test('either order comes to the same document', () => {
  let merged = 0;
  fc.assert(
    fc.property(seeds, seeds, (a, b) => {
      const [mine, theirs] = [patchOf('m', a), patchOf('t', b)];
      const both = rebase(BASE, mine, theirs);
      if (!both.ok) return;
      merged++;
      expect(after(after(BASE, mine), both.theirs)).toEqual(after(after(BASE, theirs), both.mine));
    }),
    { numRuns: RUNS, seed: freshSeed('rebase') },
  );
  expect(merged).toBeGreaterThan(RUNS / 10);
});

test('whoever insists has the last word, on nothing else than it was about', () => {
  let insisted = 0;
  fc.assert(
    fc.property(seeds, seeds, (a, b) => {
      const [mine, theirs] = [patchOf('m', a), patchOf('t', b)];
      const both = rebase(BASE, mine, theirs);
      const standing = rebaseInsisting(BASE, mine, theirs);
      if (both.ok) return expect(standing).toEqual(both.mine);
      if (!standing) return;
      insisted++;
      const texts = (document: unknown): string[] => JSON.stringify(document).match(/"[mt]\d"/g) ?? [];
      const end = texts(after(after(BASE, theirs), standing));
      for (const mark of texts(after(BASE, mine))) expect(end).toContain(mark);
    }),
    { numRuns: RUNS, seed: freshSeed('insist') },
  );
  expect(insisted).toBeGreaterThan(RUNS / 100);
});

const rebased = (mine: Patch, theirs: Patch): PatchOperation[] | string => {
  const both = rebase(BASE, mine, theirs);
  return both.ok ? both.mine : both.meeting.path;
};

test('a patch of several steps is rebased step by step', () => {
  // The second step speaks of what the first has put in.
  const mine = [put('/rules/0', { id: 'new' }), set('/rules/0/id', 'newer'), set('/rules/2/id', 'second')];
  expect(rebased(mine, [put('/rules/1', { id: 'theirs' })])).toEqual([
    mine[0],
    mine[1],
    set('/rules/3/id', 'second'),
  ]);
  // Two windows append and then edit what they have appended.
  expect(
    rebased(
      [put('/rules/-', { id: 'm' }), set('/rules/4/id', 'mine')],
      [put('/rules/-', { id: 't' }), set('/rules/4/id', 'theirs')],
    ),
  ).toEqual([put('/rules/5', { id: 'm' }), set('/rules/5/id', 'mine')]);
});

test.each<[string, PatchOperation, PatchOperation, PatchOperation[] | string]>([
  ['below what they moved', set('/rules/1/id', 'm'), move('/rules/1', '/rules/3'), [set('/rules/3/id', 'm')]],
  ['what they moved', set('/words/0', 'm'), move('/words/0', '/words/2'), [set('/words/2', 'm')]],
  [
    'into what they moved',
    put('/anatomy/children/0/children/1', 1),
    move('/anatomy/children/0', '/anatomy/children/1'),
    [put('/anatomy/children/1/children/1', 1)],
  ],
  ['below what they removed', set('/rules/1/id', 'm'), remove('/rules/1'), '/rules/1'],
  ['the same text', set('/title', 'm'), set('/title', 't'), '/title'],
  ['the same entry, moved by both', move('/rules/0', '/rules/2'), move('/rules/0', '/rules/1'), '/rules/0'],
  [
    'each into the other',
    move('/anatomy/children/2', '/anatomy/children/0/children/0'),
    move('/anatomy/children/0', '/anatomy/children/1/children/0'),
    '/anatomy/children/0/children/0',
  ],
])('%s', (_, mine, theirs, expected) => {
  expect(rebased([mine], [theirs])).toEqual(expected);
});

describe('two who put in something under one name', () => {
  const rule = (set: Record<string, Record<string, string>>, when = 'over') => ({ id: 'over', when, set });
  test('make one of it, whoever comes first', () => {
    const mine = [put('/rules/4', rule({ frame: { gap: '1px' }, icon: { color: 'red' } }))];
    const theirs = [put('/rules/-', rule({ frame: { color: 'blue' } }))];
    const both = rebase(BASE, mine, theirs);
    expect(both).toEqual({
      ok: true,
      mine: [put('/rules/4/set/frame/gap', '1px'), put('/rules/4/set/icon', { color: 'red' })],
      theirs: expect.anything(),
    });
    const whole = [...BASE.rules, rule({ frame: { color: 'blue', gap: '1px' }, icon: { color: 'red' } })];
    if (!both.ok) throw new Error('They met.');
    expect(after(after(BASE, theirs), both.mine)).toMatchObject({ rules: whole });
    expect(after(after(BASE, mine), both.theirs)).toMatchObject({ rules: whole });
  });
  test('go on in it', () => {
    const mine = [
      put('/rules/4', rule({ frame: { gap: '1px' } })),
      set('/rules/4/set/frame/gap', '2px'),
      put('/rules/5', { id: 'next' }),
    ];
    const theirs = [put('/rules/0', rule({ frame: { color: 'blue' } }))];
    expect(rebased(mine, theirs)).toEqual([
      put('/rules/0/set/frame/gap', '1px'),
      set('/rules/0/set/frame/gap', '2px'),
      put('/rules/5', { id: 'next' }),
    ]);
  });
  test('meet where they say something else of one thing, and where conditions differ', () => {
    const theirs = put('/rules/4', rule({ frame: { gap: '1px' } }));
    expect(rebased([put('/rules/4', rule({ frame: { gap: '2px' } }))], [theirs])).toBe(
      '/rules/4/set/frame/gap',
    );
    expect(rebased([put('/rules/4', rule({}, 'large'))], [theirs])).toBe('/rules/4/when');
    expect(rebaseInsisting(BASE, [put('/rules/4', rule({ frame: { gap: '2px' } }))], [theirs])).toEqual([
      set('/rules/4/set/frame/gap', '2px'),
    ]);
  });
  test('who did the same have nothing left to do', () => {
    expect(rebased([set('/title', 'X')], [set('/title', 'X')])).toEqual([]);
    expect(rebased([remove('/rules/1')], [remove('/rules/1')])).toEqual([]);
  });
});

test.each<[string, PatchOperation, Patch, Patch | null]>([
  [
    'over the same text, wherever it is by now',
    set('/rules/1/id', 'm'),
    [set('/rules/1/id', 't'), move('/rules/1', '/rules/0')],
    [put('/rules/0/id', 'm')],
  ],
  ['over a text that is gone', set('/title', 'm'), [remove('/title')], [put('/title', 'm')]],
  ['not over a rule that is gone', set('/rules/1/id', 'm'), [remove('/rules/1')], null],
  ['not over an entry that is gone', set('/words/1', 'm'), [remove('/words/1')], null],
  [
    'not over a part out of which something has been moved',
    remove('/anatomy/children/1'),
    [move('/anatomy/children/1/children/0', '/rules/2')],
    null,
  ],
  ['removed by both is removed once', remove('/rules/1'), [remove('/rules/1')], []],
])('insisting: %s', (_, mine, theirs, expected) => {
  expect(rebaseInsisting(BASE, [mine], theirs)).toEqual(expected);
});
