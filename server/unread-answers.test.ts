import { UnderWay } from './source/admission/unread-answers';

/** What is held for requests stays within its bounds; those that have held theirs for longest give way, and nobody who has just begun. */

interface Text {
  readonly letters: number;
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const MOST = 100;
const PATIENCE_MS = 2_000;

function held() {
  const gone: string[] = [];
  const underWay = new UnderWay<Text>(MOST, ({ letters }) => letters, PATIENCE_MS);
  const hold = (name: string, ...texts: readonly Text[]) => underWay.hold(texts, () => gone.push(name));
  return { gone, hold };
}

test('the oldest give way, once they have had their time, and only as many as must', () => {
  const { gone, hold } = held();
  for (const name of ['a', 'b', 'c', 'd']) hold(name, { letters: 40 });
  expect(gone).toEqual([]);
  jest.advanceTimersByTime(PATIENCE_MS + 1);
  expect(gone).toEqual(['a', 'b']);
  hold('e', { letters: 40 });
  expect(gone).toEqual(['a', 'b', 'c']);
});

test('who lets go in time ends nobody', () => {
  const { gone, hold } = held();
  const ends = ['a', 'b', 'c', 'd'].map(name => hold(name, { letters: 40 }));
  ends[2]!();
  ends[3]!();
  ends[3]!();
  jest.advanceTimersByTime(PATIENCE_MS * 10);
  expect(gone).toEqual([]);
});

test('what several hold is counted once', () => {
  const { gone, hold } = held();
  const shared = { letters: 90 };
  const ends = Array.from({ length: 20 }, (_, index) => hold(`reader ${index}`, shared, { letters: 0 }));
  jest.advanceTimersByTime(PATIENCE_MS * 2);
  expect(gone).toEqual([]);
  ends.slice(1).forEach(end => end());
  hold('other', { letters: 20 });
  expect(gone).toEqual(['reader 0']);
});
