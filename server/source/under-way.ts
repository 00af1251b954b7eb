interface Holder<Held> {
  readonly held: readonly Held[];
  readonly giveWay: () => void;
  since: number;
}

export interface Hold {
  /** Lets go, or ends the waiting. */
  readonly end: () => void;
  /** Call when it goes on: whoever stands still gives way first. */
  readonly goOn: () => void;
}

/**
 * What is held in memory for requests that are under way. Where it is more than it may be, those give way that have stood still for longest,
 * but nobody who went on, or began, within `patienceMs`. What several hold is counted once.
 */
export class UnderWay<Held extends object> {
  /** In the order in which they began or last went on. */
  private readonly holders = new Set<Holder<Held>>();
  private readonly times = new Map<Held, number>();
  /** In the order in which they came, with what follows once there is room. */
  private readonly waiting = new Map<Holder<Held>, () => void>();
  private total = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly most: number,
    private readonly sizeOf: (held: Held) => number,
    private readonly patienceMs: number,
  ) {}

  /** Holds what is there already; `giveWay` ends the request. */
  hold(held: readonly Held[], giveWay: () => void): Hold {
    const own = { held, giveWay, since: 0 };
    this.enter(own);
    this.look();
    return this.holdOf(own);
  }

  /** Holds what is yet to come, as soon as there is room for it. */
  holdInTurn(held: readonly Held[], giveWay: () => void, begin: () => void): Hold {
    const own = { held, giveWay, since: 0 };
    this.waiting.set(own, begin);
    this.look();
    return this.holdOf(own);
  }

  private holdOf(one: Holder<Held>): Hold {
    return {
      end: () => this.leave(one),
      goOn: () => {
        if (!this.holders.delete(one)) return;
        this.holders.add(one);
        one.since = performance.now();
      },
    };
  }

  private enter(one: Holder<Held>): void {
    one.since = performance.now();
    this.holders.add(one);
    for (const each of one.held) {
      const times = this.times.get(each) ?? 0;
      if (times === 0) this.total += this.sizeOf(each);
      this.times.set(each, times + 1);
    }
  }

  private leave(one: Holder<Held>): void {
    this.waiting.delete(one);
    this.letGo(one);
    this.look();
  }

  private letGo(one: Holder<Held>): void {
    if (!this.holders.delete(one)) return;
    for (const each of one.held) {
      const times = this.times.get(each)! - 1;
      if (times > 0) this.times.set(each, times);
      else {
        this.times.delete(each);
        this.total -= this.sizeOf(each);
      }
    }
  }

  private admit(): void {
    for (const [one, begin] of this.waiting) {
      const size = one.held.reduce((sum, each) => sum + this.sizeOf(each), 0);
      if (this.holders.size > 0 && this.total + size > this.most) return;
      this.waiting.delete(one);
      this.enter(one);
      begin();
    }
  }

  /** Begins with those for whom there is room, and ends those who are to give way. */
  private look(): void {
    clearTimeout(this.timer);
    this.admit();
    for (const one of this.holders) {
      if (this.total <= this.most && this.waiting.size === 0) return;
      const rest = one.since + this.patienceMs - performance.now();
      if (rest > 0) {
        this.timer = setTimeout(() => this.look(), rest).unref();
        return;
      }
      this.letGo(one);
      one.giveWay();
      this.admit();
    }
  }
}
