import fc from 'fast-check';
import { applyPatch, PatchError, type PatchOperation } from './patch';
import { rebasePatch } from './rebase';

const document = {
  rules: [
    { id: 'a', set: { frame: { color: 'red' } } },
    { id: 'b', set: {} },
    { id: 'c', set: {} },
  ],
  title: 'T',
};
type Document = typeof document;

describe('patches', () => {
  const patches: [string, PatchOperation[]][] = [
    ['replace', [{ op: 'replace', path: '/title', value: 'U' }]],
    ['add a member', [{ op: 'add', path: '/note', value: { x: 1 } }]],
    ['add over a member', [{ op: 'add', path: '/title', value: 'U' }]],
    ['insert', [{ op: 'add', path: '/rules/1', value: { id: 'n', set: {} } }]],
    ['append', [{ op: 'add', path: '/rules/-', value: { id: 'n', set: {} } }]],
    ['remove', [{ op: 'remove', path: '/rules/0/set/frame' }]],
    ['move in a list', [{ op: 'move', from: '/rules/0', path: '/rules/2' }]],
    ['move onto a member', [{ op: 'move', from: '/rules/0/id', path: '/title' }]],
    [
      'several',
      [
        { op: 'remove', path: '/rules/0' },
        { op: 'add', path: '/rules/0/set/frame', value: {} },
      ],
    ],
    ['the whole', [{ op: 'replace', path: '', value: { rules: [] } }]],
  ];

  test.each(patches)('%s: the inverse restores the document', (_, patch) => {
    const { document: after, inverse } = applyPatch(document, patch);
    expect(after).not.toEqual(document);
    expect(applyPatch(after, inverse).document).toEqual(document);
  });

  test('what is not touched stays the same object', () => {
    const { document: after } = applyPatch<Document>(document, [
      { op: 'replace', path: '/rules/1/id', value: 'z' },
    ]);
    expect(after.rules[0]).toBe(document.rules[0]);
    expect(after.rules[1]).not.toBe(document.rules[1]);
  });

  test.each<[string, PatchOperation]>([
    ['a place that is not there', { op: 'replace', path: '/rules/9/id', value: 'x' }],
    ['a failed test', { op: 'test', path: '/title', value: 'other' }],
    ['the prototype', { op: 'add', path: '/__proto__/polluted', value: true }],
    ['a constructor', { op: 'add', path: '/constructor/prototype/polluted', value: true }],
    ['a place past the end', { op: 'add', path: '/rules/7', value: {} }],
  ])('%s is refused and changes nothing', (_, operation) => {
    const before = structuredClone(document);
    expect(() => applyPatch(document, [{ op: 'replace', path: '/title', value: 'U' }, operation])).toThrow(
      PatchError,
    );
    expect(document).toEqual(before);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });
});

describe('rebasing', () => {
  const rebased = (mine: PatchOperation[], theirs: PatchOperation[]): unknown =>
    rebasePatch(document, mine, theirs);

  test('different places merge in either order', () => {
    const mine: PatchOperation[] = [{ op: 'replace', path: '/rules/2/id', value: 'mine' }];
    const theirs: PatchOperation[] = [{ op: 'replace', path: '/title', value: 'theirs' }];
    expect(rebased(mine, theirs)).toEqual({ ok: true, patch: mine });
  });

  test('indices follow what the other side inserted, removed or moved', () => {
    const mine: PatchOperation[] = [{ op: 'replace', path: '/rules/1/id', value: 'mine' }];
    const path = (theirs: PatchOperation): string =>
      (rebased(mine, [theirs]) as { patch: PatchOperation[] }).patch[0]!.path;
    expect(path({ op: 'add', path: '/rules/0', value: {} })).toBe('/rules/2/id');
    expect(path({ op: 'add', path: '/rules/-', value: {} })).toBe('/rules/1/id');
    expect(path({ op: 'remove', path: '/rules/0' })).toBe('/rules/0/id');
    expect(path({ op: 'move', from: '/rules/1', path: '/rules/0' })).toBe('/rules/0/id');
    expect(path({ op: 'move', from: '/rules/0', path: '/rules/2' })).toBe('/rules/0/id');
  });

  test('the same place, or inside what was taken away, meets', () => {
    const mine: PatchOperation[] = [{ op: 'replace', path: '/rules/0/set/frame/color', value: 'blue' }];
    for (const theirs of [
      { op: 'replace', path: '/rules/0/set/frame/color', value: 'green' },
      { op: 'remove', path: '/rules/0' },
      { op: 'replace', path: '/rules/0/set', value: {} },
    ] as PatchOperation[]) {
      expect(rebased(mine, [theirs])).toMatchObject({ ok: false });
    }
  });

  test('two entries put in at the same place are both kept', () => {
    const add = (id: string): PatchOperation => ({ op: 'add', path: '/rules/1', value: { id, set: {} } });
    const result = rebasePatch(document, [add('mine')], [add('theirs')]);
    if (!result.ok) throw new Error('they should not meet');
    const both = applyPatch(applyPatch<Document>(document, [add('theirs')]).document, result.patch).document;
    expect(both.rules.map(rule => rule.id)).toEqual(['a', 'theirs', 'mine', 'b', 'c']);
  });

  test('edits of different rules commute whatever is inserted or removed around them', () => {
    const index = fc.integer({ min: 0, max: 2 });
    const structural = fc.oneof(
      index.map(at => ({ op: 'add' as const, path: `/rules/${at}`, value: { id: 'new', set: {} } })),
      index.map(at => ({ op: 'remove' as const, path: `/rules/${at}` })),
      fc
        .tuple(index, index)
        .map(([from, to]) => ({ op: 'move' as const, from: `/rules/${from}`, path: `/rules/${to}` })),
    );
    fc.assert(
      fc.property(index, structural, (at, theirs) => {
        const mine: PatchOperation[] = [{ op: 'replace', path: `/rules/${at}/id`, value: 'mine' }];
        const id = document.rules[at]!.id;
        const result = rebasePatch(document, mine, [theirs]);
        const after = applyPatch<Document>(document, [theirs]).document;
        if (!result.ok) {
          expect(after.rules.some(rule => rule.id === id)).toBe(false);
          return;
        }
        const both = applyPatch(after, result.patch).document.rules.map(rule => rule.id);
        expect(both).toEqual(after.rules.map(rule => (rule.id === id ? 'mine' : rule.id)));
      }),
    );
  });
});
