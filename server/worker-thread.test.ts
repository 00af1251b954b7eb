import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { WorkerThread, type Task } from './source/worker/worker-thread';

/** A thread is given up where a request computes too long or needs too much memory; nobody else's work is lost without a word. */

const file = pathToFileURL(join(process.cwd(), 'server/test/stubborn-worker.mjs'));
const settings = { databaseUrl: '', isHeavy: false, mostMs: 500, mostMegabytes: 64, restMs: 100 };
const after = { rest: () => {}, fault: () => {} };
const asked = (input: string): Task => ({ name: 'edit', isHeavy: false, isAlone: false, input });

test.each(['for ever', 'too much'])('%s: that request is refused, and another thread goes on', async what => {
  const thread = new WorkerThread(file, settings, after);
  const other = thread.ask(asked('hello'));
  await expect(other).resolves.toMatchObject({ done: { said: 'hello' } });
  const stubborn = thread.ask(asked(what));
  const meanwhile = thread.ask(asked('meanwhile'));
  const [one, two] = await Promise.allSettled([stubborn, meanwhile]);
  expect(one).toMatchObject({ status: 'rejected', reason: { status: 413, kind: 'too-much-work' } });
  expect(two).toMatchObject({ status: 'rejected', reason: { status: 503, kind: 'interrupted' } });
  await expect(thread.ask(asked('again'))).resolves.toMatchObject({ done: { said: 'again' } });
  await thread.close();
});

test("what takes too long for several together is nobody's fault: all are to ask again", async () => {
  const thread = new WorkerThread(file, settings, after);
  const both = await Promise.allSettled([
    thread.ask(asked('together')),
    thread.ask(asked('for ever together')),
  ]);
  for (const each of both)
    expect(each).toMatchObject({ status: 'rejected', reason: { status: 503, kind: 'interrupted' } });
  await expect(thread.ask(asked('again'))).resolves.toMatchObject({ done: { said: 'again' } });
  await thread.close();
});

test('after rest it can be made anew, and what is asked then is answered', async () => {
  let rested = 0;
  const rest = (each: WorkerThread): void => {
    rested++;
    each.refresh();
  };
  const thread = new WorkerThread(file, settings, { ...after, rest });
  await thread.ask(asked('one'));
  await new Promise(resolve => setTimeout(resolve, 400));
  expect(rested).toBe(1);
  await expect(thread.ask(asked('two'))).resolves.toMatchObject({ done: { said: 'two' } });
  await thread.close();
});

test('closed, it refuses what it had not done', async () => {
  const thread = new WorkerThread(file, settings, after);
  const waiting = thread.ask(asked('late'));
  const refused = expect(waiting).rejects.toMatchObject({ status: 503 });
  await thread.close();
  await refused;
});
