import { mergeTrees, NO_TOKENS, readTree, type DeclaredGroup, type DeclaredToken } from './token-tree';

/** Trees laid over one another: all at once comes to what one after the other does. */

const number = (value: number) => ({ $type: 'number', $value: value });
const tree = (body: object, file = 'a'): DeclaredGroup =>
  readTree(body, file, [], () => {
    throw new Error('This tree is sound.');
  });

/** Values of tokens by their paths, in order, and what groups say of themselves. */
function told(group: DeclaredGroup, at = ''): Record<string, unknown> {
  const own = Object.keys(group.own).length > 0 ? { [`${at}*`]: group.own } : {};
  return [...group.members].reduce<Record<string, unknown>>(
    (sum, [name, member]: [string, DeclaredToken | DeclaredGroup]) => ({
      ...sum,
      ...(member.kind === 'token' ? { [at + name]: member.body['$value'] } : told(member, `${at}${name}.`)),
    }),
    own,
  );
}

/** The plain way: two at a time, copied each time. */
function onTop(below: DeclaredGroup, above: DeclaredGroup): DeclaredGroup {
  const members = new Map(below.members);
  for (const [name, member] of above.members) {
    const before = members.get(name);
    members.set(name, before?.kind === 'group' && member.kind === 'group' ? onTop(before, member) : member);
  }
  return { kind: 'group', own: { ...below.own, ...above.own }, members, origin: above.origin };
}

test('the later wins token by token, groups grow together, a token between groups parts them', () => {
  const merged = mergeTrees([
    tree({ ink: { $description: 'first', deep: number(1), pale: number(2) }, gap: number(3) }),
    tree({ ink: number(4) }),
    tree({ ink: { $description: 'last', deep: number(5) }, gap: number(6), line: number(7) }),
    tree({ ink: { $type: 'number', dark: number(8) } }),
  ]);
  expect(told(merged)).toEqual({
    'ink.*': { $description: 'last', $type: 'number' },
    'ink.deep': 5,
    'ink.dark': 8,
    gap: 6,
    line: 7,
  });
});

test('random trees come to the same as one after the other', () => {
  let state = 7;
  const random = (below: number): number => (state = (state * 48_271) % 2_147_483_647) % below;
  const body = (depth: number): object =>
    Object.fromEntries(
      Array.from({ length: random(4) }, () => [
        'abcd'[random(4)]!,
        depth === 0 || random(3) === 0 ? number(random(100)) : body(depth - 1),
      ]),
    );
  for (let turn = 0; turn < 300; turn++) {
    const trees = Array.from({ length: random(6) }, (_, index) => tree(body(3), `${index}`));
    const all = trees.flatMap(each => (random(3) === 0 ? [each, each] : [each]));
    const again = trees.filter(() => random(3) === 0);
    // A token between groups of a name parts them, and then order is that of the last of them.
    expect(told(mergeTrees([...all, ...again, ...all]))).toEqual(
      told([...all, ...again, ...all].reduce(onTop, NO_TOKENS)),
    );
    const [merged, expected] = [mergeTrees(all), all.reduce(onTop, NO_TOKENS)];
    expect(told(merged)).toEqual(told(expected));
    expect(Object.keys(told(merged))).toEqual(Object.keys(told(expected)));
  }
});

test('what nothing lies over is the same object, and so is what was merged before', () => {
  const [first, second] = [tree({ ink: { deep: number(1) } }), tree({ ink: { pale: number(2) } })];
  expect(mergeTrees([NO_TOKENS, first, first, NO_TOKENS])).toBe(first);
  expect(mergeTrees([first, NO_TOKENS, second])).toBe(mergeTrees([first, second]));
  expect(mergeTrees([])).toBe(NO_TOKENS);
});
