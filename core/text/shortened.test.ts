import { hasLoneSurrogate } from '../json/lone-surrogates';
import { shortened } from './shortened';

test.each([
  ['short enough', 20, 'short enough'],
  ['A berth set to ⚓️⚓️', 17, 'A berth set to ⚓️'],
  ['A berth set to ⚓️⚓️', 16, 'A berth set to '],
  ['👩‍🚒👩‍🚒', 4, '👩‍🚒'],
  ['👩‍🚒', 2, ''],
  ['half \ud83d', 20, 'half '],
  ['𝔸𝔹ℂ', 2, '𝔸𝔹'],
])('%j with %i at most is %j', (text, most, wanted) => {
  expect(shortened(text, most)).toBe(wanted);
  expect(() => encodeURIComponent(shortened(text, most))).not.toThrow();
});

test('a half of a character is found wherever it stands', () => {
  expect(['\ud83d', 'a\udc00b', '\udc00\ud83d'].map(hasLoneSurrogate)).toEqual([true, true, true]);
  expect(['', 'a', '👩‍🚒', '\ufffd'].map(hasLoneSurrogate)).toEqual([false, false, false, false]);
});
