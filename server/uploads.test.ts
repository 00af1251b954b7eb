import { Uploads } from './source/admission/uploads';

/** What is being sent stays within its bounds; only who has sent something and stands still gives way, and who sends comes to its end. */

const MOST = 1_000_000;
const PATIENCE_MS = 500;

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function room() {
  const uploads = new Uploads(MOST, PATIENCE_MS);
  const told: string[] = [];
  const begin = (name: string, isSmall = false) =>
    uploads.begin({
      isSmall,
      pause: () => told.push(`${name} waits`),
      resume: () => told.push(`${name} goes on`),
      giveWay: () => told.push(`${name} is ended`),
    });
  return { told, begin };
}

test('who has sent nothing takes no room and holds up nobody', () => {
  const { told, begin } = room();
  for (let count = 0; count < 1_000; count++) begin(`idle ${count}`);
  const other = begin('other');
  for (let count = 0; count < 10; count++) other.came(100_000);
  other.end();
  jest.advanceTimersByTime(PATIENCE_MS * 10);
  expect(told).toEqual([]);
});

test('where there is no room the first goes on and the others wait, until it has ended', () => {
  const { told, begin } = room();
  begin('idle');
  const [first, second, third] = [begin('first'), begin('second'), begin('third')];
  first.came(400_000);
  second.came(400_000);
  third.came(300_000);
  expect(told).toEqual(['third waits']);
  first.came(100_000);
  first.came(100_000);
  second.came(100_000);
  expect(told).toEqual(['third waits', 'second waits']);
  first.end();
  expect(told.slice(2)).toEqual(['second goes on', 'third goes on']);
  second.end();
  third.end();
  jest.advanceTimersByTime(PATIENCE_MS * 10);
  expect(told).toHaveLength(4);
});

test('who stands still gives way to those that wait, who holds most first, and only as many as must', () => {
  const { told, begin } = room();
  begin('little').came(100_000);
  begin('much').came(500_000);
  begin('some').came(300_000);
  const last = begin('last');
  last.came(200_000);
  expect(told).toEqual(['last waits']);
  jest.advanceTimersByTime(PATIENCE_MS - 1);
  expect(told).toEqual(['last waits']);
  jest.advanceTimersByTime(2);
  expect(told).toEqual(['last waits', 'much is ended', 'last goes on']);
});

test.each([
  [16_000, ['other waits']],
  [15_000, ['other waits', 'first is ended', 'other goes on']],
])('who sends %i bytes now and then while others wait', (bytes, expected) => {
  const { told, begin } = room();
  const first = begin('first');
  first.came(500_000);
  begin('other').came(600_000);
  jest.advanceTimersByTime(PATIENCE_MS * 0.9);
  first.came(bytes);
  jest.advanceTimersByTime(PATIENCE_MS * 0.9);
  expect(told).toEqual(expected);
});

test('small ones never wait, and give way as others do', () => {
  const { told, begin } = room();
  const large = begin('large');
  large.came(900_000);
  for (let count = 0; count < 4; count++) begin(`small ${count}`, true).came(50_000);
  expect(told).toEqual([]);
  jest.advanceTimersByTime(PATIENCE_MS - 1);
  large.came(16_000);
  jest.advanceTimersByTime(2);
  expect(told).toEqual(['small 0 is ended', 'small 1 is ended', 'small 2 is ended']);
});

test('whoever ended, or was ended, counts no more', () => {
  const { told, begin } = room();
  const [gone, other] = [begin('gone'), begin('other')];
  gone.came(900_000);
  gone.end();
  gone.end();
  gone.came(900_000);
  other.came(900_000);
  expect(told).toEqual([]);
});
