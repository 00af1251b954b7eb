import { memo, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Ledger, LedgerColumn, LedgerRow } from '@periwinkle/core/cascade/ledger';
import type { RuleSource } from '@periwinkle/core/components/rule-source';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Choice } from '../common/choice';
import { useLatest } from '../common/use-latest';
import { LedgerLine } from './ledger-line';
import { useNearRows } from './near-rows';
import { ValueEditor, type ValueEditorProps } from './value-editor';

/** An entry of the ledger: a property of a part in a column. */
export interface EntryPlace {
  readonly part: string;
  readonly property: string;
  /** Rule id, or `null` for the rule that writing would make. */
  readonly rule: string | null;
}

export interface LedgerTableProps {
  readonly system: System;
  readonly contexts: ContextInput;
  readonly ledger: Ledger;
  readonly editing: EntryPlace | null;
  readonly editorFor: (
    place: EntryPlace,
  ) => Pick<ValueEditorProps, 'contrastOf' | 'fault' | 'onTry' | 'onSet' | 'onLeave' | 'onNewToken'>;
  readonly onEdit: (place: EntryPlace) => void;
  readonly onRemove: (place: EntryPlace) => void;
  readonly onAim: (column: LedgerColumn) => void;
  readonly onMoveRule: (rule: string, by: -1 | 1) => void;
  readonly onRemoveRule: (rule: string) => void;
  /** Escape from the ledger. */
  readonly onLeave: () => void;
}

/** In a ledger of more entries only the lines near to what is seen are drawn whole. */
const MANY_ENTRIES = 4000;

const placeAt = ({ columns }: Ledger, { part, property }: LedgerRow, at: number): EntryPlace => ({
  part,
  property,
  rule: columns[at]!.rule?.id ?? null,
});

