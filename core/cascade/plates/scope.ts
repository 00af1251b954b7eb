import type { Component } from '../../components/component';
import { hull, intersect, isEmpty, withMask, type Box } from '../../space/box';
import { maskWords } from '../../space/condition';
import { inBox } from '../../space/space';
import type { Cell, PlateGrid } from './plate-grid';

/** What an edit will mean: a region of the space. */
export interface EditScope {
  readonly region: Box;
  /** Its axes in words, for the scope sentence; `axis` is the index in the space. */
  readonly words: readonly { readonly axis: number; readonly text: string; readonly free: boolean }[];
}

/**
 * The region that a selection of cells stands for: the smallest box around their rows and columns. Axes that are not on
 * the plate stay free, but for options that it holds at another value than the default: it shows nothing else. `narrowed` maps axes
 * (index) to masks that stand instead.
 */
export function scopeOf(
  component: Component,
  grid: PlateGrid,
  cells: readonly Cell[],
  narrowed: ReadonlyMap<number, number>,
  hold: Readonly<Record<string, string>> = {},
): EditScope | null {
  const regions = cells
    .map(cell => intersect(grid.rows[cell.row]!.region, grid.columns[cell.column]!.region))
    .filter(region => !isEmpty(region));
  if (regions.length === 0) return null;
  const shown = new Set([...grid.rows, ...grid.columns].flatMap(heading => Object.keys(heading.wants)));
  const held = heldMasks(component, hold, shown);
  const region = [...held, ...narrowed].reduce(
    (box, [axis, mask]) => withMask(box, axis, mask),
    regions.reduce(hull),
  );
  for (const axis of held.keys()) shown.add(component.space.axes[axis]!.id);
  return { region, words: scopeWords(component, region, shown) };
}

/** Options that are held at another value than the default, and not laid out. */
function heldMasks(
  { space }: Component,
  hold: Readonly<Record<string, string>>,
  shown: ReadonlySet<string>,
): ReadonlyMap<number, number> {
  const masks = new Map<number, number>();
  for (const [id, value] of Object.entries(hold)) {
    const index = space.axisIndex(id);
    const axis = space.axes[index];
    const place = axis?.values.findIndex(each => each.id === value) ?? -1;
    if (axis?.kind === 'option' && place >= 0 && place !== axis.rest && !shown.has(id))
      masks.set(index, 1 << place);
  }
  return masks;
}

/** States that are named come first, then every option on the plate or narrowed, named or free. */
function scopeWords(component: Component, region: Box, shown: ReadonlySet<string>): EditScope['words'] {
  const { axes, full } = component.space;
  const words = axes.flatMap((axis, index) => {
    const free = region[index] === full[index];
    if (free && (axis.kind === 'state' || !shown.has(axis.id))) return [];
    const text = free ? `any ${axis.title.toLowerCase()}` : maskWords(axis, region[index]!);
    return [{ axis: index, text, free, state: axis.kind === 'state' }];
  });
  return [...words.filter(word => word.state), ...words.filter(word => !word.state)];
}

/** The cells of a grid that an edit in a region reaches. */
export function reachedCells(grid: PlateGrid, region: Box): Cell[] {
  return grid.cells.flat().filter(cell => cell.never === null && inBox(region, cell.indices));
}
