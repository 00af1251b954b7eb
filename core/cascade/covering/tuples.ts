import { bitCount, bits, type Box } from '../../space/box';
import { EVERYWHERE, type Extent, type Extents } from '../../space/extent';

/** Some axes, ascending, and where the numbers of their tuples of values begin. */
interface AxisSet {
  readonly axes: readonly number[];
  readonly strides: readonly number[];
  readonly offset: number;
}

/** A tuple of values on some axes. */
export interface Tuple {
  readonly axes: readonly number[];
  readonly values: readonly number[];
}

/**
 * All tuples of values on every set of `strength` axes, numbered without gaps, with how many rows show each. Only tuples
 * that occur in some allowed combination are wanted.
 */
export class Tuples {
  /** Numbers of wanted tuples that no row shows. */
  readonly open: number[] = [];
  /** Largest number of wanted tuples on one set of axes: no fewer rows can show them all. */
  readonly least: number;
  private readonly sets: readonly AxisSet[];
  private readonly setsWith: readonly (readonly AxisSet[])[];
  private readonly shown: Uint32Array;
  private readonly wanted: Uint8Array;
  /** Place of each tuple in `open`, or -1. */
  private readonly place: Int32Array;

  constructor(extents: Extents, allowed: Extent, strength: number) {
    const { own: full } = extents;
    const sizes = full.map(bitCount);
    let total = 0;
    this.sets = axisSets(full.length, Math.min(strength, full.length)).map(axes => {
      const strides = axes.map((_, place) =>
        axes.slice(place + 1).reduce((product, axis) => product * sizes[axis]!, 1),
      );
      const set = { axes, strides, offset: total };
      total += axes.reduce((product, axis) => product * sizes[axis]!, 1);
      return set;
    });
    this.setsWith = full.map((_, axis) => this.sets.filter(set => set.axes.includes(axis)));
    this.shown = new Uint32Array(total);
    this.wanted = new Uint8Array(total);
    this.place = new Int32Array(total).fill(-1);
    const limited = extents.support(allowed);
    let least = allowed === EVERYWHERE || this.sets.length > 0 ? 0 : 1;
    for (const set of this.sets) {
      const free = !set.axes.some(axis => limited.has(axis));
      let own = 0;
      for (const values of tuplesOf(full, set.axes)) {
        if (!free && !extents.meets(allowed, boxOf(full, { axes: set.axes, values }))) continue;
        const tuple = numberOf(set, values);
        this.wanted[tuple] = 1;
        this.setOpen(tuple);
        own++;
      }
      least = Math.max(least, own);
    }
    this.least = least;
  }

  tuple(number: number): Tuple {
    const set = this.sets.findLast(each => each.offset <= number)!;
    let rest = number - set.offset;
    const values = set.strides.map(stride => {
      const value = Math.floor(rest / stride);
      rest -= value * stride;
      return value;
    });
    return { axes: set.axes, values };
  }

  add(row: readonly number[]): void {
    for (const set of this.sets) this.show(numberOfRow(set, row));
  }

  remove(row: readonly number[]): void {
    for (const set of this.sets) this.hide(numberOfRow(set, row));
  }

  /** Changes one value of a row that has been added, in place. */
  change(row: number[], axis: number, value: number): void {
    for (const set of this.setsWith[axis]!) this.hide(numberOfRow(set, row));
    row[axis] = value;
    for (const set of this.setsWith[axis]!) this.show(numberOfRow(set, row));
  }

  /** Tuples that only this row shows. */
  ownOf(row: readonly number[]): number {
    return this.sets.filter(set => this.shown[numberOfRow(set, row)] === 1).length;
  }

  /** Open tuples that a value would show together with what a row has on some other axes. */
  gain(row: readonly number[], axis: number, value: number, known: readonly boolean[]): number {
    let gain = 0;
    for (const { axes, strides, offset } of this.setsWith[axis]!) {
      let number = offset;
      let complete = true;
      for (let place = 0; place < axes.length && complete; place++) {
        const other = axes[place]!;
        if (other === axis) number += value * strides[place]!;
        else if (known[other]) number += row[other]! * strides[place]!;
        else complete = false;
      }
      if (complete && this.place[number]! >= 0) gain++;
    }
    return gain;
  }

  private show(tuple: number): void {
    if (this.shown[tuple]!++ === 0 && this.wanted[tuple] === 1) this.close(tuple);
  }

  private hide(tuple: number): void {
    if (--this.shown[tuple]! === 0 && this.wanted[tuple] === 1) this.setOpen(tuple);
  }

  private setOpen(tuple: number): void {
    this.place[tuple] = this.open.length;
    this.open.push(tuple);
  }

  private close(tuple: number): void {
    const place = this.place[tuple]!;
    const last = this.open.pop()!;
    if (last !== tuple) {
      this.open[place] = last;
      this.place[last] = place;
    }
    this.place[tuple] = -1;
  }
}

/** The combinations in which a tuple holds. */
export function boxOf(full: Box, { axes, values }: Tuple): Box {
  const box = [...full];
  axes.forEach((axis, place) => (box[axis] = 1 << values[place]!));
  return box;
}

const numberOf = ({ strides, offset }: AxisSet, values: readonly number[]): number =>
  values.reduce((sum, value, place) => sum + value * strides[place]!, offset);

function numberOfRow({ axes, strides, offset }: AxisSet, row: readonly number[]): number {
  let number = offset;
  for (let place = 0; place < axes.length; place++) number += row[axes[place]!]! * strides[place]!;
  return number;
}

/** All sets of so many axes, each ascending. */
function axisSets(axes: number, size: number): number[][] {
  if (size === 0) return [];
  let sets = Array.from({ length: axes }, (_, axis) => [axis]);
  for (let more = 1; more < size; more++) {
    sets = sets.flatMap(set =>
      Array.from({ length: axes - 1 - set.at(-1)! }, (_, further) => [...set, set.at(-1)! + 1 + further]),
    );
  }
  return sets;
}

function tuplesOf(full: Box, axes: readonly number[]): number[][] {
  return axes.reduce<number[][]>(
    (tuples, axis) => tuples.flatMap(tuple => bits(full[axis]!).map(value => [...tuple, value])),
    [[]],
  );
}
