import type { SampleDocument } from '../../documents/component-document';
import type { Component } from '../../components/component';
import type { Box } from '../../space/box';
import { intersect, withMask } from '../../space/box';
import { NOWHERE } from '../../space/extent';
import { inBox, type Combination, type Space } from '../../space/space';

/** How a plate is laid out: what runs across and down (outermost first), what is held, and whose content is shown. */
export interface Arrangement {
  readonly across: readonly string[];
  readonly down: readonly string[];
  readonly hold: Readonly<Record<string, string>>;
  /** Values that are shown of an axis, or of `situation`, in their order, where not all as they are. */
  readonly values?: Readonly<Record<string, readonly string[]>>;
  readonly sample: string | null;
}

/** A column or a row: one word per nested axis, what it asks for, and the region it stands for. */
export interface Heading {
  readonly words: readonly string[];
  readonly wants: Combination;
  readonly region: Box;
  readonly key: string;
}

export interface Cell {
  readonly row: number;
  readonly column: number;
  /** After the limits. */
  readonly combination: Combination;
  readonly indices: readonly number[];
  /** Reasons, when the limits do not let this combination be; such a cell is not drawn. */
  readonly never: readonly string[] | null;
}

export interface PlateGrid {
  readonly columns: readonly Heading[];
  readonly rows: readonly Heading[];
  /** Row by row. */
  readonly cells: readonly (readonly Cell[])[];
  /** Axes that would have made too many cells. */
  readonly leftOff: readonly string[];
}

/** More than this is no plate any more; axes beyond it are left off, innermost first. */
export const MAX_CELLS = 5000;

/** More columns nobody scrolls through. */
const MAX_COLUMNS = 500;

/** How many cells a plate has. */
export function cellCount(component: Component, arrangement: Arrangement): number {
  const { across, down } = laidOut(component, arrangement);
  const headingCount = (axes: readonly string[]): number =>
    axes.reduce((product, axis) => product * shownOf(component, axis, arrangement).length, 1);
  return headingCount(across) * headingCount(down);
}

