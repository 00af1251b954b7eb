import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { tokenReach } from '@periwinkle/core/questions/token-reach';
import type { Token } from '@periwinkle/core/tokens/token-set';
import { NameFilter } from '../common/name-filter';
import { counted } from '../common/numbers';
import { useContexts } from '../data/address';
import { useSystemState } from '../data/system-context';
import { ReachStrip } from './reach-strip';
import { contextColumns } from './context-columns';
import { TokenRow } from './token-row';

/** All tokens: by group, one column per context. Editing one shows what it reaches. */
export function TokensScreen() {
  // Rows show what is written; what is being tried out shows on the specimens.
  const { system: shown, edited: system } = useSystemState();
  const contexts = useContexts(system.tokens);
  const [parameters, setParameters] = useSearchParams();
  const [text, setText] = useState('');
  const chosen = parameters.get('token');
  const columns = useMemo(() => contextColumns(system.tokens, contexts), [system, contexts]);
  const width = columns.reduce((sum, { columns: own }) => sum + own.length, 0);
  const usual = system.tokens.usual();
  const wanted = text.trim().toLowerCase();
  const groups = useMemo(
    () => grouped([...usual.byKey.values()].filter(token => token.path.toLowerCase().includes(wanted))),
    [usual, wanted],
  );
  const choose = (key: string): void =>
    setParameters(
      before => {
        const next = new URLSearchParams(before);
        next.set('token', key);
        return next;
      },
      { replace: true },
    );
  useEffect(() => {
    if (chosen)
      document.querySelector(`[data-token="${CSS.escape(chosen)}"]`)?.scrollIntoView({ block: 'center' });
    // Only the link that led here scrolls; choosing a row by hand does not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const reach = useMemo(
    () => (chosen && usual.byKey.has(chosen) ? tokenReach(system, chosen) : null),
    [system, usual, chosen],
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
      <table className="tokens-table" aria-label="Tokens">
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
        <tbody>
          {groups.map(({ group, tokens }) => (
            <GroupRows key={group} group={group} columns={width}>
              {tokens.map(token => (
                <TokenRow
                  key={token.key}
                  system={system}
                  token={token}
                  columns={columns}
                  chosen={token.key === chosen}
                  onChoose={() => choose(token.key)}
                />
              ))}
            </GroupRows>
          ))}
        </tbody>
      </table>
      {groups.length === 0 ? (
        <p className="blank">{wanted ? 'No token is called that.' : 'No tokens yet.'}</p>
      ) : null}
      {reach && chosen ? (
        <ReachStrip system={shown} contexts={contexts} token={chosen} reach={reach} />
      ) : null}
    </>
  );
}

function GroupRows({ group, columns, children }: { group: string; columns: number; children: ReactNode }) {
  return (
    <>
      <tr className="group">
        <td colSpan={columns + 2}>{group}</td>
      </tr>
      {children}
    </>
  );
}

interface TokenGroup {
  readonly group: string;
  readonly tokens: Token[];
}

/** Tokens by the group they stand in, in document order. */
function grouped(tokens: readonly Token[]): TokenGroup[] {
  const groups = new Map<string, Token[]>();
  for (const token of tokens) {
    const group = token.key.split('.').slice(0, -1).join('.') || 'ungrouped';
    groups.set(group, [...(groups.get(group) ?? []), token]);
  }
  return [...groups].map(([group, members]) => ({ group, tokens: members }));
}
