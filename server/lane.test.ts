import { Lane, type LaneLimits } from './source/lane';
import type { Told } from './source/work/messages';
import type { Task, WorkerThread } from './source/worker-thread';

/** Requests reach a thread in their order, some at once; of those that wait neither too many do, nor any too long. */

const LIMITS: LaneLimits = { atOnce: 2, lettersAtOnce: 100, lettersWaiting: 200 };
const WAIT_MS = 1_000;
const task = (input: string): Task => ({ name: 'edit', isHeavy: true, isAlone: true, input });

/** A thread of which a test says when it has done what. */
function laneOf() {
  const begun: string[] = [];
  const ends = new Map<string, (error?: Error) => void>();
  const thread = {
    ask: ({ input }: Task) =>
      new Promise<Told>((resolve, reject) => {
        begun.push(String(input));
        ends.set(String(input), error => (error ? reject(error) : resolve({ id: 1, ms: 0, done: {} })));
      }),
  } as unknown as WorkerThread;
  const lane = new Lane(thread, LIMITS);
  const end = async (name: string, error?: Error): Promise<void> => {
    ends.get(name)!(error);
    for (let turn = 0; turn < 10; turn++) await Promise.resolve();
  };
  return { lane, begun, end };
}

test('two at once, the others in their order', async () => {
  const { lane, begun, end } = laneOf();
  const all = ['a', 'b', 'c', 'd'].map(name => lane.ask(task(name), 10, WAIT_MS));
  expect(begun).toEqual(['a', 'b']);
  await end('b');
  expect(begun).toEqual(['a', 'b', 'c']);
  await end('a');
  await end('c');
  await end('d');
  expect(await Promise.all(all)).toHaveLength(4);
});

test('what is large goes alone, and nobody smaller passes it', async () => {
  const { lane, begun, end } = laneOf();
  for (const [name, letters] of Object.entries({ small: 10, large: 150, other: 10 }))
    void lane.ask(task(name), letters, WAIT_MS);
  expect(begun).toEqual(['small']);
  await end('small');
  expect(begun).toEqual(['small', 'large']);
  await end('large');
  expect(begun).toEqual(['small', 'large', 'other']);
});

test('where too much waits, and where one has waited too long, it is told to come again', async () => {
  jest.useFakeTimers();
  const { lane, begun, end } = laneOf();
  const refused = { status: 503, kind: 'busy' };
  void lane.ask(task('a'), 90, WAIT_MS);
  const waiting = lane.ask(task('b'), 150, WAIT_MS);
  await expect(lane.ask(task('c'), 60, WAIT_MS)).rejects.toMatchObject(refused);
  const late = expect(waiting).rejects.toMatchObject(refused);
  jest.advanceTimersByTime(WAIT_MS);
  await late;
  const next = lane.ask(task('d'), 200, WAIT_MS);
  await end('a');
  jest.advanceTimersByTime(WAIT_MS * 2);
  await end('d');
  await expect(next).resolves.toMatchObject({ done: {} });
  expect(begun).toEqual(['a', 'd']);
  jest.useRealTimers();
});

test('one may wait longer than another', async () => {
  jest.useFakeTimers();
  const { lane, begun, end } = laneOf();
  void lane.ask(task('a'), 100, WAIT_MS);
  const patient = lane.ask(task('b'), 100, WAIT_MS * 10);
  const other = expect(lane.ask(task('c'), 100, WAIT_MS)).rejects.toMatchObject({ kind: 'busy' });
  jest.advanceTimersByTime(WAIT_MS * 5);
  await other;
  await end('a');
  await end('b');
  await expect(patient).resolves.toMatchObject({ done: {} });
  expect(begun).toEqual(['a', 'b']);
  jest.useRealTimers();
});

test('what fails makes room like anything else', async () => {
  const { lane, begun, end } = laneOf();
  const failing = expect(lane.ask(task('a'), 100, WAIT_MS)).rejects.toThrow('gone');
  void lane.ask(task('b'), 100, WAIT_MS);
  await end('a', new Error('gone'));
  await failing;
  expect(begun).toEqual(['a', 'b']);
});