/** Lays out a plate. Situations run across or down like an axis whose values are conditions. */
export function plateGrid(component: Component, arrangement: Arrangement): PlateGrid {
  const steps = plateGridInSteps(component, arrangement);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** The same row by row, with how far it has come; it can be stopped in between. */
export function* plateGridInSteps(
  component: Component,
  arrangement: Arrangement,
): Generator<{ done: number; total: number }, PlateGrid> {
  const { across, down } = laidOut(component, arrangement);
  const columns = headings(component, across, arrangement);
  const rows = headings(component, down, arrangement);
  const held = holdRegion(component, arrangement.hold);
  const cells: Cell[][] = [];
  for (const [rowIndex, row] of rows.entries()) {
    cells.push(
      columns.map((column, columnIndex) => {
        const raw = component.space.indices({ ...arrangement.hold, ...row.wants, ...column.wants });
        const region = intersect(row.region, column.region);
        const { indices, never } = shownIn(component.space, raw, region, held);
        const combination = component.space.written(indices);
        return { row: rowIndex, column: columnIndex, combination, indices, never };
      }),
    );
    yield { done: rowIndex + 1, total: rows.length };
  }
  const leftOff = [...arrangement.across.slice(across.length), ...arrangement.down.slice(down.length)];
  return { columns, rows, cells, leftOff };
}

/** The axes that a plate has room for. */
function laidOut(component: Component, arrangement: Arrangement): Pick<Arrangement, 'across' | 'down'> {
  const count = (axis: string): number => shownOf(component, axis, arrangement).length;
  const across = fitting(count, arrangement.across, MAX_COLUMNS);
  const columns = across.reduce((product, axis) => product * count(axis), 1);
  const down = fitting(count, arrangement.down, Math.floor(MAX_CELLS / Math.max(1, columns)));
  return { across, down };
}

/** As many axes, from the outermost, as make no more headings than these. */
function fitting(count: (axis: string) => number, axes: readonly string[], most: number): readonly string[] {
  let headingCount = 1;
  const end = axes.findIndex(axis => (headingCount *= count(axis)) > most);
  return end < 0 ? axes : axes.slice(0, end);
}

/** The region of what is held; unknown names hold nothing. */
function holdRegion({ space }: Component, hold: Arrangement['hold']): Box {
  return space.axes.map((axis, index) => {
    const value = axis.indexOf.get(hold[axis.id] ?? '');
    return value === undefined ? space.full[index]! : 1 << value;
  });
}

/**
 * What a cell shows: what the limits make of the combination asked for, if that lies in the cell; else the one of the cell that
 * departs least from rest, if there is any.
 */
function shownIn(
  space: Space,
  raw: readonly number[],
  region: Box,
  held: Box,
): Pick<Cell, 'indices' | 'never'> {
  const { combination, because } = space.settled(raw);
  if (inBox(region, combination)) return { indices: combination, never: null };
  const { extents, axes, full } = space;
  let left = space.allowedIn(intersect(region, held));
  if (left === NOWHERE) return { indices: combination, never: because };
  axes.forEach(({ rest }, axis) => {
    for (const value of [raw[axis]!, rest]) {
      const nearer = extents.and(left, extents.of(withMask(full, axis, 1 << value)));
      if (nearer === NOWHERE) continue;
      left = nearer;
      return;
    }
  });
  return { indices: extents.first(left)!, never: null };
}

function headings(component: Component, axes: readonly string[], arrangement: Arrangement): Heading[] {
  const start: Heading = { words: [], wants: {}, region: component.space.full, key: '' };
  return axes.reduce<Heading[]>(
    (all, axis) =>
      all.flatMap(outer => shownOf(component, axis, arrangement).map(inner => nested(outer, inner))),
    [start],
  );
}

/** The values of an axis that a plate shows, in its order. */
function shownOf(component: Component, axis: string, { values }: Arrangement): Heading[] {
  const all = valuesOf(component, axis);
  const wanted = values?.[axis];
  if (!wanted) return all;
  const shown = wanted.flatMap(id => all.find(({ key }) => key === id) ?? []);
  return shown.length > 0 ? shown : all;
}

/** The values an axis contributes; `situation` contributes the situations. */
function valuesOf(component: Component, id: string): Heading[] {
  const { space } = component;
  if (id === 'situation') {
    return component.situations.map(({ title, when, region, id: situation }) => ({
      words: [title],
      wants: when,
      region,
      key: situation,
    }));
  }
  const index = space.axisIndex(id);
  const axis = space.axes[index];
  if (!axis) return [];
  return axis.values.map((value, place) => {
    // A rung of a ladder stands for itself and what goes further.
    const mask = axis.ladder ? (space.full[index]! >> place) << place : 1 << place;
    return {
      words: [value.words],
      wants: { [id]: value.id },
      region: withMask(space.full, index, mask),
      key: value.id,
    };
  });
}

function nested(outer: Heading, inner: Heading): Heading {
  return {
    words: [...outer.words, ...inner.words],
    wants: { ...outer.wants, ...inner.wants },
    region: outer.region.map((mask, axis) => mask & inner.region[axis]!),
    key: outer.key === '' ? inner.key : `${outer.key}.${inner.key}`,
  };
}

export function sampleNamed(component: Component, id: string | null | undefined): SampleDocument | undefined {
  return component.samples.find(sample => sample.id === id) ?? component.samples[0];
}

/** The arrangement of one of a component's own plates, or a plain one when it has none. */
export function arrangementOf(component: Component, plateId: string | null): Arrangement {
  const plate = component.plates.find(each => each.id === plateId) ?? component.plates[0];
  if (plate)
    return {
      across: plate.across,
      down: plate.down,
      hold: plate.hold ?? {},
      ...(plate.values ? { values: plate.values } : {}),
      sample: plate.sample ?? null,
    };
  const option = component.space.axes.find(axis => axis.kind === 'option');
  const across =
    component.situations.length > 0
      ? 'situation'
      : component.space.axes.find(axis => axis.kind === 'state')?.id;
  return { across: across ? [across] : [], down: option ? [option.id] : [], hold: {}, sample: null };
}
