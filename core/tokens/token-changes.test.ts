import { randomly } from '../test/runs';
import fc from 'fast-check';
import type { PatchOperation } from '../patch/operations';
import { applyPatch } from '../patch/patch';
import { pointer, valueAt } from '../json/json';
import { TokenModel } from './token-model';
import type { TokenSet } from './token-set';

/** A set that takes over what has not changed is the set that is resolved from the beginning, whatever was changed. */

const FILE = 'tokens/a.tokens.json';
const px = (value: number) => ({ $value: { value, unit: 'px' } });
const TREE = {
  raw: { $type: 'dimension', one: px(1), two: px(2), deep: { three: px(3), four: { $value: '{raw.one}' } } },
  role: {
    $type: 'dimension',
    gap: { $value: '{raw.deep.four}' },
    edge: { $value: '{raw.two}' },
    far: { $value: '{role.gap}' },
  },
  more: { $extends: '{role}', gap: px(9) },
  tint: { $type: 'color', ink: { $value: '#101010' }, line: { $value: '{tint.ink}' } },
};

const PLACES = [
  ...['raw/one', 'raw/two', 'raw/deep/three', 'raw/deep/four', 'role/gap', 'role/edge', 'role/far'],
  ...['more/gap', 'tint/ink', 'tint/line', 'raw/new', 'role/new', 'raw/deep/$root'],
].map(path => path.split('/'));
const GROUPS = ['raw', 'raw/deep', 'role', 'more', 'tint'].map(path => path.split('/'));
const VALUES = [
  ...[px(1), px(7), { $value: '#fefefe' }, { $value: 'wrong' }, { $type: 'number', $value: 3 }],
  ...['raw.one', 'role.far', 'tint.ink', 'raw.nothing', 'more.edge'].map(key => ({ $value: `{${key}}` })),
];
const OWN = [
  { name: '$type', value: 'dimension' },
  { name: '$type', value: 'color' },
  { name: '$deprecated', value: true },
  { name: '$extends', value: '{raw}' },
  { name: '$description', value: 'Some.' },
];

const edits = fc.array(
  fc.record({
    kind: fc.constantFrom('set', 'set', 'set', 'remove', 'own', 'last'),
    place: fc.nat(PLACES.length - 1),
    value: fc.nat(VALUES.length - 1),
    group: fc.nat(GROUPS.length - 1),
    own: fc.nat(OWN.length - 1),
  }),
  { minLength: 1, maxLength: 8 },
);

function operationFor(
  document: unknown,
  {
    kind,
    place,
    value,
    group,
    own,
  }: { kind: string; place: number; value: number; group: number; own: number },
): PatchOperation | null {
  const steps = PLACES[place]!;
  const path = pointer(...steps);
  const isThere = valueAt(document, steps) !== undefined;
  const hasParent = valueAt(document, steps.slice(0, -1)) !== undefined;
  if (kind === 'set') return hasParent ? { op: 'add', path, value: VALUES[value]! } : null;
  if (kind === 'remove') return isThere ? { op: 'remove', path } : null;
  // Moved to where it is, it becomes the last.
  if (kind === 'last') return isThere ? { op: 'move', from: path, path } : null;
  const { name, value: said } = OWN[own]!;
  const isGroup = valueAt(document, GROUPS[group]!) !== undefined;
  return isGroup ? { op: 'add', path: pointer(...GROUPS[group]!, name), value: said } : null;
}

const told = ({ byKey, unresolved, problems }: TokenSet): unknown => [
  [...byKey],
  [...unresolved].sort(),
  problems.map(problem => JSON.stringify(problem)).sort(),
];

test('after each edit', () => {
  fc.assert(
    fc.property(edits, all => {
      let document: unknown = TREE;
      let model = new TokenModel(new Map([[FILE, document]]), undefined);
      model.in();
      for (const edit of all) {
        const operation = operationFor(document, edit);
        if (!operation) continue;
        document = applyPatch(document, [operation]).document;
        model = new TokenModel(new Map([[FILE, document]]), undefined, model);
        const fresh = new TokenModel(new Map([[FILE, structuredClone(document)]]), undefined);
        expect(told(model.in())).toEqual(told(fresh.in()));
      }
    }),
    randomly('token changes'),
  );
});

/** Contexts lay other trees over the first; what they share is taken over from whichever was asked for before. */
const RESOLVER = 'tokens/all.resolver.json';
const over = (...values: [string, number][]) =>
  values.reduce<object>((tree, [path, value]) => {
    const [group, name] = path.split('.') as [string, string];
    return {
      ...tree,
      [group]: { ...(tree as Record<string, object>)[group], [name]: { $type: 'dimension', ...px(value) } },
    };
  }, {});
const RESOLVED = {
  version: '2025.10',
  sets: { base: { sources: [{ $ref: 'a.tokens.json' }] } },
  modifiers: {
    size: {
      default: 'usual',
      contexts: {
        usual: [],
        small: [over(['raw.one', 0])],
        large: [over(['raw.one', 9], ['raw.two', 9])],
        lost: [{ raw: { deep: { four: { $value: '{raw.nothing}', $type: 'dimension' } } } }],
        more: [over(['raw.extra', 3], ['role.gap', 4])],
      },
    },
    face: {
      default: 'plain',
      contexts: {
        plain: [],
        bold: [{ tint: { ink: { $value: { colorSpace: 'srgb', components: [1, 0, 0] }, $type: 'color' } } }],
        odd: [{ tint: { line: { $value: '{role.far}' } }, role: { edge: { $value: '{raw.one}' } } }],
      },
    },
  },
  resolutionOrder: [{ $ref: '#/sets/base' }, { $ref: '#/modifiers/size' }, { $ref: '#/modifiers/face' }],
};
const SIZES = Object.keys(RESOLVED.modifiers.size.contexts);
const FACES = Object.keys(RESOLVED.modifiers.face.contexts);

test('in whatever order contexts are asked for', () => {
  const documents = new Map<string, unknown>([
    [FILE, TREE],
    [RESOLVER, RESOLVED],
  ]);
  const all = SIZES.flatMap(size => FACES.map(face => ({ size, face })));
  const alone = new Map(
    all.map(input => [input, told(new TokenModel(structuredClone(documents), RESOLVER).in(input))]),
  );
  fc.assert(
    fc.property(fc.shuffledSubarray(all, { minLength: 2 }), inputs => {
      const model = new TokenModel(documents, RESOLVER);
      for (const input of inputs) expect(told(model.in(input))).toEqual(alone.get(input));
    }),
    randomly('context changes'),
  );
});

test('what contexts share is the same token in all of them', () => {
  const model = new TokenModel(
    new Map<string, unknown>([
      [FILE, TREE],
      [RESOLVER, RESOLVED],
    ]),
    RESOLVER,
  );
  const [usual, small] = [model.in({}), model.in({ size: 'small' })];
  const isShared = (key: string): boolean => usual.byKey.get(key) === small.byKey.get(key);
  const others = [...usual.byKey.keys()].filter(key => !isShared(key));
  expect(others).toEqual(['raw.one', 'raw.deep.four', 'role.gap', 'role.far', 'more.far']);
});
