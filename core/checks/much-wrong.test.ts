import type { Documents } from '../documents/document-kinds';
import { QUOTAS } from '../json/quotas';
import { demoDocuments } from '../test/demo';
import { checkSystem } from './check-system';

/** Short documents in which very much is wrong: it is told with its place, and ends where nobody would read on. */

const demo = demoDocuments();
const FIELD = 'components/text-field.component.json';
type Open = Record<string, unknown>;
const field = (more: object): Documents =>
  new Map(demo).set(FIELD, { ...(demo.get(FIELD) as Open), ...more });
const many = <Value>(length: number, make: (index: number) => Value): Value[] =>
  Array.from({ length }, (_, index) => make(index));
const members = (length: number, value: unknown): Open =>
  Object.fromEntries(many(length, index => [`k${index}`, value]));

/** What is told of a file, as `pointer code`. */
const told = (documents: Documents, file: string): string[] =>
  checkSystem(documents)
    .problems.filter(problem => problem.file === file)
    .map(({ pointer, code }) => `${pointer} ${code}`);

const rule = (set: object, when: object = {}): object => ({ id: 'much', when, set });

test.each<[string, object, string]>([
  ['parts in a rule', { rules: [rule(members(QUOTAS.entries + 1, {}))] }, '/rules/0/set too-many'],
  ['axes in a condition', { rules: [rule({}, members(QUOTAS.entries + 1, 'x'))] }, '/rules/0/when too-many'],
  [
    'values in a condition',
    { rules: [rule({}, { pointer: many(QUOTAS.entries + 1, () => 'over') })] },
    '/rules/0/when/pointer too-many',
  ],
  ['keys of the guide', { guide: members(QUOTAS.entries + 1, 'x') }, '/guide too-many'],
  ['entries of a list', { situations: many(QUOTAS.entries + 1, () => ({})) }, '/situations too-many'],
])('too many %s are told, and the rest is checked', (_, more, expected) => {
  const problems = told(field({ ...more, sumary: 'x' }), FIELD);
  expect(problems).toContain(expected);
  expect(problems).toContain('/sumary unknown-key');
  expect(problems.filter(each => each.startsWith(`${expected.split(' ')[0]!}/`))).toEqual([]);
});

test('of a document that is too large as a whole nothing else is said', () => {
  const rules = many(QUOTAS.rules, () => rule(members(30, {})));
  expect(told(field({ rules, sumary: 'x' }), FIELD)).toEqual([' too-many']);
  const children = many(QUOTAS.parts, index => ({ part: `p${index}`, kind: 'row' }));
  const { anatomy } = demo.get(FIELD) as { anatomy: { children: readonly object[] } };
  expect(
    told(field({ anatomy: { ...anatomy, children: [...anatomy.children, ...children] } }), FIELD),
  ).toEqual(['/anatomy too-many']);
});

test('as much as may be is not too much', () => {
  const children = many(QUOTAS.parts - 1, index => ({ part: `p${index}`, kind: 'row' }));
  const rules = many(QUOTAS.rules, index => ({ ...rule({}), id: `r${index}` }));
  const bare = { format: 'periwinkle-component/1', id: 'bare', title: 'Bare', rules };
  const document = { ...bare, anatomy: { part: 'root', kind: 'row', children } };
  const problems = checkSystem(new Map(demo).set('components/bare.component.json', document)).problems;
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
});

test('rules after very many that are wrong are not looked at, which is told', () => {
  const rules = many(900, () => rule({ [`frm`]: {}, frame: { colr: '{x}' } }));
  const problems = told(field({ rules }), FIELD);
  expect(problems).toContain('/rules too-many-problems');
  expect(problems).toContain('/rules/0/set/frm unknown-part');
  expect(problems.filter(each => each.includes('unknown-property')).length).toBeLessThan(
    QUOTAS.problemsFound,
  );
});

/** A system of tokens alone, in one set. */
const ofTokens = (tokens: object): Documents =>
  new Map<string, unknown>([
    [
      'system.json',
      {
        format: 'periwinkle-system/1',
        id: 'much',
        title: 'Much',
        prefix: 'm',
        resolver: 'tokens/r.resolver.json',
      },
    ],
    ['tokens/a.tokens.json', tokens],
    [
      'tokens/r.resolver.json',
      {
        version: '2025.10',
        sets: { a: { sources: [{ $ref: 'a.tokens.json' }] } },
        resolutionOrder: [{ $ref: '#/sets/a' }],
      },
    ],
  ]);
const TOKENS = 'tokens/a.tokens.json';

test.each<[string, (index: number) => object]>([
  ['of another type', () => ({ $type: 'color', $value: 'x' })],
  ['that refer to nothing', index => ({ $type: 'color', $value: `{x${index}}` })],
  ['without a type', () => ({ $value: 'x' })],
  ['wrong in many ways', () => ({ $type: 'shadow', $value: [{}, { color: 1 }] })],
])('tokens %s: those after very many are not looked at, which is told once', (_, make) => {
  const tokens = Object.fromEntries(many(19_000, index => [`t${index}`, make(index)]));
  const problems = told(ofTokens(tokens), TOKENS);
  expect(problems.length).toBeGreaterThan(QUOTAS.problemsFound);
  expect(problems.length).toBeLessThan(QUOTAS.problemsFound + 30);
  expect(problems.filter(each => each.endsWith('too-many-problems'))).toHaveLength(1);
});

test('of one value twenty faults are told', () => {
  const tokens = { t: { $type: 'shadow', $value: many(20_000, () => ({})) } };
  expect(told(ofTokens(tokens), TOKENS)).toHaveLength(20);
});

test('a file of tokens with more values than may be', () => {
  const layer = { color: '#000000', offsetX: 1, offsetY: 1, blur: 1, spread: 1 };
  const tokens = {
    t: { $type: 'shadow', $value: many(20_000, () => ({ ...layer, more: many(10, Number) })) },
  };
  expect(told(ofTokens(tokens), TOKENS)).toEqual([' too-many']);
});

test('who refers to a token that is wrong is not to blame, whatever its own name begins with', () => {
  const tokens = {
    sea: { $type: 'color', $value: 'x' },
    seaweed: { $type: 'color', $value: '{sea.deep}' },
    shore: { $type: 'color', $value: '{sea.deep}' },
  };
  expect(told(ofTokens(tokens), TOKENS)).toEqual(['/sea/$value wrong-value']);
});
