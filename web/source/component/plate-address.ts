import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import {
  arrangementOf,
  type Arrangement,
  type Heading,
  type PlateGrid,
} from '@periwinkle/core/cascade/plates/plate-grid';
import type { Component } from '@periwinkle/core/components/component';

/** A rectangle of cells, by row and column; a heading selects its whole slice. */
export interface Selection {
  readonly top: number;
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
}

/** What of the component's screen stands in the address, so that a link or the back button returns to it. */
export interface PlateAddress {
  readonly plateId: string | null;
  readonly arrangement: Arrangement;
  readonly selected: SelectedHeadings | null;
  /** Axes narrowed by hand: axis id to the value's id. */
  readonly narrowed: Readonly<Record<string, string>>;
  /** A region to be shown, whatever is selected. */
  readonly region: string | null;
}

const SELECTION_PARAMETERS = ['rows', 'columns'];
/** What another plate has of its own; a chosen sample stays. */
const PLATE_PARAMETERS = ['across', 'down', 'hold', 'values', 'narrow', 'region', ...SELECTION_PARAMETERS];

const pairs = (text: string | null): Record<string, string> =>
  Object.fromEntries(
    (text ?? '')
      .split(',')
      .flatMap(pair => (pair.includes(':') ? [pair.split(':') as [string, string]] : [])),
  );
const written = (record: Readonly<Record<string, string>>): string =>
  Object.entries(record)
    .map(pair => pair.join(':'))
    .join(',');
const list = (text: string): string[] => text.split(',').filter(each => each !== '');

/** Shown values as the address has them: `size:large+small`; those of the plate itself where it has none. */
function shownValues(text: string | null, own: Arrangement['values']): Pick<Arrangement, 'values'> {
  if (text === null) return own ? { values: own } : {};
  const shown = Object.entries(pairs(text)).map(([axis, ids]) => [axis, ids.split(/[+ ]/)] as const);
  return { values: Object.fromEntries(shown) };
}
const writtenValues = (values: NonNullable<Arrangement['values']>): string =>
  Object.entries(values)
    .map(([axis, ids]) => `${axis}:${ids.join('+')}`)
    .join(',');

/** Headings of one direction by their keys, from one to another; all of them, however many there will be. */
type Span = readonly [first: string, last: string] | 'all';

/** What is selected, by what its headings mean: an edit from elsewhere may move them. */
export interface SelectedHeadings {
  readonly rows: Span;
  readonly columns: Span;
}

const readSpan = (text: string): Span => {
  if (text === '*') return 'all';
  const [first = '', last = first] = text.split('*');
  return [first, last];
};
const spanText = (span: Span): string =>
  span === 'all' ? '*' : span[0] === span[1] ? span[0] : span.join('*');

function readSelected(parameters: URLSearchParams): SelectedHeadings | null {
  const [rows, columns] = [parameters.get('rows'), parameters.get('columns')];
  return rows === null || columns === null ? null : { rows: readSpan(rows), columns: readSpan(columns) };
}

/** What is selected on a plate as it is laid out; `null` where it is no longer there. */
export function selectionOn(grid: PlateGrid, selected: SelectedHeadings | null): Selection | null {
  const rows = selected && spanOn(grid.rows, selected.rows);
  const columns = selected && spanOn(grid.columns, selected.columns);
  return rows && columns && { top: rows[0], bottom: rows[1], left: columns[0], right: columns[1] };
}

function spanOn(headings: readonly Heading[], span: Span): readonly [number, number] | null {
  if (span === 'all') return headings.length > 0 ? [0, headings.length - 1] : null;
  const [first, last] = span;
  // A situation by itself is found wherever it runs along with something else.
  const isOf = (wanted: string) => (heading: Heading) =>
    heading.key === wanted || heading.key.split('.').includes(wanted);
  const [from, to] = [headings.findIndex(isOf(first)), headings.findLastIndex(isOf(last))];
  return from < 0 || to < 0 ? null : [Math.min(from, to), Math.max(from, to)];
}

/** The same by headings. */
export function selectedBy(grid: PlateGrid, { top, bottom, left, right }: Selection): SelectedHeadings {
  const span = (headings: readonly Heading[], from: number, to: number): Span =>
    from === 0 && to === headings.length - 1 ? 'all' : [headings[from]!.key, headings[to]!.key];
  return { rows: span(grid.rows, top, bottom), columns: span(grid.columns, left, right) };
}

/** Reads the address; parameters that are absent come from the plate itself. */
export function usePlateAddress(component: Component): {
  address: PlateAddress;
  change: (
    parts: Partial<Omit<PlateAddress, 'arrangement'>> & { arrangement?: Partial<Arrangement> },
  ) => void;
} {
  const [parameters, setParameters] = useSearchParams();
  const text = parameters.toString();
  const plateId = parameters.get('plate');
  // The arrangement stays the same object while a selection changes, and with it the whole plate.
  const laidOut = ['across', 'down', 'hold', 'sample', 'values']
    .map(name => parameters.get(name) ?? '\n')
    .join('\t');
  const arrangement = useMemo(() => {
    const [across, down, hold, sample, values] = laidOut
      .split('\t')
      .map(each => (each === '\n' ? null : each)) as (string | null)[];
    const own = arrangementOf(component, plateId);
    return {
      across: across ? list(across) : across === '' ? [] : own.across,
      down: down ? list(down) : down === '' ? [] : own.down,
      hold: { ...own.hold, ...pairs(hold ?? null) },
      ...shownValues(values ?? null, own.values),
      // It may have been chosen on another field.
      sample: component.samples.find(({ id }) => id === sample)?.id ?? own.sample,
    };
  }, [laidOut, plateId, component]);
  const address = useMemo(() => {
    const read = new URLSearchParams(text);
    return {
      plateId,
      arrangement,
      selected: readSelected(read),
      narrowed: pairs(read.get('narrow')),
      region: read.get('region'),
    };
  }, [text, plateId, arrangement]);
  const change = useCallback<ReturnType<typeof usePlateAddress>['change']>(
    parts => {
      setParameters(
        before => {
          const next = new URLSearchParams(before);
          const set = (name: string, value: string | null | undefined): void => {
            if (value === undefined) return;
            if (value === null || value === '') next.delete(name);
            else next.set(name, value);
          };
          if (parts.plateId !== undefined) {
            PLATE_PARAMETERS.forEach(name => next.delete(name));
            set('plate', parts.plateId);
          }
          const { across, down, hold, values, sample } = parts.arrangement ?? {};
          // An empty direction is said too: absent would mean the plate's own.
          if (across) next.set('across', across.join(','));
          if (down) next.set('down', down.join(','));
          if (hold) set('hold', written(hold));
          // So is that all are shown.
          if (values) next.set('values', writtenValues(values));
          set('sample', sample);
          if (across || down || values) SELECTION_PARAMETERS.forEach(name => next.delete(name));
          if (parts.selected !== undefined) {
            next.delete('region');
            set('rows', parts.selected && spanText(parts.selected.rows));
            set('columns', parts.selected && spanText(parts.selected.columns));
          }
          if (parts.narrowed) set('narrow', written(parts.narrowed));
          return next;
        },
        { replace: true },
      );
    },
    [setParameters],
  );
  return { address, change };
}
