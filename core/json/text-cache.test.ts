import { QUOTAS } from './quotas';
import { TextCache } from './text-cache';

test('what was made of a text is made once, as long as it is remembered', () => {
  const cache = new TextCache<string[]>();
  const first = cache.of('a', () => ['made']);
  expect(cache.of('a', () => ['anew'])).toBe(first);
  cache.clear();
  expect(cache.of('a', () => ['anew'])).toEqual(['anew']);
});

test('long texts are not kept, and all together are never more letters than are allowed', () => {
  const cache = new TextCache<number>();
  cache.of('x'.repeat(QUOTAS.rememberedText + 1), () => 1);
  expect(cache.size).toBe(0);
  const each = 10_000;
  for (let index = 0; index < 1000; index++) cache.of(String(index).padStart(each, ' '), () => index);
  expect(cache.size).toBe(QUOTAS.rememberedTexts / each);
  // The newest are there still.
  expect(cache.of('999'.padStart(each, ' '), () => -1)).toBe(999);
  expect(cache.of('0'.padStart(each, ' '), () => -1)).toBe(-1);
});
