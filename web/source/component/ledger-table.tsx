import { memo, useLayoutEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import type { Ledger, LedgerColumn, LedgerRow } from '@periwinkle/core/rules/ledger';
import type { Outcome } from '@periwinkle/core/rules/resolve';
import type { System } from '@periwinkle/core/rules/system';
import { propertyNamed } from '@periwinkle/core/rules/property-registry';
import { settledText, settledToken } from '@periwinkle/core/rules/settled-value';
import type { ContextInput } from '@periwinkle/core/tokens/resolver';
import { Choice } from '../common/choice';
import { ValueEditor, type ValueEditorProps } from './value-editor';
import { ValueMark } from './value-mark';

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

export const samePlace = (a: EntryPlace | null, b: EntryPlace): boolean =>
  a !== null && a.part === b.part && a.property === b.property && a.rule === b.rule;

/** Rules against properties, with the outcome last. */
export function LedgerTable(props: LedgerTableProps) {
  const { ledger, onMoveRule, onRemoveRule, onLeave } = props;
  const table = useRef<HTMLTableElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const scopeAt = ledger.columns.findIndex(column => column.isScope);
  useLayoutEffect(() => {
    // The column that edits go to stays in view, clear of the outcomes, which stand still at the right.
    const heading = table.current?.querySelector<HTMLElement>('th.scope-column');
    const outcome = table.current?.querySelector<HTMLElement>('th.outcome');
    if (!heading || !scroller.current) return;
    const room = scroller.current.clientWidth - (outcome?.offsetWidth ?? 0);
    scroller.current.scrollLeft = Math.max(0, heading.offsetLeft + heading.offsetWidth - room);
  }, [scopeAt, ledger.columns.length]);
  const withOutcome = ledger.rows.some(row => row.outcomes.length > 0);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.target instanceof HTMLInputElement) return;
    if (event.key === 'Escape') {
      event.preventDefault();
      onLeave();
    }
    moveFocus(event, table.current);
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
                className={column.isScope ? 'scope-column' : ''}
              >
                {column.rule ? (
                  <RuleHeading column={column} onMove={onMoveRule} onRemove={onRemoveRule} />
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
            <Row
              key={`${row.part}.${row.property}`}
              row={row}
              index={index}
              first={ledger.rows[index - 1]?.part !== row.part}
              withOutcome={withOutcome}
              {...props}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function RuleHeading({
  column,
  onMove,
  onRemove,
}: {
  column: LedgerColumn;
  onMove: (rule: string, by: -1 | 1) => void;
  onRemove: (rule: string) => void;
}) {
  const rule = column.rule!;
  const act = (id: string): void => {
    if (id === 'earlier') onMove(rule.id, -1);
    if (id === 'later') onMove(rule.id, 1);
    if (id === 'remove') onRemove(rule.id);
  };
  return (
    <Choice
      label="Rule"
      value={null}
      className="off"
      items={[
        { id: 'earlier', words: 'one place earlier', hint: rule.note || undefined },
        { id: 'later', words: 'one place later', hint: 'The later rule has the last word.' },
        { id: 'remove', words: 'remove the rule' },
      ].map(({ hint, ...item }) => (hint ? { ...item, hint } : item))}
      onChoose={act}
    >
      {column.words}
    </Choice>
  );
}

const Row = memo(function Row({
  row,
  index,
  first,
  withOutcome,
  system,
  contexts,
  ledger,
  editing,
  editorFor,
  onEdit,
  onRemove,
  onAim,
}: LedgerTableProps & { row: LedgerRow; index: number; first: boolean; withOutcome: boolean }) {
  return (
    <tr className={first && index > 0 ? 'first' : ''} data-property={`${row.part}.${row.property}`}>
      <td className="part">{first ? row.part : ''}</td>
      <td className="property">{row.property}</td>
      {ledger.columns.map((column, at) => {
        const place = { part: row.part, property: row.property, rule: column.rule?.id ?? null };
        const entry = row.entries[at] ?? null;
        const name = `${row.part} ${row.property}, ${column.words}`;
        return (
          <td key={column.rule?.id ?? '/new'} className={column.isScope ? 'scope-column' : ''}>
            {samePlace(editing, place) ? (
              <ValueEditor
                system={system}
                contexts={contexts}
                property={row.property}
                initial={entry?.text ?? ''}
                {...editorFor(place)}
              />
            ) : (
              <button
                type="button"
                className={`entry ${entry?.covered ? 'covered' : ''}`}
                data-row={index}
                data-column={at}
                data-scope={column.isScope || undefined}
                title={entry?.text}
                tabIndex={index === 0 && at === 0 ? 0 : -1}
                aria-label={`${name}: ${entry ? entry.text + (entry.covered ? ', covered by a later rule' : '') : 'nothing'}`}
                onFocus={() => onAim(column)}
                onClick={() => onEdit(place)}
                onKeyDown={event => {
                  if (event.key === 'Delete' || event.key === 'Backspace') {
                    event.preventDefault();
                    if (entry) onRemove(place);
                  }
                }}
              >
                {entry ? (
                  <>
                    <EntryMark
                      system={system}
                      contexts={contexts}
                      property={row.property}
                      text={entry.text}
                    />
                    <span>{shortText(entry.text)}</span>
                  </>
                ) : null}
              </button>
            )}
          </td>
        );
      })}
      {withOutcome ? (
        <td className="outcome">
          <OutcomeText outcomes={row.outcomes} />
        </td>
      ) : null}
    </tr>
  );
});

/** A token is shown by its name alone. */
const shortText = (text: string): string => /^\{([^{}]+)\}$/.exec(text)?.[1] ?? text;

function EntryMark({
  system,
  contexts,
  property,
  text,
}: {
  system: System;
  contexts: ContextInput;
  property: string;
  text: string;
}) {
  const value = useMemo(() => {
    const row = propertyNamed(property);
    if (!row) return '';
    const key = /^\{([^{}]+)\}$/.exec(text)?.[1];
    if (key === undefined) return settledText(row, text, system.rootFontSize);
    const token = system.tokens.in(contexts).byKey.get(key);
    return token ? settledToken(row, token, system.rootFontSize) : '';
  }, [system, contexts, property, text]);
  return <ValueMark value={value} />;
}

function OutcomeText({ outcomes }: { outcomes: readonly Outcome[] }) {
  const [only] = outcomes;
  if (!only) return null;
  if (outcomes.length === 1) {
    return (
      <>
        <ValueMark value={only.value} />
        <code>{only.token ?? only.value}</code>
      </>
    );
  }
  const shown = outcomes.slice(0, 4).map(outcome => outcome.value);
  return (
    <>
      {outcomes.length} values{' '}
      <code className="said">
        {shown.join(' · ')}
        {outcomes.length > 4 ? ' …' : ''}
      </code>
    </>
  );
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
};

/** Arrow keys go from entry to entry. */
function moveFocus(event: KeyboardEvent, table: HTMLTableElement | null): void {
  const step = STEPS[event.key];
  const from = event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('.entry') : null;
  if (!step || !from) return;
  const row = Number(from.dataset['row']) + step[0];
  const column = Number(from.dataset['column']) + step[1];
  const next = table?.querySelector<HTMLElement>(`.entry[data-row="${row}"][data-column="${column}"]`);
  if (!next) return;
  event.preventDefault();
  next.focus();
}
