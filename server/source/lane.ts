import { Refusal } from './refusal';
import type { Told } from './work/messages';
import type { Task, WorkerThread } from './worker-thread';

export interface LaneLimits {
  /** Requests that a thread works on at once, and the letters of all of them; one may have any number. */
  readonly atOnce: number;
  readonly lettersAtOnce: number;
  /** Letters of all that wait. */
  readonly lettersWaiting: number;
}

interface Waiting {
  readonly letters: number;
  readonly begin: () => void;
  readonly timer: NodeJS.Timeout;
}

const busy = (): Refusal =>
  new Refusal(
    503,
    'busy',
    'Too much at once',
    'So much was asked at the same time that this was not begun. Ask again in a moment.',
  );

/** The way to a thread: requests in their order, of which neither too many wait nor any too long. Whoever would is told so at once. */
export class Lane {
  private readonly waiting = new Set<Waiting>();
  private lettersWaiting = 0;
  private begun = 0;
  private lettersBegun = 0;

  constructor(
    readonly thread: WorkerThread,
    private readonly limits: LaneLimits,
  ) {}

  /**
   * Has a task done, of a request of so many letters, which waits at most so long to be begun. Rejects with a `Refusal` where it was not, or had
   * to be given up.
   */
  async ask(task: Task, letters: number, waitMs: number): Promise<Told> {
    if (this.waiting.size === 0 && this.hasRoom(letters)) this.begin(letters);
    else await this.turn(letters, waitMs);
    try {
      return await this.thread.ask(task);
    } finally {
      this.begun--;
      this.lettersBegun -= letters;
      this.beginNext();
    }
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
  private turn(letters: number, waitMs: number): Promise<void> {
    return new Promise((resolve, reject) => {
      if (this.lettersWaiting + letters > this.limits.lettersWaiting) return reject(busy());
      const own: Waiting = {
        letters,
        begin: resolve,
        timer: setTimeout(() => {
          this.leave(own);
          reject(busy());
        }, waitMs),
      };
      this.waiting.add(own);
      this.lettersWaiting += letters;
    });
  }

  private leave(one: Waiting): void {
    this.waiting.delete(one);
    this.lettersWaiting -= one.letters;
  }

  private beginNext(): void {
    for (const next of this.waiting) {
      if (!this.hasRoom(next.letters)) return;
      clearTimeout(next.timer);
      this.leave(next);
      this.begin(next.letters);
      next.begin();
    }
  }
}
