import { UnderWay } from './source/under-way';

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
  return { gone, underWay, hold };
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

test('who goes on is younger than who stands still', () => {
  const { gone, hold } = held();
  const [first] = ['a', 'b', 'c'].map(name => hold(name, { letters: 40 }));
  jest.advanceTimersByTime(PATIENCE_MS - 1);
  first!.goOn();
  jest.advanceTimersByTime(2);
  expect(gone).toEqual(['b']);
  first!.end();
  first!.goOn();
  jest.advanceTimersByTime(PATIENCE_MS * 2);
  expect(gone).toEqual(['b']);
});

test('who lets go in time ends nobody', () => {
  const { gone, hold } = held();
  const ends = ['a', 'b', 'c', 'd'].map(name => hold(name, { letters: 40 }));
  ends[2]!.end();
  ends[3]!.end();
  ends[3]!.end();
  jest.advanceTimersByTime(PATIENCE_MS * 10);
  expect(gone).toEqual([]);
});

test('what several hold is counted once', () => {
  const { gone, hold } = held();
  const shared = { letters: 90 };
  const ends = Array.from({ length: 20 }, (_, index) => hold(`reader ${index}`, shared, { letters: 0 }));
  jest.advanceTimersByTime(PATIENCE_MS * 2);
  expect(gone).toEqual([]);
  ends.slice(1).forEach(({ end }) => end());
  hold('other', { letters: 20 });
  expect(gone).toEqual(['reader 0']);
});

test('what is to come waits in its turn for room, or until somebody slow gives way', () => {
  const { gone, underWay } = held();
  const begun: string[] = [];
  const ask = (name: string, letters: number) =>
    underWay.holdInTurn(
      [{ letters }],
      () => gone.push(name),
      () => begun.push(name),
    );
  const first = ask('a', 60);
  ask('b', 30);
  const third = ask('c', 30);
  ask('d', 5);
  expect(begun).toEqual(['a', 'b']);
  third.end();
  expect(begun).toEqual(['a', 'b', 'd']);
  const last = ask('e', 70);
  first.end();
  expect(begun).toEqual(['a', 'b', 'd']);
  jest.advanceTimersByTime(PATIENCE_MS + 1);
  expect({ begun, gone }).toEqual({ begun: ['a', 'b', 'd', 'e'], gone: ['b'] });
  last.end();
  jest.advanceTimersByTime(PATIENCE_MS * 2);
  expect(gone).toEqual(['b']);
});

test('something larger than all may be has its turn when nobody else holds anything', () => {
  const { gone, underWay } = held();
  const begun: string[] = [];
  const small = underWay.holdInTurn([{ letters: 10 }], jest.fn(), () => begun.push('small'));
  underWay.holdInTurn(
    [{ letters: 1000 }],
    () => gone.push('large'),
    () => begun.push('large'),
  );
  expect(begun).toEqual(['small']);
  small.end();
  expect(begun).toEqual(['small', 'large']);
});
