import { nanoid } from 'nanoid';
import { api, type HistoryEnds, type NamedChange } from './api';
import { ApiError } from './api-error';
import { backOff } from './back-off';
import type { StoredEdit } from './stored';

export type Direction = 'undo' | 'redo';

/** Who takes the steps. */
interface Walker {
  /** Resolves when everything made here is stored. */
  readonly idle: () => Promise<void>;
  readonly ends: () => HistoryEnds;
  readonly onEnds: (ends: HistoryEnds) => void;
  readonly onEdits: (edits: readonly StoredEdit[]) => void;
  readonly say: (tone: 'plain' | 'error', text: string) => void;
}

const DONE: Readonly<Record<Direction, string>> = { undo: 'Taken back', redo: 'Brought back' };
const TRIES = 6;

/** Steps through the history of a system, one after another, each by the name of the change that it means. */
export class HistorySteps {
  private last: Promise<void> = Promise.resolve();
  private isInTrouble = false;
  private isAsked = false;
  private reading: Promise<void> | null = null;

  constructor(
    private readonly systemId: string,
    private readonly walker: Walker,
  ) {}

  /** Takes this person's last change back, or brings the last one back that they took back. */
  step(direction: Direction): Promise<void> {
    return this.next(async () => {
      const change = this.walker.ends()[direction];
      if (change) await this.take(direction, change);
    });
  }

  /** Takes any change back, or brings it back. */
  stepTo(direction: Direction, change: NamedChange): Promise<void> {
    return this.next(() => this.take(direction, change));
  }

  private next(work: () => Promise<void>): Promise<void> {
    // Whoever presses again because no answer comes means the same step.
    if (!this.isInTrouble) this.last = this.last.then(this.walker.idle).then(work);
    return this.last;
  }

  private async take(direction: Direction, change: NamedChange): Promise<void> {
    try {
      this.walker.onEdits(await this.answered(direction, change.change, nanoid()));
      this.walker.say('plain', `${DONE[direction]}: ${change.label}.`);
    } catch (error) {
      const isRefusal = error instanceof ApiError && error.status === 409;
      this.walker.say(
        isRefusal && error.body.obstacle === undefined ? 'plain' : 'error',
        (error as Error).message,
      );
    }
    await this.readEnds();
  }

  /** Asks again under the same key while no answer comes: who presses once goes one step. */
  private async answered(direction: Direction, change: string, key: string): Promise<StoredEdit[]> {
    try {
      for (let tries = 1; ; tries++) {
        try {
          return await api.step(this.systemId, direction, change, key);
        } catch (error) {
          if (!(error instanceof ApiError && error.passing) || tries === TRIES) throw error;
          this.isInTrouble = true;
          await new Promise(resolve => setTimeout(resolve, backOff(tries)));
        }
      }
    } finally {
      this.isInTrouble = false;
    }
  }

  /** Asks what comes next; whoever asks while an answer is awaited shares one more question. */
  readEnds(): Promise<void> {
    this.isAsked = true;
    this.reading ??= this.readUntilFresh();
    return this.reading;
  }

  private async readUntilFresh(): Promise<void> {
    while (this.isAsked) {
      this.isAsked = false;
      try {
        this.walker.onEnds(await api.history(this.systemId));
      } catch {
        // It is asked again with the next edit.
      }
    }
    this.reading = null;
  }
}
