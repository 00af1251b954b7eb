import { availableParallelism } from 'node:os';
import { setTimeout } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { collectGarbage } from './garbage';
import { Lane, type LaneLimits } from './lane';
import { WrittenRefusal, type Refusal } from './refusal';
import { SlowSystems } from './slow-systems';
import type { Told } from './work/messages';
import type { Done, TaskInput, TaskName, TaskOutput } from './work/tasks';
import { errorOf } from './work/plain-errors';
import { WorkerThread, type Task } from './worker-thread';

/** From so many letters on a request goes where it keeps nobody waiting. */
const HEAVY_LETTERS = 16_000;
/** And what takes long whatever is said of it. */
const HEAVY_TASKS: ReadonlySet<TaskName> = new Set(['create', 'duplicate']);
/** A system that is checked in less time is ready for small requests. */
const READY_MS = 1_000;
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
};
/** Large ones are done one by one: each is computed most of the time. */
const HEAVY: LaneLimits = {
  atOnce: 1,
  lettersAtOnce: LIMITS.unpackedBytes,
  lettersWaiting: LIMITS.lettersWaiting,
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
  private readonly slow = new SlowSystems();
  private readonly ready = new LRUCache<string, true>(READY);
  /** Systems are made ready one after the other. */
  private readying = Promise.resolve();
  private isClosed = false;
  private readonly done = new Map<WorkerThread, { readonly letters: number; readonly ms: number }>();

  /** `file` is what threads run (`work/worker.ts`, built); `onFault` is told of errors that end one. */
  constructor(file: URL, databaseUrl: string, onFault: (error: Error) => void) {
    const length = Math.min(MOST_THREADS, Math.max(1, Math.floor(availableParallelism() / 2)));
    const settings = { databaseUrl, mostMs: LIMITS.workMs, mostMegabytes: 1024, restMs: REST_MS };
    const after = { rest: (thread: WorkerThread) => this.afterRest(thread), fault: onFault };
    const lanes = (isHeavy: boolean, limits: LaneLimits): Lane[] =>
      Array.from({ length }, () => new Lane(new WorkerThread(file, { ...settings, isHeavy }, after), limits));
    this.light = lanes(false, LIGHT);
    this.heavy = lanes(true, HEAVY);
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
    const isLarge = letters > HEAVY_LETTERS || HEAVY_TASKS.has(name);
    // Who asks for much is soon told that there is too much; what is small waits as long as anything may take.
    const ask = (isHeavy: boolean, waitMs: number): Promise<Told> =>
      this.ask({ name, isHeavy, input }, systemId, letters, waitMs);
    const patience = isLarge ? LIMITS.waitMs : LIMITS.workMs;
    let told = await ask(isLarge || this.slow.isSlow(systemId), patience).catch((refusal: Refusal) => {
      // Whoever it was: what is asked of this system next is worked out by itself, and whom it takes too long for is known then.
      if (!isLarge && refusal.kind !== 'busy') this.slow.mark(systemId);
      throw refusal;
    });
    if ('tooHeavy' in told) {
      const isOfSystem = told.tooHeavy === 'system';
      if (isOfSystem) this.slow.mark(systemId);
      told = await ask(true, isOfSystem ? patience : LIMITS.waitMs);
    } else if (!isLarge) this.slow.tell(systemId, told.ms);
    if ('refused' in told) throw new WrittenRefusal(told.refused.status, told.refused.text);
    if ('failed' in told) throw errorOf(told.failed);
    return ('done' in told ? told.done : {}) as TaskOutput<Name>;
  }

  private async ask(task: Task, systemId: string, letters: number, waitMs: number): Promise<Told> {
    const lane = this.laneOf(systemId, task.isHeavy);
    const told = await lane.ask(task, letters, waitMs);
    const before = this.done.get(lane.thread) ?? NOTHING;
    this.done.set(lane.thread, { letters: before.letters + letters, ms: before.ms + told.ms });
    return told;
  }

  /** Has a system that was opened be read and checked, unless that was done lately; nobody waits for it. */
  makeReady(systemId: string): void {
    if (this.ready.has(systemId)) return;
    this.ready.set(systemId, true);
    this.inTurn(async () => {
      // First where it keeps nobody waiting; and where small requests are done only if it takes no time there either.
      const ms = await this.prepare(systemId, true);
      if (ms < READY_MS) await this.prepare(systemId, false);
      else this.slow.mark(systemId);
    });
  }

  /** Does what nobody waits for, one after the other, with pauses as long: half of the time is left to others. */
  private inTurn(work: () => Promise<void>): void {
    this.readying = this.readying.then(async () => {
      const began = performance.now();
      // Where it fails the first edit has it to do.
      await work().catch(() => {});
      await setTimeout(performance.now() - began, undefined, { ref: false });
    });
  }

  /** Has a thread read and check a system; gives how long the last check took, in milliseconds. */
  private async prepare(systemId: string, isHeavy: boolean): Promise<number> {
    if (this.isClosed) return 0;
    const { thread } = this.laneOf(systemId, isHeavy);
    const told = await thread.ask({ name: 'ready', isHeavy, input: { systemId } });
    return 'done' in told ? Number((told.done as Done).text) : 0;
  }

  private afterRest(thread: WorkerThread): void {
    const { letters, ms } = this.done.get(thread) ?? NOTHING;
    if (letters < MUCH_LETTERS && ms < MUCH_MS) return;
    this.done.delete(thread);
    thread.refresh();
    collectGarbage();
    const isHeavy = this.heavy.some(lane => lane.thread === thread);
    for (const systemId of this.ready.keys())
      if (this.laneOf(systemId, isHeavy).thread === thread)
        this.inTurn(async () => void (await this.prepare(systemId, isHeavy)));
  }

  private laneOf(systemId: string, isHeavy: boolean): Lane {
    const lanes = isHeavy ? this.heavy : this.light;
    return lanes[placeOf(systemId, lanes.length)]!;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    await Promise.all(this.threads.map(thread => thread.close()));
  }
}

/** The same of so many places for the same name. */
const placeOf = (name: string, places: number): number =>
  [...name].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 2_147_483_647, 7) % places;
