import {
  memo,
  useCallback,
  useEffect,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import type { Cell, Heading, PlateGrid } from '@periwinkle/core/cascade/plates/plate-grid';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, type Shape } from '../specimen/specimen';
import { useWriting } from '../specimen/use-writing';
import type { Selection } from './plate-address';

interface CellPlace {
  readonly row: number;
  readonly column: number;
}

export interface PlateProps {
  readonly system: System;
  readonly shape: Shape;
  readonly grid: PlateGrid;
  readonly contexts: ContextInput;
  readonly sample: SampleDocument | undefined;
  readonly selection: Selection | null;
  /** Keys `row.column` of the cells an edit reaches. */
  readonly reached: ReadonlySet<string>;
  /** While the pointer draws it. */
  readonly onDraw: (selection: Selection) => void;
  readonly onSelect: (selection: Selection | null) => void;
  /** Enter on what is selected already. */
  readonly onEdit: () => void;
}

/** A grid of specimens. Selecting is a press, a drag, a heading, or the arrow keys. */
export function Plate(props: PlateProps) {
  const { system, shape, grid, contexts, sample, selection, reached } = props;
  const frame = useRef<HTMLDivElement>(null);
  const { begin, editor } = useWriting(shape, sample, frame);
  const write = (target: HTMLElement, point?: { x: number; y: number }): boolean => {
    const at = target.closest<HTMLElement>('[role=gridcell]');
    const cell = at && grid.cells[Number(at.dataset['row'])]?.[Number(at.dataset['column'])];
    return cell ? begin(at.querySelector<HTMLElement>('.specimen'), cell.combination, point) : false;
  };
  const { cursor, focusHere, element, onKeyDown, onPointerDown, onPointerMove } = usePlateSelection(props);
  const rows = grid.rows.length;
  const columns = grid.columns.length;
  const style = { '--columns': columns } as CSSProperties;
  const tab = (row: number, column: number): 0 | -1 =>
    cursor.row === row && cursor.column === column ? 0 : -1;
  const within = (row: number, column: number): boolean =>
    selection !== null &&
    row >= selection.top &&
    row <= selection.bottom &&
    column >= selection.left &&
    column <= selection.right;
  return (
    <PreviewSurface system={system} contexts={contexts} className="plate-frame" frame={frame}>
      <div
        ref={element}
        role="grid"
        aria-label="Plate"
        aria-multiselectable="true"
        className="plate"
        style={style}
        onKeyDown={event => {
          if (event.key === 'F2' && write(event.target as HTMLElement)) event.preventDefault();
          else onKeyDown(event);
        }}
        onDoubleClick={event => write(event.target as HTMLElement, { x: event.clientX, y: event.clientY })}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onFocus={focusHere}
      >
        <div role="row" style={{ display: 'contents' }}>
          <div role="columnheader" className="corner" data-row={-1} data-column={-1} tabIndex={tab(-1, -1)}>
            <span className="unseen">The whole plate</span>
          </div>
          {grid.columns.map((heading, column) => (
            <HeadingCell
              key={heading.key || column}
              heading={heading}
              role="columnheader"
              on={
                selection !== null &&
                selection.left <= column &&
                column <= selection.right &&
                selection.top === 0 &&
                selection.bottom === rows - 1
              }
              row={-1}
              column={column}
              tabIndex={tab(-1, column)}
            />
          ))}
        </div>
        {grid.rows.map((heading, row) => (
          <div role="row" key={heading.key || row} style={{ display: 'contents' }}>
            <HeadingCell
              heading={heading}
              role="rowheader"
              on={
                selection !== null &&
                selection.top <= row &&
                row <= selection.bottom &&
                selection.left === 0 &&
                selection.right === columns - 1
              }
              row={row}
              column={-1}
              tabIndex={tab(row, -1)}
            />
            {grid.cells[row]!.map(cell => (
              <PlateCell
                key={cell.column}
                cell={cell}
                name={cellName(heading, grid.columns[cell.column]!)}
                shape={shape}
                sample={sample}
                isOver={isOpen(cell) && !grid.cells[row]!.every(isOpen)}
                selected={within(row, cell.column)}
                reached={reached.has(`${row}.${cell.column}`)}
                tabIndex={tab(row, cell.column)}
              />
            ))}
          </div>
        ))}
      </div>
      <span className="unseen" aria-live="polite">
        {selection
          ? `${(selection.bottom - selection.top + 1) * (selection.right - selection.left + 1)} selected`
          : ''}
      </span>
      {editor}
    </PreviewSurface>
  );
}

/** Whether what a field opens is open: it lies over the rows below, which are as high as fields at rest. */
const isOpen = ({ combination, never }: Cell): boolean =>
  never === null && combination['disclosure'] === 'open';

const cellName = (row: Heading, column: Heading): string => [...column.words, ...row.words].join(', ');

function HeadingCell({
  heading,
  role,
  on,
  row,
  column,
  tabIndex,
}: {
  heading: Heading;
  role: 'columnheader' | 'rowheader';
  on: boolean;
  row: number;
  column: number;
  tabIndex: 0 | -1;
}) {
  const words = heading.words;
  const kind = role === 'columnheader' ? 'column-heading' : 'row-heading';
  return (
    <div
      role={role}
      className={`${kind} ${on ? 'on' : ''}`}
      data-row={row}
      data-column={column}
      tabIndex={tabIndex}
    >
      {words.slice(0, -1).map(word => (
        <small key={word}>{word}</small>
      ))}
      {words.at(-1) ?? 'all'}
    </div>
  );
}

