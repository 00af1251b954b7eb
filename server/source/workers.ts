import { availableParallelism } from 'node:os';
import { LRUCache } from 'lru-cache';
import { WrittenRefusal } from './refusal';
import type { TaskInput, TaskName, TaskOutput } from './work/tasks';
import { errorOf } from './work/plain-errors';
import { WorkerThread } from './worker-thread';

/** From so many letters on a request goes where it keeps nobody waiting. */
const HEAVY_LETTERS = 16_000;
/** And what is asked of a system of which small requests, so many in a row, were each computed for so long. */
const SLOW_MS = 150;
const SLOW_TIMES = 3;
/** How long threads for heavy work are kept without any; they hold what it needed in memory. */
const REST_MS = 5_000;
const MOST_THREADS = 4;

/**
 * Threads that read, check and write what people send. All of a system goes to one thread, which remembers its documents; what is heavy goes
 * to another, so that small work need not wait for it. The database keeps them apart, as it does servers.
 */
export class Workers {
  private readonly light: readonly WorkerThread[];
  private readonly heavy: readonly WorkerThread[];
  /** How many small requests in a row were slow, by system. */
  private readonly slow = new LRUCache<string, number>({ max: 1000 });

  /** `file` is what threads run (`work/worker.ts`, built). */
  constructor(file: URL, databaseUrl: string) {
    const length = Math.min(MOST_THREADS, Math.max(1, Math.floor(availableParallelism() / 2)));
    this.light = Array.from({ length }, () => new WorkerThread(file, databaseUrl));
    this.heavy = Array.from({ length }, () => new WorkerThread(file, databaseUrl, REST_MS));
    this.light.forEach(thread => thread.start());
  }

  /** Has a task on a system done, for a request of so many letters. Rejects with what the task throws. */
  async run<Name extends TaskName>(
    name: Name,
    systemId: string,
    letters: number,
    input: TaskInput<Name>,
  ): Promise<TaskOutput<Name>> {
    const isLarge = letters > HEAVY_LETTERS;
    const slowTimes = this.slow.get(systemId) ?? 0;
    const isHeavy = isLarge || slowTimes >= SLOW_TIMES;
    const threads = isHeavy ? this.heavy : this.light;
    const told = await threads[placeOf(systemId, threads.length)]!.ask({ name, isHeavy, input });
    if (!isLarge) this.slow.set(systemId, told.ms > SLOW_MS ? slowTimes + 1 : 0);
    if ('refused' in told) throw new WrittenRefusal(told.refused.status, told.refused.text);
    if ('failed' in told) throw errorOf(told.failed);
    return told.done as TaskOutput<Name>;
  }

  async close(): Promise<void> {
    await Promise.all([...this.light, ...this.heavy].map(thread => thread.close()));
  }
}

/** The same of so many places for the same name. */
const placeOf = (name: string, places: number): number =>
  [...name].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 2_147_483_647, 7) % places;
