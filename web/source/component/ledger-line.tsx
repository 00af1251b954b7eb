import { memo, useMemo, type ReactNode } from 'react';
import type { LedgerColumn, LedgerEntry, LedgerRow } from '@periwinkle/core/cascade/ledger';
import { propertyNamed } from '@periwinkle/core/css/property-registry';
import type { Outcome } from '@periwinkle/core/cascade/outcome';
import { printValue } from '@periwinkle/core/css/print-value';
import { typedText, typedToken } from '@periwinkle/core/css/typed-value';
import type { TokenSet } from '@periwinkle/core/tokens/token-set';
import { ValueMark } from './value-mark';

/** What can be done with an entry, by row and column. */
interface LineActs {
  readonly edit: (row: number, column: number) => void;
  readonly remove: (row: number, column: number) => void;
  readonly aim: (row: number, column: number) => void;
}

export interface LedgerLineProps {
  readonly row: LedgerRow;
  readonly columns: readonly LedgerColumn[];
  readonly index: number;
  /** Whether it is the first of its part. */
  readonly first: boolean;
  /** Otherwise only its name, with room for the rest. */
  readonly whole: boolean;
  /** The column that Tab comes to, if it is one of this line. */
  readonly stopAt: number | null;
  readonly withOutcome: boolean;
  readonly tokens: TokenSet;
  readonly rootFontSize: number;
  /** The editor, when an entry of this line is being edited, and its column. */
  readonly editor: ReactNode;
  readonly editedAt: number;
  /** The same object at each drawing. */
  readonly acts: LineActs;
}

/** A property of a part: what each rule says of it, and what comes out. Drawn anew only when something in it is different. */
export const LedgerLine = memo(function LedgerLine(props: LedgerLineProps) {
  const { row, columns, index, first, whole, withOutcome, tokens, rootFontSize, editor, editedAt, acts } =
    props;
  return (
    <tr className={first && index > 0 ? 'first' : ''} data-property={`${row.part}.${row.property}`}>
      <td className="part" title={first ? row.part : undefined}>
        {first ? row.part : ''}
      </td>
      <td className="property">{row.property}</td>
      {!whole && !editor ? <td colSpan={columns.length + Number(withOutcome)} /> : null}
      {(whole || editor ? columns : []).map((column, at) => (
        <td key={column.rule?.id ?? '/new'} className={column.isScope ? 'scope-column' : ''}>
          {editor && at === editedAt ? (
            editor
          ) : (
            <Entry
              row={row}
              index={index}
              column={column}
              at={at}
              isStop={at === props.stopAt}
              entry={row.entries[at] ?? null}
              tokens={tokens}
              rootFontSize={rootFontSize}
              acts={acts}
            />
          )}
        </td>
      ))}
      {withOutcome && (whole || editor) ? (
        <td className="outcome">
          <OutcomeText outcomes={row.outcomes} />
        </td>
      ) : null}
    </tr>
  );
}, sameLine);

function sameLine(before: LedgerLineProps, after: LedgerLineProps): boolean {
  return (
    before.editor === null &&
    after.editor === null &&
    before.index === after.index &&
    before.first === after.first &&
    before.whole === after.whole &&
    before.stopAt === after.stopAt &&
    before.withOutcome === after.withOutcome &&
    before.tokens === after.tokens &&
    before.rootFontSize === after.rootFontSize &&
    sameColumns(before.columns, after.columns) &&
    sameRow(before.row, after.row)
  );
}

const alike = <Item,>(a: readonly Item[], b: readonly Item[], same: (a: Item, b: Item) => boolean): boolean =>
  a === b || (a.length === b.length && a.every((item, index) => same(item, b[index]!)));

const sameColumns = (a: readonly LedgerColumn[], b: readonly LedgerColumn[]): boolean =>
  alike(
    a,
    b,
    (one, other) =>
      one.rule?.id === other.rule?.id &&
      one.words === other.words &&
      one.isScope === other.isScope &&
      one.source.kind === other.source.kind,
  );

const sameRow = (a: LedgerRow, b: LedgerRow): boolean =>
  a === b ||
  (a.part === b.part &&
    a.property === b.property &&
    alike(
      a.entries,
      b.entries,
      (one, other) =>
        one?.text === other?.text && one?.covered === other?.covered && one?.departs === other?.departs,
    ) &&
    alike(a.outcomes, b.outcomes, (one, other) => one.value === other.value && one.token === other.token));

interface EntryProps extends Pick<LedgerLineProps, 'row' | 'index' | 'tokens' | 'rootFontSize' | 'acts'> {
  readonly column: LedgerColumn;
  readonly at: number;
  readonly isStop: boolean;
  readonly entry: LedgerEntry | null;
}

function Entry({ row, index, column, at, isStop, entry, tokens, rootFontSize, acts }: EntryProps) {
  // A nested component's rules are written there: their conditions are about axes that this one does not have.
  const isElsewhere = column.source.kind === 'nested';
  const said = entry ? entry.text + (entry.covered ? ', covered by a later rule' : '') : 'nothing';
  return (
    <button
      type="button"
      className={`entry ${entry?.covered ? 'covered' : ''} ${entry?.departs ? 'departs' : ''}`}
      data-row={index}
      data-column={at}
      data-scope={column.isScope || undefined}
      title={entry?.departs ? `${entry.text}, here instead of what ${column.source.from} says` : entry?.text}
      tabIndex={isStop ? 0 : -1}
      aria-label={`${row.part} ${row.property}, ${column.words}: ${said}`}
      aria-disabled={isElsewhere || undefined}
      onFocus={() => acts.aim(index, at)}
      onClick={() => isElsewhere || acts.edit(index, at)}
      onKeyDown={event => {
        if (event.key === 'Delete' || event.key === 'Backspace') {
          event.preventDefault();
          if (entry && !isElsewhere) acts.remove(index, at);
        }
      }}
    >
      {entry ? (
        <>
          <EntryMark tokens={tokens} rootFontSize={rootFontSize} property={row.property} text={entry.text} />
          <span>{tokenKey(entry.text) ?? entry.text}</span>
        </>
      ) : null}
    </button>
  );
}

/** The token a text consists of; it is shown by its name alone. */
const tokenKey = (text: string): string | undefined => /^\{([^{}]+)\}$/.exec(text)?.[1];

function EntryMark({
  tokens,
  rootFontSize,
  property,
  text,
}: {
  tokens: TokenSet;
  rootFontSize: number;
  property: string;
  text: string;
}) {
  const value = useMemo(() => {
    const row = propertyNamed(property);
    if (!row) return '';
    const key = tokenKey(text);
    if (key === undefined) return printValue(typedText(row, text, rootFontSize));
    const token = tokens.byKey.get(key);
    return token ? printValue(typedToken(row, token, rootFontSize)) : '';
  }, [tokens, rootFontSize, property, text]);
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
