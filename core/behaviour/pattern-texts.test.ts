import { randomly } from '../test/runs';
import fc from 'fast-check';
import { textsBeside, textsMatching } from './pattern-texts';

test.each([
  '^[A-Z]',
  '^[A-Z]{2}-\\d{4}$',
  '^(?=.*\\d)(?=.*[A-Z]).{8,}$',
  '^(north|south|east) quay$',
  '^\\p{Lu}\\p{Ll}+$',
  '^[^@\\s]+@[^@\\s]+\\.[a-z]{2,}$',
  '^(?!00)\\d{2}$',
  '^.{3,5}$',
  '[€£]\\d+',
  '^[\\u0400-\\u04FF]+$',
])('%s: texts that match, and some that do not', pattern => {
  const matching = textsMatching(pattern);
  const tried = new RegExp(pattern, 'u');
  expect(matching.length).toBeGreaterThan(0);
  expect(matching.every(text => tried.test(text))).toBe(true);
  expect(textsBeside(matching).some(text => !tried.test(text))).toBe(true);
});

test.each(['(', '[z-a]', '(?<=x)$.', 'a{3}(?!a|b|c)(?<!a)', 'x'.repeat(400)])(
  'nothing is made of %s, and nothing is thrown',
  pattern => expect(textsMatching(pattern)).toEqual([]),
);

/** Patterns put together from what people write. */
const patterns = fc.letrec<{ whole: string; piece: string; one: string }>(tie => ({
  one: fc.constantFrom('[A-Z]', '\\d', '[a-z]', 'x', '-', '\\.', '\\w', '[^0-9]', '\\p{L}', '.'),
  piece: fc.oneof(
    { maxDepth: 2 },
    tie('one'),
    fc
      .tuple(tie('one'), fc.constantFrom('+', '*', '?', '{2}', '{1,3}', '{3,}'))
      .map(([one, often]) => one + often),
    fc.tuple(tie('piece'), tie('piece')).map(([one, other]) => `(${one}|${other})`),
  ),
  whole: fc.array(tie('piece'), { minLength: 1, maxLength: 5 }).map(pieces => `^${pieces.join('')}$`),
})).whole;

test('whatever can be matched is matched by something', () => {
  fc.assert(
    fc.property(patterns, pattern => {
      const matching = textsMatching(pattern);
      // Only what takes nothing but the empty text has none.
      if (matching.length === 0) expect(new RegExp(pattern, 'u').test('')).toBe(true);
    }),
    randomly('patterns'),
  );
});
