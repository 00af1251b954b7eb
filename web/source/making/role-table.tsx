import { useState } from 'react';
import type { System } from '@periwinkle/core/components/system';
import type { FoundRole } from '@periwinkle/core/edits/starting/roles';
import type { RoleTokens } from '@periwinkle/core/edits/starting/start-component';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { ValueMark } from '../component/value-mark';

const MOST_LISTED = 40;

/** Which token serves each role that a new field stands on: found by use or by name, to be made, or chosen here. */
export function RoleTable({
  system,
  found,
  needed,
  tokens,
  onChoose,
}: {
  system: System;
  found: readonly FoundRole[];
  needed: readonly string[];
  tokens: RoleTokens;
  onChoose: (role: string, token: string | null) => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const [text, setText] = useState('');
  const all = system.tokens.usual().byKey;
  const itemsFor = (type: string): readonly CompletionItem[] =>
    fitting(
      [...all.values()].filter(token => token.type === type).map(({ key }) => ({ text: key, shown: key })),
      text,
      MOST_LISTED,
    );
  return (
    <table className="roles">
      <thead>
        <tr>
          <th scope="col">what it does</th>
          <th scope="col">token</th>
          <th scope="col">
            <span className="unseen">how it was found</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {found
          .filter(({ role }) => needed.includes(role.id))
          .map(({ role, token: first, by }) => {
            const token = tokens.get(role.id) ?? null;
            const how = token === null ? 'will be made' : token !== first ? 'chosen' : `by ${by}`;
            return (
              <tr key={role.id}>
                <td>{role.title}</td>
                <td>
                  {open === role.id ? (
                    <Completion
                      label={role.title}
                      text={text}
                      items={itemsFor(role.type)}
                      stays
                      onType={setText}
                      onTake={item => {
                        if (item) onChoose(role.id, item.text);
                        setOpen(null);
                      }}
                      onEscape={() => setOpen(null)}
                      describe={item => <span className="value">{all.get(item.text)?.css}</span>}
                      input={{
                        className: 'form-control form-control-sm mono',
                        autoFocus: true,
                        onBlur: () => setOpen(null),
                      }}
                    />
                  ) : (
                    <button
                      type="button"
                      className="word"
                      aria-label={`${role.title}: ${token ?? 'a new token'}`}
                      onClick={() => {
                        setText('');
                        setOpen(role.id);
                      }}
                    >
                      {token === null ? null : <RoleMark type={role.type} css={all.get(token)?.css ?? ''} />}
                      {token ?? `field.${role.id}`}
                    </button>
                  )}
                </td>
                <td className={token === null ? 'to-make' : 'said'}>
                  {how}
                  {token !== null && token !== first ? (
                    <>
                      {' · '}
                      <button type="button" className="act" onClick={() => onChoose(role.id, first)}>
                        as found
                      </button>
                    </>
                  ) : null}
                </td>
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}

function RoleMark({ type, css }: { type: string; css: string }) {
  return type === 'color' ? (
    <span className="swatch" style={{ background: css }} aria-hidden="true" />
  ) : (
    <ValueMark value={css} />
  );
}
