import { bits, type Box } from '../../space/box';
import type { Extent, Extents } from '../../space/extent';
import { boxOf, type Tuple, type Tuples } from './tuples';

/** So many rows are made for each that is taken. */
const CANDIDATES = 12;

/** Makes allowed combinations that show many open tuples. */
export class RowMaker {
  constructor(
    private readonly extents: Extents,
    private readonly allowed: Extent,
    private readonly tuples: Tuples,
    private readonly random: () => number,
  ) {}

  /** The best of some rows that each show some open tuple. */
  best(): number[] {
    const { open } = this.tuples;
    const starts = Array.from({ length: CANDIDATES }, () => this.tuples.tuple(open[this.pick(open.length)]!));
    return this.bestOf(starts.map(start => this.row(boxOf(this.extents.own, start), start)));
  }

  /** The best of some rows in a region. */
  bestIn(region: Box): number[] {
    const start = { axes: [], values: [] };
    return this.bestOf(Array.from({ length: CANDIDATES }, () => this.row(region, start)));
  }

  private bestOf(rows: readonly number[][]): number[] {
    let best = rows[0]!;
    let most = -1;
    for (const row of rows) {
      const before = this.tuples.open.length;
      this.tuples.add(row);
      const gain = before - this.tuples.open.length;
      this.tuples.remove(row);
      if (gain > most) [best, most] = [row, gain];
    }
    return best;
  }

  /** An allowed row in a region, axis by axis in random order, each value the one that shows most (D. M. Cohen et al., 1997). */
  private row(region: Box, start: Tuple): number[] {
    const box = [...region];
    const row = box.map(mask => bits(mask)[0]!);
    const known = box.map(() => false);
    start.axes.forEach((axis, place) => {
      row[axis] = start.values[place]!;
      known[axis] = true;
    });
    for (const axis of this.shuffled(row.map((_, index) => index).filter(index => !known[index]))) {
      const ranked = this.shuffled(bits(box[axis]!))
        .map(value => ({ value, gain: this.tuples.gain(row, axis, value, known) }))
        .sort((a, b) => b.gain - a.gain);
      const fitting = ranked.find(({ value }) => this.fits(box, axis, value))!;
      box[axis] = 1 << fitting.value;
      row[axis] = fitting.value;
      known[axis] = true;
    }
    return row;
  }

  /** A row like another in which a tuple holds; other values change only where they must. `null` where there is none. */
  withTuple(row: readonly number[], tuple: Tuple, region: Box): number[] | null {
    const next = [...row];
    tuple.axes.forEach((axis, place) => (next[axis] = tuple.values[place]!));
    if (tuple.axes.some(axis => !((region[axis]! >> next[axis]!) & 1))) return null;
    if (this.extents.has(this.allowed, next)) return next;
    const box = [...region];
    tuple.axes.forEach(axis => (box[axis] = 1 << next[axis]!));
    if (!this.extents.meets(this.allowed, box)) return null;
    for (const axis of this.shuffled(
      row.map((_, index) => index).filter(index => !tuple.axes.includes(index)),
    )) {
      const values = [next[axis]!, ...this.shuffled(bits(box[axis]!).filter(value => value !== next[axis]))];
      const value = values.find(each => this.fits(box, axis, each))!;
      box[axis] = 1 << value;
      next[axis] = value;
    }
    return next;
  }

  private fits(box: readonly number[], axis: number, value: number): boolean {
    if (this.allowed === 1) return true;
    return this.extents.meets(
      this.allowed,
      box.map((mask, index) => (index === axis ? 1 << value : mask)),
    );
  }

  pick(count: number): number {
    return Math.floor(this.random() * count);
  }

  private shuffled<Item>(items: readonly Item[]): Item[] {
    const result = [...items];
    for (let last = result.length - 1; last > 0; last--) {
      const other = this.pick(last + 1);
      [result[last], result[other]] = [result[other]!, result[last]!];
    }
    return result;
  }
}
