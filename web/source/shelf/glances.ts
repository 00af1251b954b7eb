import type { Glance } from './glance';

/** Whoever looks at systems, one at a time, and can be ended. */
export interface Looker {
  readonly at: (address: string) => Promise<Glance>;
  readonly end: () => void;
}

/** Looks at systems one after another. One that takes too long is given up, and whoever looked at it with it. */
export class Glances {
  private looker: Looker | null = null;
  private last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly make: () => Looker,
    private readonly mostMs: number,
  ) {}

  /** What is in a system; `null` where nobody can tell in time. */
  at(address: string): Promise<Glance | null> {
    const result = this.last.then(() => this.look(address));
    this.last = result.catch(() => {});
    return result;
  }

  private async look(address: string): Promise<Glance | null> {
    const looker = (this.looker ??= this.make());
    let timer: ReturnType<typeof setTimeout> | undefined;
    const tooLong = new Promise<'too long'>(resolve => {
      timer = setTimeout(() => resolve('too long'), this.mostMs);
    });
    try {
      const found = await Promise.race([looker.at(address), tooLong]);
      if (found !== 'too long') return found;
      looker.end();
      this.looker = null;
      return null;
    } finally {
      clearTimeout(timer);
    }
  }
}
