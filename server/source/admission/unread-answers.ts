interface Holder<Held> {
  readonly held: readonly Held[];
  readonly giveWay: () => void;
  readonly since: number;
}

/**
 * What is held in memory for requests that are under way. Where it is more than it may be, those give way that have held theirs for longest, but
 * nobody who began within `patienceMs`. What several hold is counted once.
 */
export class UnderWay<Held extends object> {
  /** In the order in which they began. */
  private readonly holders = new Set<Holder<Held>>();
  private readonly times = new Map<Held, number>();
  private total = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly most: number,
    private readonly sizeOf: (held: Held) => number,
    private readonly patienceMs: number,
  ) {}

  /** Holds for a request, which `giveWay` ends; gives what lets go. */
  hold(held: readonly Held[], giveWay: () => void): () => void {
    const own = { held, giveWay, since: performance.now() };
    this.holders.add(own);
    for (const each of held) {
      const times = this.times.get(each) ?? 0;
      if (times === 0) this.total += this.sizeOf(each);
      this.times.set(each, times + 1);
    }
    this.look();
    return () => {
      this.letGo(own);
      this.look();
    };
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

  /** Ends those who are to give way. */
  private look(): void {
    clearTimeout(this.timer);
    for (const one of this.holders) {
      if (this.total <= this.most) return;
      const rest = one.since + this.patienceMs - performance.now();
      if (rest > 0) {
        this.timer = setTimeout(() => this.look(), rest).unref();
        return;
      }
      this.letGo(one);
      one.giveWay();
    }
  }
}
