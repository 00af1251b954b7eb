import { placeAt, lineAndColumnOf } from './source/place';

const text = `{
  "rules": [
    { "id": "a", "set": { "a/b": { "x~y": 1 } } },
    { "id": "b" }
  ]
}
`;
const lineFrom = (pointer: string): string => {
  const { line, column } = lineAndColumnOf(text, pointer);
  return text.split('\n')[line - 1]!.slice(column - 1);
};

test('a member is found at its key, an entry at its beginning', () => {
  expect(lineFrom('/rules/1/id')).toBe('"id": "b" }');
  expect(lineFrom('/rules/0')).toMatch(/^\{ "id": "a"/);
  expect(lineFrom('/rules')).toBe('"rules": [');
});

test('escaped names are unescaped', () => {
  expect(lineFrom('/rules/0/set/a~1b/x~0y')).toMatch(/^"x~y": 1/);
});

test('what is missing is found where it is missing', () => {
  expect(lineFrom('/rules/1/when/pointer')).toBe('{ "id": "b" }');
  expect(lineAndColumnOf(text, '')).toEqual({ line: 1, column: 1 });
  expect(lineAndColumnOf('', '/x')).toEqual({ line: 1, column: 1 });
});

test('offsets count lines and columns from 1', () => {
  expect(placeAt('ab\ncd', 0)).toEqual({ line: 1, column: 1 });
  expect(placeAt('ab\ncd', 4)).toEqual({ line: 2, column: 2 });
});
