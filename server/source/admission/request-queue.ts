import { busy, type Refusal } from '../http/refusal';
import type { WorkAnswer } from '../worker/messages';
import type { Task, WorkerThread } from '../worker/worker-thread';

export interface QueueLimits {
  /** Requests that a thread works on at once, and the letters of all of them; one may have any number. */
  readonly atOnce: number;
  readonly lettersAtOnce: number;
  /** Letters of all that wait. */
  readonly lettersWaiting: number;
  /** Most that one may wait and be worked on, as far as the ones before it let that be told. */
  readonly answerMs: number;
}

interface QueuedRequest {
  readonly letters: number;
  readonly since: number;
  readonly begin: () => void;
  readonly refuse: (refusal: Refusal) => void;
}

/** Of how long requests take at present, how much one says that took longer than that, and one that took less: it is the long ones that count. */
const LONGER = 0.5;
const SHORTER = 0.05;
/** Few take longer than so many times what they take at present. */
const SPREAD = 2;
/** Shares of the time there is: what a request is taken to need before any was seen, and what it counts for at most, so that after a very long one others may still wait. */
const UNKNOWN = 0.25;
const LONGEST = 0.3;

/**
 * The way to a thread: requests in their order, of which neither too many wait nor any too long. Whoever would is told so at once: the longer
 * requests take at present, the shorter they may wait to be begun.
 */
export class RequestQueue {
  private readonly waiting = new Set<QueuedRequest>();
  private lettersWaiting = 0;
  private begun = 0;
  private lettersBegun = 0;
  /** What a request takes at present, in milliseconds. */
  private takes: number;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    readonly thread: WorkerThread,
    private readonly limits: QueueLimits,
  ) {
    this.takes = UNKNOWN * limits.answerMs;
  }

  /** Has a task done, of a request of so many letters. Rejects with a `Refusal` where it was not begun, or had to be given up. */
  async ask(task: Task, letters: number): Promise<WorkAnswer> {
    if (this.waiting.size === 0 && this.hasRoom(letters)) this.begin(letters);
    else await this.turn(letters);
    const since = performance.now();
    try {
      return await this.thread.ask(task);
    } finally {
      this.learn(performance.now() - since);
      this.begun--;
      this.lettersBegun -= letters;
      this.goOn();
    }
  }

  private learn(took: number): void {
    const more = Math.min(took, LONGEST * this.limits.answerMs) - this.takes;
    this.takes += more * (more > 0 ? LONGER : SHORTER);
  }

  private hasRoom(letters: number): boolean {
    const { atOnce, lettersAtOnce } = this.limits;
    return this.begun === 0 || (this.begun < atOnce && this.lettersBegun + letters <= lettersAtOnce);
  }

  private begin(letters: number): void {
    this.begun++;
    this.lettersBegun += letters;
  }

  /** Waits for a turn; it has begun then. */
  private turn(letters: number): Promise<void> {
    return new Promise((resolve, reject) => {
      if (this.lettersWaiting + letters > this.limits.lettersWaiting) return reject(busy());
      this.waiting.add({ letters, since: performance.now(), begin: resolve, refuse: reject });
      this.lettersWaiting += letters;
      this.goOn();
    });
  }

  /** Refuses who has waited too long, begins what there is room for, and looks again when the next one would have waited too long. */
  private goOn(): void {
    clearTimeout(this.timer);
    const patience = Math.max(0, this.limits.answerMs - SPREAD * this.takes);
    const now = performance.now();
    for (const next of this.waiting) {
      const left = next.since + patience - now;
      if (left > 0 && !this.hasRoom(next.letters)) {
        this.timer = setTimeout(() => this.goOn(), left);
        return;
      }
      this.waiting.delete(next);
      this.lettersWaiting -= next.letters;
      if (left <= 0) next.refuse(busy());
      else {
        this.begin(next.letters);
        next.begin();
      }
    }
  }
}
