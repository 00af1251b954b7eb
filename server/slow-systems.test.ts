import { SlowSystems } from './source/admission/slow-systems';

/** A system is slow once more small requests on it were slow than quick, and no longer when it has been quick again. */

const slowAfter = (...ms: readonly number[]): boolean => {
  const systems = new SlowSystems();
  for (const each of ms) systems.tell('a', each);
  return systems.isSlow('a');
};
const times = (count: number, ms: number): number[] => Array<number>(count).fill(ms);

test.each([
  ['one slow request', [9_000], false],
  ['three in a row', times(3, 200), true],
  ['quick ones between, as many', [200, 5, 200, 5, 200, 5, 200, 5], false],
  ['quick ones between, but fewer', [200, 5, 200, 200, 5, 200, 200, 5, 200], true],
  ['a slow time that is over', [...times(50, 200), ...times(8, 5)], false],
  ['a quick time before', [...times(50, 5), ...times(3, 200)], true],
])('%s', (_, ms, isSlow) => expect(slowAfter(...ms)).toBe(isSlow));

test('what is found to be large is slow at once, and others are not', () => {
  const systems = new SlowSystems();
  systems.mark('a');
  expect([systems.isSlow('a'), systems.isSlow('b')]).toEqual([true, false]);
});