interface PlateCellProps {
  readonly cell: Cell;
  readonly name: string;
  readonly shape: Shape;
  readonly sample: SampleDocument | undefined;
  /** Whether it lies over the rows below. */
  readonly isOver: boolean;
  readonly selected: boolean;
  readonly reached: boolean;
  readonly tabIndex: 0 | -1;
}

/** One cell. Drawn again only when it is selected, tinted or shows something else, never for an edit. */
const PlateCell = memo(
  function PlateCell({ cell, name, shape, sample, isOver, selected, reached, tabIndex }: PlateCellProps) {
    const state = `${cell.never ? 'never' : ''} ${isOver ? 'over' : ''} ${selected ? 'selected' : ''} ${reached ? 'reached' : ''}`;
    return (
      <div
        role="gridcell"
        className={`cell ${state}`}
        data-row={cell.row}
        data-column={cell.column}
        aria-selected={selected}
        data-name={name}
        tabIndex={tabIndex}
      >
        <span className="unseen">{name}: </span>
        {cell.never ? (
          (cell.never[0] ?? 'Never occurs.')
        ) : (
          <Specimen shape={shape} combination={cell.combination} sample={sample} />
        )}
      </div>
    );
  },
  (a, b) =>
    a.cell === b.cell &&
    a.name === b.name &&
    a.shape === b.shape &&
    a.sample === b.sample &&
    a.isOver === b.isOver &&
    a.selected === b.selected &&
    a.reached === b.reached &&
    a.tabIndex === b.tabIndex,
);

const STEPS: Readonly<Record<string, CellPlace>> = {
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
};

/** The cursor, the selection it draws, and what keys and pointer do to both. Place -1 is a heading. */
function usePlateSelection({ grid, selection, onDraw, onSelect, onEdit }: PlateProps) {
  const element = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<CellPlace>({ row: selection?.top ?? 0, column: selection?.left ?? 0 });
  const anchor = useRef<CellPlace | null>(null);
  const rows = grid.rows.length;
  const columns = grid.columns.length;
  const slice = useCallback(
    (from: CellPlace, to: CellPlace): Selection => ({
      top: from.row < 0 || to.row < 0 ? 0 : Math.min(from.row, to.row),
      bottom: from.row < 0 || to.row < 0 ? rows - 1 : Math.max(from.row, to.row),
      left: from.column < 0 || to.column < 0 ? 0 : Math.min(from.column, to.column),
      right: from.column < 0 || to.column < 0 ? columns - 1 : Math.max(from.column, to.column),
    }),
    [rows, columns],
  );
  const select = (from: CellPlace, to: CellPlace): void => {
    anchor.current = from;
    onSelect(slice(from, to));
  };
  /** What the pointer draws. */
  const drawn = useRef<Selection | null>(null);
  const latest = useRef(onSelect);
  useEffect(() => {
    latest.current = onSelect;
  });
  const letGo = useCallback((): void => {
    if (drawn.current) latest.current(drawn.current);
    drawn.current = null;
  }, []);
  const cellAt = (target: EventTarget | null): CellPlace | null => {
    const cell = target instanceof Element ? target.closest<HTMLElement>('[data-row]') : null;
    return cell && { row: Number(cell.dataset['row']), column: Number(cell.dataset['column']) };
  };
  const focus = (place: CellPlace): void => {
    setCursor(place);
    element.current
      ?.querySelector<HTMLElement>(`[data-row="${place.row}"][data-column="${place.column}"]`)
      ?.focus();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = STEPS[event.key];
    if (step) {
      event.preventDefault();
      const next = {
        row: Math.max(-1, Math.min(rows - 1, cursor.row + step.row)),
        column: Math.max(-1, Math.min(columns - 1, cursor.column + step.column)),
      };
      focus(next);
      if (event.shiftKey) select(anchor.current ?? cursor, next);
      return;
    }
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      const wanted = slice(cursor, cursor);
      if (selection && sameSelection(selection, wanted)) onEdit();
      else select(cursor, cursor);
    }
    // The page then selects nothing.
    if (event.key === 'Escape') anchor.current = null;
  };
  const onPointerDown = (event: PointerEvent): void => {
    const place = cellAt(event.target);
    if (!place || event.button !== 0) return;
    setCursor(place);
    if (!event.shiftKey || !anchor.current) anchor.current = place;
    drawn.current = slice(anchor.current, place);
    onDraw(drawn.current);
    // It may be let go anywhere.
    addEventListener('pointerup', letGo, { once: true });
    addEventListener('pointercancel', letGo, { once: true });
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (!drawn.current || !anchor.current) return;
    const place = cellAt(event.target);
    const next = place && slice(anchor.current, place);
    if (!next || sameSelection(next, drawn.current)) return;
    drawn.current = next;
    onDraw(next);
  };
  const focusHere = (event: { target: EventTarget }): void => {
    const place = cellAt(event.target);
    if (place && (place.row !== cursor.row || place.column !== cursor.column)) setCursor(place);
  };
  useEffect(() => {
    // A plate laid out anew may be smaller than the last.
    setCursor(before => ({
      row: Math.min(before.row, rows - 1),
      column: Math.min(before.column, columns - 1),
    }));
  }, [rows, columns]);
  return { cursor, element, focusHere, onKeyDown, onPointerDown, onPointerMove };
}

const sameSelection = (a: Selection, b: Selection): boolean =>
  a.top === b.top && a.left === b.left && a.bottom === b.bottom && a.right === b.right;
