interface Holder<Held> {
  readonly held: readonly Held[];
  readonly giveWay: () => void;
  since: number;
}

/** Who has held something for so long gives way to others, if need be. */
const PATIENCE_MS = 2_000;

/**
 * What is held in memory for requests that are under way. Where it is more than it may be, those give way that have held theirs for longest,
 * but nobody who has only just begun. What several hold is counted once.
 */
export class UnderWay<Held extends object> {
  /** In the order in which they began. */
  private readonly holders = new Set<Holder<Held>>();
  private readonly times = new Map<Held, number>();
  /** In the order in which they came, with what follows once there is room. */
  private readonly waiting = new Map<Holder<Held>, () => void>();
  private total = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly most: number,
    private readonly sizeOf: (held: Held) => number,
  ) {}

  /** Holds what is there already, until what is given is called; `giveWay` ends the request. */
  hold(held: readonly Held[], giveWay: () => void): () => void {
    const own = { held, giveWay, since: 0 };
    this.enter(own);
    this.look();
    return () => this.leave(own);
  }

  /** Holds what is yet to come, as soon as there is room for it. Gives what lets it go, or ends the waiting. */
  holdInTurn(held: readonly Held[], giveWay: () => void, begin: () => void): () => void {
    const own = { held, giveWay, since: 0 };
    this.waiting.set(own, begin);
    this.look();
    return () => this.leave(own);
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
      const rest = one.since + PATIENCE_MS - performance.now();
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
