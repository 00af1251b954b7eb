import { parentPort, workerData } from 'node:worker_threads';
import { connectTo } from '../storage/database';
import { Refusal } from '../http/refusal';
import { problemText } from '../http/problem-text';
import { forRequest, TooHeavy, watchedBy } from './computing';
import type { WorkRequest, WorkAnswer, WorkerSettings } from './messages';
import { plainError } from './plain-errors';
import { giveWayToOthers } from './priority';
import { TASKS, type How } from './tasks';

/** A thread that does the tasks it is asked for, with connections of its own to the database. */

const { databaseUrl, watched, isHeavy: isForHeavy } = workerData as WorkerSettings;
const port = parentPort!;
watchedBy(watched);
if (isForHeavy) giveWayToOthers();
const { db } = connectTo(databaseUrl, 4);

async function answered({ id, name, isHeavy, isAlone, input }: WorkRequest): Promise<WorkAnswer> {
  const task = TASKS[name] as (how: How, input: unknown) => Promise<object>;
  const { outcome, ms } = await forRequest(id, isHeavy, () => task({ db, isHeavy, isAlone }, input));
  if (outcome.status === 'fulfilled') return { id, ms, done: outcome.value };
  const error: unknown = outcome.reason;
  if (error instanceof TooHeavy) return { id, ms, tooHeavy: error.what };
  return error instanceof Refusal
    ? { id, ms, refused: { status: error.status, text: problemText(error) } }
    : { id, ms, failed: plainError(error) };
}

port.on('message', (asked: WorkRequest) => void answered(asked).then(told => port.postMessage(told)));
