import { PatchError, type PatchOperation } from './operations';
import { applyPatch } from './patch';

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
    ['remove a member before others', [{ op: 'remove', path: '/rules/0/id' }]],
    ['rename a member before others', [{ op: 'move', from: '/rules/0/id', path: '/rules/0/name' }]],
    ['a member becomes the last', [{ op: 'move', from: '/rules', path: '/rules' }]],
    ['move in a list', [{ op: 'move', from: '/rules/0', path: '/rules/2' }]],
    ['move to the end', [{ op: 'move', from: '/rules/0', path: '/rules/-' }]],
    ['move into what comes behind', [{ op: 'move', from: '/title', path: '/rules/2/set/title' }]],
    ['move out of an entry to its place', [{ op: 'move', from: '/rules/0/set', path: '/rules/0' }]],
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
    expect(JSON.stringify(after)).not.toBe(JSON.stringify(document));
    // The order of members counts in a rule's `set`.
    expect(JSON.stringify(applyPatch(after, inverse).document)).toBe(JSON.stringify(document));
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
    ['a move into itself', { op: 'move', from: '/rules', path: '/rules/0' }],
    ['a move of nothing', { op: 'move', from: '/nothing', path: '/note' }],
    ['a place past the end', { op: 'add', path: '/rules/7', value: {} }],
  ])('%s is refused and changes nothing', (_, operation) => {
    const before = structuredClone(document);
    expect(() => applyPatch(document, [{ op: 'replace', path: '/title', value: 'U' }, operation])).toThrow(
      PatchError,
    );
    expect(document).toEqual(before);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  const doubling: PatchOperation[] = Array.from({ length: 40 }, (_, place) => ({
    op: 'copy' as const,
    from: '/rules',
    path: `/rules/0/set/copy${place}`,
  }));
  const nested = (depth: number): unknown => (depth === 0 ? 1 : { in: nested(depth - 1) });
  test.each<[string, PatchOperation[], RegExp]>([
    ['a document that is doubled again and again', doubling, /letters would be copied/],
    [
      'the root within itself',
      [{ op: 'move', from: '', path: '/rules/0' }],
      /cannot be moved into itself|whole document/,
    ],
    ['too deep a value', [{ op: 'add', path: '/rules/0/set/deep', value: nested(63) }], /64 levels/],
    [
      'a value that is moved too deep',
      [
        { op: 'add', path: '/deep', value: nested(60) },
        { op: 'add', path: '/other', value: nested(10) },
        { op: 'move', from: '/deep', path: '/other/in/in/in/in/in/in/deep' },
      ],
      /64 levels/,
    ],
    ...(['__proto__', 'constructor', 'prototype'] as const).map(
      (name): [string, PatchOperation[], RegExp] => [
        `a member called ${name}`,
        [{ op: 'add', path: `/rules/0/set/${name}`, value: 1 }],
        /cannot be used as a key|prototype|Performance/i,
      ],
    ),
    [
      'more than could be taken back',
      [
        {
          op: 'add',
          path: '/many',
          value: Object.fromEntries(Array.from({ length: 1000 }, (_, index) => [`m${index}`, 1])),
        },
        ...Array.from({ length: 900 }, (_, index): PatchOperation => ({
          op: 'remove',
          path: `/many/m${index}`,
        })),
      ],
      /more than 200000 operations/,
    ],
  ])('%s is refused', (_, patch, reason) => {
    expect(() => applyPatch(document, patch)).toThrow(reason);
  });

  test.each<[string, PatchOperation[]]>([
    ['a member that is taken away', [{ op: 'remove', path: '/of/m2' }]],
    ['one that is renamed', [{ op: 'move', from: '/of/m2', path: '/of/other' }]],
    ['one that becomes the last', [{ op: 'move', from: '/of/m2', path: '/of/m2' }]],
    ['some of several objects', ['/of/m2', '/m1', '/of/m7', '/m0'].map(path => ({ op: 'remove', path }))],
  ])('%s, taken back and brought back time and again: what takes it back does not grow', (_, patch) => {
    const members = Object.fromEntries(Array.from({ length: 10 }, (__, index) => [`m${index}`, index]));
    const before: unknown = { ...members, of: members };
    const states: string[] = [];
    const lengths: number[] = [];
    let [here, next]: [unknown, PatchOperation[]] = [before, patch];
    for (let step = 0; step < 20; step++) {
      ({ document: here, inverse: next } = applyPatch(here, next));
      states.push(JSON.stringify(here));
      lengths.push(next.length);
    }
    expect(states.filter((_state, step) => step % 2 === 1)).toEqual(Array(10).fill(JSON.stringify(before)));
    expect(new Set(states.filter((_state, step) => step % 2 === 0)).size).toBe(1);
    expect(Math.max(...lengths)).toBeLessThanOrEqual(patch.length * 11);
  });

  test.each<[string, PatchOperation[], unknown]>([
    ['taking it away', [{ op: 'remove', path: '' }], null],
    ['a part of it in its stead', [{ op: 'move', from: '/rules/0/set', path: '' }], document.rules[0]!.set],
    ['a copy of a part in its stead', [{ op: 'copy', from: '/rules', path: '' }], document.rules],
    ['itself in its stead', [{ op: 'move', from: '', path: '' }], document],
    [
      'another after it',
      [
        { op: 'remove', path: '' },
        { op: 'add', path: '', value: {} },
        { op: 'add', path: '/x', value: 1 },
      ],
      { x: 1 },
    ],
  ])('the whole document: %s', (_, patch, expected) => {
    const { document: done, inverse } = applyPatch<unknown>(document, patch);
    expect(done).toEqual(expected);
    expect(applyPatch<unknown>(done, inverse).document).toEqual(document);
    // Where nothing is left, only what is replaced as a whole can be put back.
    if (done === null) expect(inverse).toEqual([{ op: 'replace', path: '', value: document }]);
  });

  test('a copy keeps the order of names that look like numbers', () => {
    const ordered = JSON.parse('{"a":{}}') as Record<string, unknown>;
    const { document: put } = applyPatch(ordered, [
      { op: 'add', path: '/a/900', value: 1 },
      { op: 'add', path: '/a/50', value: 2 },
      { op: 'copy', from: '/a', path: '/b' },
    ]);
    expect(Object.keys(put)).toEqual(['a', 'b']);
    expect(put['b']).toEqual(put['a']);
    expect(put['b']).not.toBe(put['a']);
  });
});
