import { availableParallelism } from 'node:os';
import { LRUCache } from 'lru-cache';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { collectGarbage } from './garbage';
import { WrittenRefusal } from './refusal';
import type { TaskInput, TaskName, TaskOutput } from './work/tasks';
import { errorOf } from './work/plain-errors';
import { WorkerThread } from './worker-thread';

/** From so many letters on a request goes where it keeps nobody waiting. */
const HEAVY_LETTERS = 16_000;
/** And what is asked of a system of which small requests, so many in a row, were each computed for so long. */
const SLOW_MS = 150;
const SLOW_TIMES = 3;
/** A thread that had requests of so many letters, or computed for so long, is made anew once it rests: its memory goes back. */
const MUCH_LETTERS = 2_000_000;
const MUCH_MS = 3_000;
const REST_MS = 5_000;
const MOST_THREADS = 4;
const NOTHING = { letters: 0, ms: 0 };
/** Systems that were opened lately are kept ready: so many, and for so long. */
const READY = { max: 8, ttl: 10 * 60_000 };

/**
 * Threads that read, check and write what people send. All of a system goes to one thread, which remembers its documents; what is heavy goes
 * to another, so that small work need not wait for it. The database keeps them apart, as it does servers.
 */
export class Workers {
  private readonly light: readonly WorkerThread[];
  private readonly heavy: readonly WorkerThread[];
  /** How many small requests in a row were slow, by system. */
  private readonly slow = new LRUCache<string, number>({ max: 1000 });

  private readonly ready = new LRUCache<string, true>(READY);
  private readonly done = new Map<WorkerThread, { readonly letters: number; readonly ms: number }>();

  /** `file` is what threads run (`work/worker.ts`, built); `onFault` is told of errors that end one. */
  constructor(file: URL, databaseUrl: string, onFault: (error: Error) => void) {
    const length = Math.min(MOST_THREADS, Math.max(1, Math.floor(availableParallelism() / 2)));
    const settings = { databaseUrl, mostMs: LIMITS.workMs, mostMegabytes: 1024, restMs: REST_MS };
    const after = { rest: (thread: WorkerThread) => this.afterRest(thread), fault: onFault };
    const make = (): WorkerThread => new WorkerThread(file, settings, after);
    this.light = Array.from({ length }, make);
    this.heavy = Array.from({ length }, make);
    [...this.light, ...this.heavy].forEach(thread => thread.start());
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
    const thread = this.threadOf(systemId, isHeavy);
    const told = await thread.ask({ name, isHeavy, input }).catch(refusal => {
      // Whoever it was: what is asked of this system next is worked out by itself, and whom it takes too long for is known then.
      this.slow.set(systemId, SLOW_TIMES);
      throw refusal;
    });
    const before = this.done.get(thread) ?? NOTHING;
    this.done.set(thread, { letters: before.letters + letters, ms: before.ms + told.ms });
    if (!isLarge) this.slow.set(systemId, told.ms > SLOW_MS ? slowTimes + 1 : 0);
    if ('refused' in told) throw new WrittenRefusal(told.refused.status, told.refused.text);
    if ('failed' in told) throw errorOf(told.failed);
    return told.done as TaskOutput<Name>;
  }

  /** Has a system that was opened be read and checked, unless that was done lately; nobody waits for it. */
  makeReady(systemId: string): void {
    if (this.ready.has(systemId)) return;
    this.ready.set(systemId, true);
    for (const isHeavy of [false, true]) this.readyIn(systemId, isHeavy);
  }

  private readyIn(systemId: string, isHeavy: boolean): void {
    // Where it fails the first edit has it to do.
    void this.threadOf(systemId, isHeavy)
      .ask({ name: 'ready', isHeavy, input: { systemId } })
      .catch(() => {});
  }

  private afterRest(thread: WorkerThread): void {
    const { letters, ms } = this.done.get(thread) ?? NOTHING;
    if (letters < MUCH_LETTERS && ms < MUCH_MS) return;
    this.done.delete(thread);
    thread.refresh();
    collectGarbage();
    const isHeavy = this.heavy.includes(thread);
    for (const systemId of this.ready.keys())
      if (this.threadOf(systemId, isHeavy) === thread) this.readyIn(systemId, isHeavy);
  }

  private threadOf(systemId: string, isHeavy: boolean): WorkerThread {
    const threads = isHeavy ? this.heavy : this.light;
    return threads[placeOf(systemId, threads.length)]!;
  }

  async close(): Promise<void> {
    await Promise.all([...this.light, ...this.heavy].map(thread => thread.close()));
  }
}

/** The same of so many places for the same name. */
const placeOf = (name: string, places: number): number =>
  [...name].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 2_147_483_647, 7) % places;