/** Rules against properties, with the outcome last. */
export function LedgerTable(props: LedgerTableProps) {
  const { system, contexts, ledger, editing, onLeave } = props;
  const table = useRef<HTMLTableElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const scopeAt = ledger.columns.findIndex(column => column.isScope);
  useLayoutEffect(() => {
    // The column that edits go to stays in view, clear of the outcomes, which stand still at the right.
    const heading = table.current?.querySelector<HTMLElement>('th.scope-column');
    const outcome = table.current?.querySelector<HTMLElement>('th.outcome');
    if (!scroller.current) return;
    if (!heading) {
      // What nested components say comes first and is read only here: one begins at the first rule that one can write.
      const own = table.current?.querySelector<HTMLElement>('th[scope="col"]:not(.nested)');
      const named = table.current?.querySelector<HTMLElement>('th.property');
      if (own && named) scroller.current.scrollLeft = own.offsetLeft - named.offsetLeft - named.offsetWidth;
      return;
    }
    const room = scroller.current.clientWidth - (outcome?.offsetWidth ?? 0);
    scroller.current.scrollLeft = Math.max(0, heading.offsetLeft + heading.offsetWidth - room);
  }, [scopeAt, ledger.columns.length]);
  // A ledger may have thousands of entries; only lines in which something is different are drawn anew.
  const acts = useLatest({
    edit: (row: number, at: number) => props.onEdit(placeAt(ledger, ledger.rows[row]!, at)),
    remove: (row: number, at: number) => props.onRemove(placeAt(ledger, ledger.rows[row]!, at)),
    aim: (row: number, at: number) => {
      setStop({ row, column: at });
      props.onAim(ledger.columns[at]!);
    },
    moveRule: props.onMoveRule,
    removeRule: props.onRemoveRule,
  });
  const editedAt = ledger.columns.findIndex(column => (column.rule?.id ?? null) === editing?.rule);
  const editorIn = (row: LedgerRow) =>
    editing && editedAt >= 0 && row.part === editing.part && row.property === editing.property ? (
      <ValueEditor
        system={system}
        contexts={contexts}
        property={row.property}
        initial={row.entries[editedAt]?.text ?? ''}
        {...props.editorFor(editing)}
      />
    ) : null;
  const tokens = system.tokens.in(contexts);
  // Where Tab comes to: the entry that had the focus last, in the column that edits go to. Its line is kept, however far one scrolls: the focus would go with it.
  const [{ row: stopRow, column: stopColumn }, setStop] = useState<Spot>({ row: 0, column: 0 });
  const stop = {
    row: Math.min(stopRow, ledger.rows.length - 1),
    column: scopeAt >= 0 ? scopeAt : Math.min(stopColumn, ledger.columns.length - 1),
  };
  const near = useNearRows(scroller, ledger.rows.length * ledger.columns.length <= MANY_ENTRIES);
  const withOutcome = ledger.rows.some(row => row.outcomes.length > 0);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.target instanceof HTMLInputElement) return;
    if (event.key === 'Escape') {
      event.preventDefault();
      onLeave();
    }
    moveFocus(event, table.current, ledger, near.reveal);
  };
  return (
    <div className="ledger-scroll" ref={scroller}>
      <table
        className="ledger"
        ref={table}
        onKeyDown={onKeyDown}
        aria-label="Ledger: rules against properties"
      >
        <thead>
          <tr>
            <th className="part">
              <span className="unseen">Part</span>
            </th>
            <th className="property">
              <span className="unseen">Property</span>
            </th>
            {ledger.columns.map(column => (
              <th
                key={column.rule?.id ?? '/new'}
                scope="col"
                className={`${column.isScope ? 'scope-column' : ''} ${column.source.kind}`}
              >
                {column.rule ? (
                  <RuleHeading
                    id={column.rule.id}
                    words={column.words}
                    note={column.rule.note}
                    kind={column.source.kind}
                    from={componentNamed(system, column.source.from)?.title ?? column.source.from}
                    onMove={acts.moveRule}
                    onRemove={acts.removeRule}
                  />
                ) : (
                  column.words
                )}
              </th>
            ))}
            {withOutcome ? (
              <th scope="col" className="outcome">
                outcome
              </th>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {ledger.rows.map((row, index) => (
            <LedgerLine
              key={`${row.part}.${row.property}`}
              row={row}
              columns={ledger.columns}
              index={index}
              first={ledger.rows[index - 1]?.part !== row.part}
              whole={near.isNear(index) || index === stop.row}
              stopAt={index === stop.row ? stop.column : null}
              withOutcome={withOutcome}
              tokens={tokens}
              rootFontSize={system.rootFontSize}
              editor={editorIn(row)}
              editedAt={editedAt}
              acts={acts}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What taking a rule out comes to, by where it was written. */
const REMOVING: Readonly<Record<Exclude<RuleSource['kind'], 'nested'>, (from: string) => string>> = {
  own: () => 'remove the rule',
  base: () => 'leave the rule out here',
  overlaid: from => `as in ${from} again`,
};

const RuleHeading = memo(function RuleHeading({
  id: rule,
  words,
  note,
  kind,
  from,
  onMove,
  onRemove,
}: {
  id: string;
  words: string;
  note: string;
  kind: RuleSource['kind'];
  /** Title of the component whose rule it is. */
  from: string;
  onMove: (rule: string, by: -1 | 1) => void;
  onRemove: (rule: string) => void;
}) {
  // What a nested component says is changed there, or covered by a rule of this one.
  if (kind === 'nested')
    return (
      <>
        <span title={note || undefined}>{words}</span>
        <small className="source">in {from}</small>
      </>
    );
  const act = (id: string): void => {
    if (id === 'earlier') onMove(rule, -1);
    if (id === 'later') onMove(rule, 1);
    if (id === 'remove') onRemove(rule);
  };
  const moves = [
    { id: 'earlier', words: 'one place earlier', hint: note || undefined },
    { id: 'later', words: 'one place later', hint: 'The later rule has the last word.' },
  ];
  const items = [
    // The order of a base's rules is the base's.
    ...(kind === 'own' ? moves : []),
    { id: 'remove', words: REMOVING[kind](from), hint: kind === 'own' ? undefined : note || undefined },
  ];
  return (
    <>
      <Choice
        label="Rule"
        value={null}
        className="off"
        items={items.map(({ hint, ...item }) => (hint ? { ...item, hint } : item))}
        onChoose={act}
      >
        {words}
      </Choice>
      {kind === 'own' ? null : (
        <small className="source">{kind === 'base' ? `as in ${from}` : `departs from ${from}`}</small>
      )}
    </>
  );
});

interface Spot {
  readonly row: number;
  readonly column: number;
}

/** The lines with which parts begin. */
const partStarts = ({ rows }: Ledger): number[] =>
  rows.flatMap(({ part }, at) => (rows[at - 1]?.part === part ? [] : [at]));

/** Where keys go from an entry. */
const KEYS: Readonly<Record<string, (from: Spot, ledger: Ledger) => Spot>> = {
  ArrowLeft: ({ row, column }) => ({ row, column: column - 1 }),
  ArrowRight: ({ row, column }) => ({ row, column: column + 1 }),
  ArrowUp: ({ row, column }) => ({ row: row - 1, column }),
  ArrowDown: ({ row, column }) => ({ row: row + 1, column }),
  Home: ({ row }) => ({ row, column: 0 }),
  End: ({ row }, { columns }) => ({ row, column: columns.length - 1 }),
  PageUp: ({ row, column }, ledger) => ({ row: partStarts(ledger).findLast(at => at < row) ?? row, column }),
  PageDown: ({ row, column }, ledger) => ({ row: partStarts(ledger).find(at => at > row) ?? row, column }),
};

/** Keys go from entry to entry. */
function moveFocus(
  event: KeyboardEvent,
  table: HTMLTableElement | null,
  ledger: Ledger,
  reveal: (row: number) => void,
): void {
  const from = event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('.entry') : null;
  if (!from || event.ctrlKey || event.metaKey || event.altKey) return;
  const { row, column } =
    KEYS[event.key]?.({ row: Number(from.dataset['row']), column: Number(from.dataset['column']) }, ledger) ??
    {};
  if (row === undefined) return;
  const entry = (): HTMLElement | null | undefined =>
    table?.querySelector<HTMLElement>(`.entry[data-row="${row}"][data-column="${column}"]`);
  if (!entry() && table?.tBodies[0]?.rows[row]) reveal(row);
  const next = entry();
  if (!next) return;
  event.preventDefault();
  next.focus();
}
