import { availableParallelism } from 'node:os';
import { setTimeout } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { collectGarbage } from './garbage';
import { RequestQueue, type QueueLimits } from '../admission/request-queue';
import { WrittenRefusal, type Refusal } from '../http/refusal';
import { SlowSystems } from '../admission/slow-systems';
import type { WorkAnswer } from './messages';
import type { Done, TaskInput, TaskName, TaskOutput } from './tasks';
import { errorOf } from './plain-errors';
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
/** What a request takes besides its letters, in letters. */
const ITSELF_LETTERS = 10_000;
/** Small requests are done side by side, so that edits of one system are stored together. */
const SMALL: QueueLimits = {
  atOnce: 64,
  lettersAtOnce: 64 * (HEAVY_LETTERS + ITSELF_LETTERS),
  lettersWaiting: QUOTAS.lettersWaiting,
  answerMs: QUOTAS.answerMs,
};
/** Large ones are done one by one: each is computed most of the time. Who asks for much is soon told that there is too much. */
const LARGE: QueueLimits = {
  atOnce: 1,
  lettersAtOnce: QUOTAS.unpackedBytes,
  lettersWaiting: QUOTAS.lettersWaiting,
  answerMs: QUOTAS.answerMs,
};
/** Systems that were opened lately are kept ready: so many, and for so long. */
const READY = { max: 8, ttl: 10 * 60_000 };
/** After work on a system was given up, all that is asked of it is worked out by itself for so long. */
const ENDED = { max: 1000, ttl: 60_000 };

/** A thread with the ways to it. */
class Ways {
  readonly small: RequestQueue;
  readonly large: RequestQueue;

  constructor(readonly thread: WorkerThread) {
    this.small = new RequestQueue(thread, SMALL);
    this.large = new RequestQueue(thread, LARGE);
  }
}

/**
 * Threads that read, check and write what people send. All of a system goes to one thread, which remembers its documents; what is heavy goes
 * to another, so that small work need not wait for it. The database keeps them apart, as it does servers.
 */
export class Workers {
  private readonly light: readonly Ways[];
  private readonly heavy: readonly Ways[];
  private readonly slow = new SlowSystems();
  /** Systems of which work was given up: whoever is to blame is to be known next time. */
  private readonly ended = new LRUCache<string, true>(ENDED);
  private readonly ready = new LRUCache<string, true>(READY);
  /** Systems are made ready one after the other. */
  private readying = Promise.resolve();
  private isClosed = false;
  private readonly done = new Map<WorkerThread, { readonly letters: number; readonly ms: number }>();

  /** `file` is what threads run (`worker/worker.ts`, built); `onFault` is told of errors that end one. */
  constructor(file: URL, databaseUrl: string, onFault: (error: Error) => void) {
    const length = Math.min(MOST_THREADS, Math.max(1, Math.floor(availableParallelism() / 2)));
    const settings = { databaseUrl, mostMs: QUOTAS.workMs, mostMegabytes: 1024, restMs: REST_MS };
    const after = { rest: (thread: WorkerThread) => this.afterRest(thread), fault: onFault };
    const ways = (isHeavy: boolean): Ways[] =>
      Array.from({ length }, () => new Ways(new WorkerThread(file, { ...settings, isHeavy }, after)));
    this.light = ways(false);
    this.heavy = ways(true);
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
    const isAlone = isLarge || this.ended.has(systemId);
    const ask = (how: Pick<Task, 'isHeavy' | 'isAlone'>): Promise<WorkAnswer> =>
      this.ask({ name, input, ...how }, systemId, letters);
    const isHeavy = isAlone || this.slow.isSlow(systemId);
    let told = await ask({ isHeavy, isAlone }).catch((refusal: Refusal) => {
      if (!isLarge && refusal.kind !== 'busy') this.ended.set(systemId, true);
      throw refusal;
    });
    if ('tooHeavy' in told) {
      const isOfSystem = told.tooHeavy === 'system';
      if (isOfSystem) this.slow.mark(systemId);
      told = await ask({ isHeavy: true, isAlone: isAlone || !isOfSystem });
    } else if (!isLarge) this.slow.tell(systemId, told.ms);
    if ('refused' in told) throw new WrittenRefusal(told.refused.status, told.refused.text);
    if ('failed' in told) throw errorOf(told.failed);
    if ('tooHeavy' in told) throw new Error(`A thread for heavy work finds “${name}” too heavy.`);
    return told.done as TaskOutput<Name>;
  }

  private async ask(task: Task, systemId: string, letters: number): Promise<WorkAnswer> {
    const { thread, small, large } = this.waysOf(systemId, task.isHeavy);
    const told = await (task.isAlone ? large : small).ask(task, letters + ITSELF_LETTERS);
    const before = this.done.get(thread) ?? NOTHING;
    this.done.set(thread, { letters: before.letters + letters, ms: before.ms + told.ms });
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
    const { thread } = this.waysOf(systemId, isHeavy);
    const told = await thread.ask({ name: 'ready', isHeavy, isAlone: true, input: { systemId } });
    return 'done' in told ? Number((told.done as Done).text) : 0;
  }

  private afterRest(thread: WorkerThread): void {
    const { letters, ms } = this.done.get(thread) ?? NOTHING;
    if (letters < MUCH_LETTERS && ms < MUCH_MS) return;
    this.done.delete(thread);
    thread.refresh();
    collectGarbage();
    const isHeavy = this.heavy.some(ways => ways.thread === thread);
    for (const systemId of this.ready.keys())
      if (this.waysOf(systemId, isHeavy).thread === thread)
        this.inTurn(async () => void (await this.prepare(systemId, isHeavy)));
  }

  private waysOf(systemId: string, isHeavy: boolean): Ways {
    const all = isHeavy ? this.heavy : this.light;
    return all[workerIndexOf(systemId, all.length)]!;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    await Promise.all(this.threads.map(thread => thread.close()));
  }
}

/** The same of so many places for the same name. */
const workerIndexOf = (name: string, places: number): number =>
  [...name].reduce((sum, letter) => (sum * 31 + letter.codePointAt(0)!) % 2_147_483_647, 7) % places;
