import { Worker } from 'node:worker_threads';
import { Refusal } from '../http/refusal';
import { watchedMemory } from './computing';
import type { WorkRequest, WorkAnswer, WorkerSettings } from './messages';

/** What is asked of a thread, without the number it gets there. */
export type Task = Omit<WorkRequest, 'id'>;

export interface ThreadSettings {
  readonly databaseUrl: string;
  readonly isHeavy: boolean;
  /** Most that a request may be computed for at a stretch. */
  readonly mostMs: number;
  readonly mostMegabytes: number;
  readonly restMs: number;
}

/** What follows on what befalls a thread. */
export interface Afterwards {
  /** It was without work for so long. */
  readonly rest: (thread: WorkerThread) => void;
  /** It ended by an error that nobody caught. */
  readonly fault: (error: Error) => void;
}

interface PendingTask {
  readonly resolve: (told: WorkAnswer) => void;
  readonly reject: (refusal: Refusal) => void;
}

const LOOK_MS = 250;

const tooMuchWork = (mostMs: number): Refusal =>
  new Refusal(
    413,
    'too-much-work',
    'Too much work',
    `To read and check this takes longer than ${mostMs / 1000} seconds, or more memory than there is for it; send it in parts.`,
  );
const interrupted = (): Refusal =>
  new Refusal(
    503,
    'interrupted',
    'Interrupted',
    'What else was asked at the same time had to be given up. Ask again; what has a key is done once.',
  );

/**
 * A thread that works on requests, made anew where one was given up: a request that computes longer than it may, or runs out of memory, ends
 * the thread and is refused; the others it worked on are to be asked again.
 */
export class WorkerThread {
  private worker: Worker | null = null;
  private watched = watchedMemory();
  private readonly waiting = new Map<number, PendingTask>();
  private count = 0;
  private looking: NodeJS.Timeout | undefined;
  private resting: NodeJS.Timeout | undefined;
  /** What was computed when the thread was last looked at, and since when. */
  private seen = { section: 0, since: 0 };

  constructor(
    private readonly file: URL,
    private readonly settings: ThreadSettings,
    private readonly after: Afterwards,
  ) {}

  /** Starts, so that the first request need not wait for it. */
  start(): Worker {
    if (this.worker) return this.worker;
    this.watched = watchedMemory();
    const { databaseUrl, isHeavy } = this.settings;
    const settings: WorkerSettings = { databaseUrl, isHeavy, watched: this.watched };
    const worker = new Worker(this.file, {
      workerData: settings,
      resourceLimits: { maxOldGenerationSizeMb: this.settings.mostMegabytes },
    });
    worker.on('message', (told: WorkAnswer) => this.take(told));
    // It exits as well, after an error such as that no memory is left.
    worker.on('error', error => this.after.fault(error));
    worker.on('exit', () => this.giveUp(worker));
    this.worker = worker;
    return worker;
  }

  /** Has a task done. Rejects with a `Refusal` where the thread had to be given up. */
  ask(task: Task): Promise<WorkAnswer> {
    const worker = this.start();
    clearTimeout(this.resting);
    this.looking ??= setInterval(() => this.look(), LOOK_MS);
    const id = ++this.count;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      worker.postMessage({ id, ...task } satisfies WorkRequest);
    });
  }

  /** Makes the thread anew, so that what it held in memory is given back; who still waits is refused. */
  refresh(): void {
    if (this.worker) this.giveUp(this.worker);
    this.start();
  }

  /** Ends the thread; who still waits is refused. */
  async close(): Promise<void> {
    const { worker } = this;
    if (!worker) return;
    this.giveUp(worker);
    await worker.terminate();
  }

  private take(told: WorkAnswer): void {
    const waiting = this.waiting.get(told.id);
    if (!waiting) return;
    this.waiting.delete(told.id);
    if (this.waiting.size === 0) {
      this.endLooking();
      this.resting = setTimeout(() => this.after.rest(this), this.settings.restMs).unref();
    }
    waiting.resolve(told);
  }

  private endLooking(): void {
    clearInterval(this.looking);
    this.looking = undefined;
  }

  private look(): void {
    const section = Atomics.load(this.watched, 0);
    const now = performance.now();
    if (section === 0 || section !== this.seen.section) this.seen = { section, since: now };
    else if (now - this.seen.since > this.settings.mostMs && this.worker) this.giveUp(this.worker);
  }

  private giveUp(worker: Worker): void {
    if (worker !== this.worker) return;
    this.worker = null;
    const computed = Atomics.load(this.watched, 0) === 0 ? null : Atomics.load(this.watched, 1);
    const waiting = [...this.waiting];
    this.waiting.clear();
    this.endLooking();
    clearTimeout(this.resting);
    for (const [id, { reject }] of waiting)
      reject(id === computed ? tooMuchWork(this.settings.mostMs) : interrupted());
    void worker.terminate();
  }
}
