import { RequestQueue, type QueueLimits } from './source/admission/request-queue';
import type { WorkAnswer } from './source/worker/messages';
import type { Task, WorkerThread } from './source/worker/worker-thread';

/** Requests reach a thread in their order, some at once; of those that wait neither too many do, nor any too long. */

const ANSWER_MS = 1_000;
const LIMITS: QueueLimits = { atOnce: 2, lettersAtOnce: 100, lettersWaiting: 200, answerMs: ANSWER_MS };
const task = (input: string): Task => ({ name: 'edit', isHeavy: true, isAlone: true, input });

/** A thread of which a test says when it has done what. */
function laneOf() {
  const begun: string[] = [];
  const ends = new Map<string, (error?: Error) => void>();
  const thread = {
    ask: ({ input }: Task) =>
      new Promise<WorkAnswer>((resolve, reject) => {
        begun.push(String(input));
        ends.set(String(input), error => (error ? reject(error) : resolve({ id: 1, ms: 0, done: {} })));
      }),
  } as unknown as WorkerThread;
  const lane = new RequestQueue(thread, LIMITS);
  const end = async (name: string, error?: Error): Promise<void> => {
    ends.get(name)!(error);
    for (let turn = 0; turn < 10; turn++) await Promise.resolve();
  };
  return { lane, begun, end };
}

test('two at once, the others in their order', async () => {
  const { lane, begun, end } = laneOf();
  const all = ['a', 'b', 'c', 'd'].map(name => lane.ask(task(name), 10));
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
    void lane.ask(task(name), letters);
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
  void lane.ask(task('a'), 90);
  const waiting = lane.ask(task('b'), 150);
  await expect(lane.ask(task('c'), 60)).rejects.toMatchObject(refused);
  const late = expect(waiting).rejects.toMatchObject(refused);
  jest.advanceTimersByTime(ANSWER_MS);
  await late;
  const next = lane.ask(task('d'), 200);
  await end('a');
  jest.advanceTimersByTime(ANSWER_MS * 2);
  await end('d');
  await expect(next).resolves.toMatchObject({ done: {} });
  expect(begun).toEqual(['a', 'd']);
  jest.useRealTimers();
});

test('the longer requests take at present, the shorter they may wait to be begun', async () => {
  jest.useFakeTimers();
  const { lane, begun, end } = laneOf();
  void lane.ask(task('first'), 100);
  void lane.ask(task('second'), 100);
  jest.advanceTimersByTime(ANSWER_MS * 0.4);
  await end('first');
  const third = expect(lane.ask(task('third'), 100)).rejects.toMatchObject({ kind: 'busy' });
  jest.advanceTimersByTime(ANSWER_MS * 0.6);
  await end('second');
  await third;
  expect(begun).toEqual(['first', 'second']);
  // Where nothing is before it, it is begun however long it may take.
  void lane.ask(task('fourth'), 100);
  expect(begun.at(-1)).toBe('fourth');
  await end('fourth');
  for (let short = 0; short < 20; short++) {
    void lane.ask(task(`short ${short}`), 100);
    await end(`short ${short}`);
  }
  void lane.ask(task('fifth'), 100);
  void lane.ask(task('sixth'), 100);
  jest.advanceTimersByTime(ANSWER_MS * 0.5);
  await end('fifth');
  expect(begun.at(-1)).toBe('sixth');
  jest.useRealTimers();
});

test('after one that took very long others may still wait', async () => {
  jest.useFakeTimers();
  const { lane, begun, end } = laneOf();
  void lane.ask(task('long'), 100);
  jest.advanceTimersByTime(ANSWER_MS * 50);
  await end('long');
  void lane.ask(task('next'), 100);
  void lane.ask(task('behind'), 100);
  jest.advanceTimersByTime(ANSWER_MS * 0.3);
  await end('next');
  expect(begun).toEqual(['long', 'next', 'behind']);
  jest.useRealTimers();
});

test('what fails makes room like anything else', async () => {
  const { lane, begun, end } = laneOf();
  const failing = expect(lane.ask(task('a'), 100)).rejects.toThrow('gone');
  void lane.ask(task('b'), 100);
  await end('a', new Error('gone'));
  await failing;
  expect(begun).toEqual(['a', 'b']);
});
