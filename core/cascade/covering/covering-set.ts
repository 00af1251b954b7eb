import { bitCount, intersect, type Box } from '../../space/box';
import { EVERYWHERE, NOWHERE } from '../../space/extent';
import type { Space } from '../../space/space';
import { orthogonalRows } from './orthogonal';
import { seededRandom } from './random';
import { RowMaker } from './rows';
import { Tuples } from './tuples';

export interface CoveringOptions {
  /** 2: every pair of values that can occur together; 3: every triple. */
  readonly strength: 2 | 3;
  /** Regions each of which must be shown by some row; those in which nothing is allowed are passed over. */
  readonly situations?: readonly Box[];
  /** Steps spent on each row that might be saved. */
  readonly effort?: number;
  /** Told the number of rows whenever one has been saved; returns whether to go on looking. */
  readonly onProgress?: (rows: number) => boolean;
}

interface Row {
  readonly values: number[];
  /** Where it must stay: its situation's region, or everywhere. */
  readonly region: Box;
}

const EFFORT = 40_000;
const WARMEST = 1;
const COLDEST = 0.08;

/**
 * Few allowed combinations (value indices) that show every pair or triple of values that can occur. First row by row, the
 * best next one of some; then rows are taken out and the rest rearranged until nothing is missing again, by simulated
 * annealing (M. B. Cohen et al., "Constructing Test Suites for Interaction Testing", 2003). The same input gives the same
 * rows.
 */
export function coveringSet(space: Space, options: CoveringOptions): number[][] {
  const { extents, allowed, full } = space;
  if (allowed === NOWHERE) return [];
  const random = seededRandom(1);
  const tuples = new Tuples(extents, allowed, options.strength);
  const maker = new RowMaker(extents, allowed, tuples, random);
  const rows: Row[] = [];
  const take = (values: number[], region: Box): void => {
    tuples.add(values);
    rows.push({ values, region });
  };
  for (const region of options.situations ?? []) {
    if (!extents.meets(allowed, region)) continue;
    // A row that shows another situation already stays where it shows both.
    const shown = rows.findIndex(({ values }) => values.every((value, axis) => (region[axis]! >> value) & 1));
    if (shown < 0) take(maker.bestIn(region), region);
    else rows[shown] = { ...rows[shown]!, region: intersect(rows[shown]!.region, region) };
  }
  while (tuples.open.length > 0) take(maker.best(), full);
  if (rows.length === 0) take(maker.bestIn(full), full);
  const even = allowed === EVERYWHERE && options.strength === 2 && orthogonalRows(full.map(bitCount));
  if (even && rows.every(row => row.region === full) && even.length <= rows.length) {
    rows.splice(0).forEach(row => tuples.remove(row.values));
    even.forEach(values => take(values, full));
  }
  const saved = savedRows(rows, tuples, maker, random, options, full).map(({ values }) => values);
  return [...new Map(saved.map(values => [values.join(), values])).values()];
}

/** Takes out row after row for as long as the rest can be made to show everything. */
function savedRows(
  start: readonly Row[],
  tuples: Tuples,
  maker: RowMaker,
  random: () => number,
  { effort = EFFORT, onProgress = () => true }: CoveringOptions,
  full: Box,
): readonly Row[] {
  let best = start;
  while (best.length > Math.max(1, tuples.least) && onProgress(best.length)) {
    const spare = best.filter(row => row.region === full);
    if (spare.length === 0) break;
    const least = spare.reduce((a, b) => (tuples.ownOf(b.values) < tuples.ownOf(a.values) ? b : a));
    const rows = best.filter(row => row !== least).map(row => ({ ...row, values: [...row.values] }));
    tuples.remove(least.values);
    if (!annealed(rows, tuples, maker, random, effort)) {
      rows.forEach(row => tuples.remove(row.values));
      best.forEach(row => tuples.add(row.values));
      break;
    }
    best = rows;
  }
  return best;
}

/** Rearranges rows, in place, until no tuple is open; says whether that was reached. */
function annealed(
  rows: readonly Row[],
  tuples: Tuples,
  maker: RowMaker,
  random: () => number,
  effort: number,
): boolean {
  const { open } = tuples;
  for (let step = 0; step < effort && open.length > 0; step++) {
    const warmth = WARMEST * (COLDEST / WARMEST) ** (step / effort);
    const row = rows[maker.pick(rows.length)]!;
    const next = maker.withTuple(row.values, tuples.tuple(open[maker.pick(open.length)]!), row.region);
    if (!next) continue;
    const changed = next.flatMap((value, axis) => (value === row.values[axis] ? [] : [axis]));
    const before = changed.map(axis => row.values[axis]!);
    const missing = open.length;
    for (const axis of changed) tuples.change(row.values, axis, next[axis]!);
    const worse = open.length - missing;
    if (worse > 0 && random() >= Math.exp(-worse / warmth))
      changed.forEach((axis, place) => tuples.change(row.values, axis, before[place]!));
  }
  return open.length === 0;
}
