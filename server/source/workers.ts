import { availableParallelism } from 'node:os';
import { LRUCache } from 'lru-cache';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { collectGarbage } from './garbage';
import { Lane, type LaneLimits } from './lane';
import { WrittenRefusal, type Refusal } from './refusal';
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
/** Small requests are done side by side, so that edits of one system are stored together. */
const LIGHT: LaneLimits = {
  atOnce: 64,
  lettersAtOnce: 64 * HEAVY_LETTERS,
  lettersWaiting: LIMITS.lettersWaiting,
  waitMs: LIMITS.workMs,
};
/** Of large ones two, so that one is computed while the other is with the database; nobody waits long to hear that there are too many. */
const HEAVY: LaneLimits = {
  atOnce: 2,
  lettersAtOnce: 2 * LIMITS.documentLetters,
  lettersWaiting: LIMITS.lettersWaiting,
  waitMs: LIMITS.waitMs,
};
/** Systems that were opened lately are kept ready: so many, and for so long. */
const READY = { max: 8, ttl: 10 * 60_000 };

/**
 * Threads that read, check and write what people send. All of a system goes to one thread, which remembers its documents; what is heavy goes
 * to another, so that small work need not wait for it. The database keeps them apart, as it does servers.
 */
export class Workers {
  private readonly light: readonly Lane[];
  private readonly heavy: readonly Lane[];
  /** How many small requests in a row were slow, by system. */
  private readonly slow = new LRUCache<string, number>({ max: 1000 });

  private readonly ready = new LRUCache<string, true>(READY);
  private readonly done = new Map<WorkerThread, { readonly letters: number; readonly ms: number }>();

  /** `file` is what threads run (`work/worker.ts`, built); `onFault` is told of errors that end one. */
  constructor(file: URL, databaseUrl: string, onFault: (error: Error) => void) {
    const length = Math.min(MOST_THREADS, Math.max(1, Math.floor(availableParallelism() / 2)));
    const settings = { databaseUrl, mostMs: LIMITS.workMs, mostMegabytes: 1024, restMs: REST_MS };
    const after = { rest: (thread: WorkerThread) => this.afterRest(thread), fault: onFault };
    const lanes = (limits: LaneLimits): Lane[] =>
      Array.from({ length }, () => new Lane(new WorkerThread(file, settings, after), limits));
    this.light = lanes(LIGHT);
    this.heavy = lanes(HEAVY);
    this.threads.forEach(thread => thread.start());
  }

  private get threads(): readonly WorkerThread[] {
    return [...this.light, ...this.heavy].map(({ thread }) => thread);
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
    const lane = this.laneOf(systemId, isHeavy);
    const told = await lane.ask({ name, isHeavy, input }, letters).catch((refusal: Refusal) => {
      // Whoever it was: what is asked of this system next is worked out by itself, and whom it takes too long for is known then.
      if (!isLarge && refusal.kind !== 'busy') this.slow.set(systemId, SLOW_TIMES);
      throw refusal;
    });
    const before = this.done.get(lane.thread) ?? NOTHING;
    this.done.set(lane.thread, { letters: before.letters + letters, ms: before.ms + told.ms });
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
    void this.laneOf(systemId, isHeavy)
      .thread.ask({ name: 'ready', isHeavy, input: { systemId } })
      .catch(() => {});
  }

  private afterRest(thread: WorkerThread): void {
    const { letters, ms } = this.done.get(thread) ?? NOTHING;
    if (letters < MUCH_LETTERS && ms < MUCH_MS) return;
    this.done.delete(thread);
    thread.refresh();
    collectGarbage();
    const isHeavy = this.heavy.some(lane => lane.thread === thread);
    for (const systemId of this.ready.keys())
      if (this.laneOf(systemId, isHeavy).thread === thread) this.readyIn(systemId, isHeavy);
  }

  private laneOf(systemId: string, isHeavy: boolean): Lane {
    const lanes = isHeavy ? this.heavy : this.light;
    return lanes[placeOf(systemId, lanes.length)]!;
  }

  async close(): Promise<void> {
    await Promise.all(this.threads.map(thread => thread.close()));
  }
}

/** The same of so many places for the same name. */
const placeOf = (name: string, places: number): number =>
  [...name].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 2_147_483_647, 7) % places;
