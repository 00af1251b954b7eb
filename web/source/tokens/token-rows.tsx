import { defaultRangeExtractor, useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import type { Token } from '@periwinkle/core/tokens/token-set';

/** A line of the table: a token, or the heading of a group. */
export type TableRow = { readonly token: Token } | { readonly group: string };

/** Fewer are drawn all, so that the browser finds them; of more only those in sight. */
const ALL_DRAWN = 80;
const TOKEN_PX = 29;
const GROUP_PX = 45;

/** The lines of the tokens' table. */
export function TokenRows(props: {
  rows: readonly TableRow[];
  /** Number of columns for values. */
  width: number;
  /** Key of the token whose line is kept, wherever one scrolls: the focus may be in it. */
  chosen: string | null;
  children: (token: Token) => ReactNode;
}) {
  return props.rows.length > ALL_DRAWN ? <RowsInSight {...props} /> : <AllRows {...props} />;
}

type Props = Parameters<typeof TokenRows>[0];

function AllRows({ rows, width, chosen, children }: Props) {
  const body = useRef<HTMLTableSectionElement>(null);
  useLayoutEffect(() => {
    if (chosen)
      body.current
        ?.querySelector(`[data-token="${CSS.escape(chosen)}"]`)
        ?.scrollIntoView({ block: 'center' });
    // Only the link that led here scrolls; choosing a row by hand does not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return <tbody ref={body}>{rows.map(row => drawn(row, width, children))}</tbody>;
}

const isOf = (key: string | null) => (row: TableRow) => 'token' in row && row.token.key === key;

function RowsInSight({ rows, width, chosen, children }: Props) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  const kept = rows.findIndex(isOf(chosen));
  const virtualizer = useWindowVirtualizer({
    count: rows.length,
    estimateSize: index => ('token' in rows[index]! ? TOKEN_PX : GROUP_PX),
    overscan: 12,
    scrollMargin: top,
    rangeExtractor: range => {
      const inSight = defaultRangeExtractor(range);
      return kept < 0 || inSight.includes(kept) ? inSight : [...inSight, kept].sort((a, b) => a - b);
    },
  });
  useLayoutEffect(() => {
    setTop(body.current!.getBoundingClientRect().top + window.scrollY);
    if (kept >= 0) virtualizer.scrollToIndex(kept, { align: 'center' });
    // Only the link that led here scrolls; choosing a row by hand does not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const items = virtualizer.getVirtualItems();
  let end = top;
  return (
    <tbody ref={body}>
      {items.flatMap(({ index, start, end: next }) => {
        const gap = start - end;
        end = next;
        return [
          gap > 0 ? <Space key={`before ${index}`} height={gap} width={width} /> : null,
          drawn(rows[index]!, width, children),
        ];
      })}
      <Space key="rest" height={virtualizer.getTotalSize() + top - end} width={width} />
    </tbody>
  );
}

const Space = ({ height, width }: { height: number; width: number }) => (
  <tr aria-hidden="true">
    <td colSpan={width + 2} style={{ height, padding: 0, border: 0 }} />
  </tr>
);

const drawn = (row: TableRow, width: number, children: Props['children']): ReactNode =>
  'token' in row ? (
    children(row.token)
  ) : (
    <tr className="group" key={`group ${row.group}`}>
      <td colSpan={width + 2}>{row.group}</td>
    </tr>
  );
