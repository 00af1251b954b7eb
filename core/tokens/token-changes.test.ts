import fc from 'fast-check';
import { applyPatch, type PatchOperation } from '../formats/patch';
import { pointer, valueAt } from '../formats/json';
import { freshSeed } from '../test/seed';
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
    { numRuns: Number(process.env['PERIWINKLE_RUNS'] ?? 500), seed: freshSeed('token changes') },
  );
});
