import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Token } from '@periwinkle/core/tokens/token-set';
import { NameFilter } from '../common/name-filter';
import { counted } from '../common/numbers';
import { useContexts } from '../data/address';
import { useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { ReachStrip } from './reach-strip';
import { contextColumns } from './context-columns';
import { TokenRow } from './token-row';
import { TokenRows, type TableRow } from './token-rows';

/** How many specimens show what a token reaches. */
const MOST_SPECIMENS = 6;
/** What is reached is counted when the hand rests. */
const REST_MS = 150;

/** All tokens: by group, one column per context. Editing one shows what it reaches. */
export function TokensScreen() {
  // Rows show what is written; what is being tried out shows on the specimens.
  const shown = useSystemPart('system');
  const system = useSystemPart('edited');
  const contexts = useContexts(system.tokens);
  const [parameters, setParameters] = useSearchParams();
  const [text, setText] = useState('');
  const chosen = parameters.get('token');
  const columns = useMemo(() => contextColumns(system.tokens, contexts), [system, contexts]);
  const width = columns.reduce((sum, { columns: own }) => sum + own.length, 0);
  const usual = system.tokens.usual();
  const wanted = text.trim().toLowerCase();
  const rows = useMemo(
    () => rowsOf([...usual.byKey.values()].filter(token => token.path.toLowerCase().includes(wanted))),
    [usual, wanted],
  );
  const choose = useCallback(
    (key: string): void =>
      setParameters(
        before => {
          const next = new URLSearchParams(before);
          next.set('token', key);
          return next;
        },
        { replace: true },
      ),
    [setParameters],
  );
  const { value: reach } = useAnswer(
    'reach',
    chosen !== null && usual.byKey.has(chosen) ? { token: chosen, most: MOST_SPECIMENS } : null,
    system.documents,
    REST_MS,
  );
  return (
    <>
      <div className="head">
        <h1>Tokens</h1>
        <span className="said crumb">
          {counted(usual.byKey.size, 'token')}
          {width > 1 ? ` in ${counted(system.tokens.contextCount(), 'context')}` : ''}
        </span>
      </div>
      <NameFilter text={text} onType={setText} />
      <table className="tokens-table" aria-label="Tokens" aria-rowcount={rows.length + 1}>
        <colgroup>
          <col style={{ width: '15ch' }} />
          <col style={{ width: '13ch' }} />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">name</th>
            <th scope="col">type</th>
            {columns.map(({ modifier, columns: own }) =>
              own.map(({ title }, index) => (
                <th key={`${modifier} ${title}`} scope="col">
                  {index === 0 && columns.length > 1 ? <span className="modifier">{modifier} </span> : null}
                  {title}
                </th>
              )),
            )}
          </tr>
        </thead>
        <TokenRows rows={rows} width={width} chosen={chosen}>
          {token => (
            <TokenRow
              key={token.key}
              system={system}
              token={token}
              columns={columns}
              chosen={token.key === chosen}
              onChoose={choose}
            />
          )}
        </TokenRows>
      </table>
      {rows.length === 0 ? (
        <p className="blank">{wanted ? 'No token is called that.' : 'No tokens yet.'}</p>
      ) : null}
      {reach && chosen ? (
        <ReachStrip system={shown} contexts={contexts} token={chosen} reach={reach} />
      ) : null}
    </>
  );
}

/** Tokens by the group they stand in, in document order, a heading before each group. */
function rowsOf(tokens: readonly Token[]): TableRow[] {
  const groups = new Map<string, Token[]>();
  for (const token of tokens) {
    const group = token.key.split('.').slice(0, -1).join('.') || 'ungrouped';
    const members = groups.get(group);
    if (members) members.push(token);
    else groups.set(group, [token]);
  }
  return [...groups].flatMap(([group, members]): TableRow[] => [
    { group },
    ...members.map(token => ({ token })),
  ]);
}
