import type { SampleDocument } from '../formats/component-document';
import type { Component } from '../rules/component';
import type { Box } from '../space/box';
import { withMask } from '../space/box';
import { inBox, type Combination } from '../space/space';

/** How a plate is laid out: what runs across and down (outermost first), what is held, and whose content is shown. */
export interface Arrangement {
  readonly across: readonly string[];
  readonly down: readonly string[];
  readonly hold: Readonly<Record<string, string>>;
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
}

/** More than this is no plate any more; axes beyond it are left off, innermost first. */
export const MAX_CELLS = 5000;

/** Lays out a plate. Situations run across or down like an axis whose values are conditions. */
export function plateGrid(component: Component, arrangement: Arrangement): PlateGrid {
  const columns = headings(component, arrangement.across);
  const rows = headings(component, arrangement.down).slice(
    0,
    Math.max(1, Math.floor(MAX_CELLS / columns.length)),
  );
  const cells = rows.map((row, rowIndex) =>
    columns.map((column, columnIndex) => {
      const raw = component.space.indices({ ...arrangement.hold, ...row.wants, ...column.wants });
      const { combination, because } = component.space.settled(raw);
      const asked = inBox(row.region, combination) && inBox(column.region, combination);
      return {
        row: rowIndex,
        column: columnIndex,
        combination: component.space.written(combination),
        indices: combination,
        never: asked ? null : because,
      };
    }),
  );
  return { columns, rows, cells };
}

function headings(component: Component, axes: readonly string[]): Heading[] {
  const start: Heading = { words: [], wants: {}, region: component.space.full, key: '' };
  return axes.reduce<Heading[]>(
    (all, axis) => all.flatMap(outer => valuesOf(component, axis).map(inner => nested(outer, inner))),
    [start],
  );
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
    return { across: plate.across, down: plate.down, hold: plate.hold ?? {}, sample: plate.sample ?? null };
  const option = component.space.axes.find(axis => axis.kind === 'option');
  const across =
    component.situations.length > 0
      ? 'situation'
      : component.space.axes.find(axis => axis.kind === 'state')?.id;
  return { across: across ? [across] : [], down: option ? [option.id] : [], hold: {}, sample: null };
}
