import { randomly } from '../test/runs';
import fc from 'fast-check';
import { canonicalText } from '../documents/canonical';
import { parseJson, writeJson } from './json-text';
import { keysInOrder } from './key-order';
import { QUOTAS } from './quotas';
import { applyPatch } from '../patch/patch';
import { readJson, repeatedKeys } from './read-json';
import { shared } from './structural-sharing';

/** JSON as text in which names look like numbers, in any order; built as text, since an object would lose the order. */
const name = fc.oneof(
  fc.integer({ min: 0, max: 12 }).map(String),
  fc.constantFrom('a', 'ß', '$value', '01', '-1', '1.5', '__', 'say "so"', '4294967295', 'x/y~z'),
);
const jsonText = fc.letrec<{ value: string }>(tie => ({
  value: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.jsonValue({ maxDepth: 0 }).map(value => JSON.stringify(value)),
    fc
      .uniqueArray(fc.tuple(name, tie('value')), { selector: ([key]) => key, maxLength: 6 })
      .map(members => `{${members.map(([key, value]) => `${JSON.stringify(key)}:${value}`).join(',')}}`),
    fc.array(tie('value'), { maxLength: 4 }).map(items => `[${items.join(',')}]`),
  ),
})).value;

test('what is read is written again, byte by byte, with names that look like numbers in any order', () => {
  fc.assert(
    fc.property(jsonText, text => {
      expect(writeJson(parseJson(text))).toBe(text);
      const read = readJson(text);
      expect(read.ok && writeJson(read.value)).toBe(text);
    }),
    randomly('JSON text'),
  );
});

test('a token file keeps the order of its steps through reading, saving and an edit', () => {
  const text = `{
  "slate": {
    "900": {
      "$value": 1
    },
    "50": {
      "$value": 2
    },
    "$type": "number"
  }
}
`;
  const document = parseJson(text);
  expect(canonicalText('tokens', document)).toBe(text);
  const { document: edited, inverse } = applyPatch(document, [
    { op: 'replace', path: '/slate/50/$value', value: 3 },
    { op: 'add', path: '/slate/7', value: { $value: 4 } },
  ]);
  expect(keysInOrder((edited as Record<string, object>)['slate']!)).toEqual(['900', '50', '$type', '7']);
  expect(canonicalText('tokens', applyPatch(edited, inverse).document)).toBe(text);
  expect(writeJson(shared(document, parseJson(writeJson(edited))))).toBe(writeJson(edited));
});

test('an order that differs is a difference', () => {
  const [one, other] = ['{"2":0,"1":0}', '{"1":0,"2":0}'].map(parseJson);
  expect(writeJson(shared(one, other))).toBe('{"1":0,"2":0}');
});

test.each([
  ['{"a":', 6000],
  ['[', 200_000],
])('%s again and again is told with its place, not a full stack', (open, times) => {
  const read = readJson(open.repeat(times));
  expect(read).toMatchObject({
    ok: false,
    problem: { code: 'too-deep' },
    offset: 65 * open.length,
  });
});

const list = (members: number, member: string): string => `[${Array<string>(members).fill(member).join()}]`;
const nested = (depth: number, inner: string): string =>
  '[["]]","{",'.repeat(depth / 2) + inner + ']]'.repeat(depth / 2);
test('too many members are told at what has them', () => {
  expect(readJson(`{"a": [0, ${list(QUOTAS.members + 1, '0')}]}`)).toMatchObject({
    ok: false,
    problem: { code: 'too-many', pointer: '/a/1', message: 'More than 25000 members.' },
  });
});

test.each([
  ['a refused name', '{"a": {"__proto__": 1}}', 'refused-key'],
  ['one written by numbers', '{"\\u005f_proto__": 1}', 'refused-key'],
  ['one as a value', '{"a": "constructor"}', null],
  ['brackets in texts', '["[[[", "]]]", "\\"[", {"{{{": "}"}]', null],
  ['as deep as may be, with brackets in texts that close none', nested(64, '1'), null],
  ['deeper, with the same', nested(66, '1'), 'too-deep'],
  ['as many members as may be, with more commas in texts', list(QUOTAS.members, '",,,"'), null],
  ['more members of a list', list(QUOTAS.members + 1, '{}'), 'too-many'],
  [
    'more members of an object',
    `{"a": ${list(QUOTAS.members + 1, '"a":0').replace(/^\[(.*)\]$/, '{$1}')}}`,
    'too-many',
  ],
  ['many lists with more members together', list(QUOTAS.members, '[1,2,3]'), null],
])('%s', (_, text, code) => {
  const read = readJson(text);
  expect(read.ok ? null : read.problem.code).toBe(code);
  if (read.ok) expect(read.value).toEqual(JSON.parse(text));
});

test('names that stand twice in one object are told, each at its place; halves of characters are refused', () => {
  const text = '{"a": {"b": 1, "c": [{"d": 1}, {"d": 2, "\\u0064": 3}], "b": 2}, "c": 1}';
  expect(repeatedKeys(text).map(({ pointer, offset }) => [pointer, text.slice(offset, offset + 3)])).toEqual([
    ['/a/c/1/d', '"\\u'],
    ['/a/b', '"b"'],
  ]);
  expect(repeatedKeys('{"a": {"x": 1}, "b": {"x": 1}}')).toEqual([]);
  expect(readJson('{"a": ["ok \\ud83d\\ude00", "half \\ud83d"]}')).toMatchObject({
    ok: false,
    problem: { pointer: '/a/1', code: 'lone-surrogate' },
  });
});
