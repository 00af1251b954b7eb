import { memo, useMemo, useRef, useState } from 'react';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import type { System } from '@periwinkle/core/components/system';
import { colorHex, type TokenColor } from '@periwinkle/core/tokens/color';
import { readReference } from '@periwinkle/core/tokens/references';
import type { Token, TokenSet } from '@periwinkle/core/tokens/token-set';
import { readTokenText, writeTokenText } from '@periwinkle/core/tokens/token-text';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { MovedNote, useDraft, useKeeping } from '../common/use-draft';
import { useStore, useSystemPart } from '../data/system-context';
import { ValueMark } from '../component/value-mark';
import { tokenCells, type ContextColumns } from './context-columns';

/** A token's line: name, type, and its value in each context. Drawn again only when something of it has changed. */
export const TokenRow = memo(function TokenRow({
  system,
  token,
  columns,
  chosen,
  onChoose,
}: {
  system: System;
  token: Token;
  columns: readonly ContextColumns[];
  chosen: boolean;
  onChoose: (key: string) => void;
}) {
  return (
    <tr data-token={token.key} className={chosen ? 'chosen' : ''} onFocus={() => onChoose(token.key)}>
      <td>
        <code title={token.description}>{token.path.split('.').at(-1)}</code>
      </td>
      <td className="said">{token.type}</td>
      {tokenCells(token.key, columns).map(({ key, width, token: own, context }) => (
        <td key={key} colSpan={width}>
          {own ? <TokenValue system={system} token={own} context={context} /> : null}
        </td>
      ))}
    </tr>
  );
});

interface TokenValueProps {
  readonly system: System;
  readonly token: Token;
  readonly context: string;
}

/** A token's value as a word that opens to be written anew. */
export function TokenValue(props: TokenValueProps) {
  const { token, context } = props;
  const [isOpen, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const written = writeTokenText(token.type, token.raw);
  const name = `${token.path}${context ? ` in ${context}` : ''}`;
  if (isOpen) {
    const leave = (): void => {
      setOpen(false);
      requestAnimationFrame(() => button.current?.focus());
    };
    return <TokenEditor {...props} name={name} onLeave={leave} />;
  }
  return (
    <button ref={button} type="button" className="entry" onClick={() => setOpen(true)}>
      <span className="unseen">{name}: </span>
      <TokenMark token={token} />
      <span>{written.replace(/^\{(.*)\}$/, '$1')}</span>
      <span className="resolved">{resolvedText(token, written)}</span>
    </button>
  );
}

/** Writes a token's value, tried out while one writes. */
function TokenEditor({
  system,
  token,
  name,
  onLeave,
}: TokenValueProps & { name: string; onLeave: () => void }) {
  const store = useStore();
  // What is tried out stands in the system as it is shown.
  const stored = useSystemPart('edited').tokens;
  const own =
    stored
      .alongEach()
      .flatMap(set => set.byKey.get(token.key) ?? [])
      .find(isSameOrigin(token)) ?? token;
  const written = writeTokenText(own.type, own.raw);
  const draft = useDraft(written);
  const { text } = draft;
  const [fault, setFault] = useState<string | null>(null);
  const isDone = useRef(false);
  const patchFor = (wanted: string): PatchOperation[] | string => {
    const read = readTokenText(token.type, wanted);
    if (!read.ok) return read.message;
    const alias = readReference(read.value);
    if (alias?.kind === 'alias') {
      const target = system.tokens.usual().byKey.get(alias.key);
      if (!target) return `There is no token {${alias.key}}.`;
      if (target.type !== token.type) return `{${alias.key}} is a ${target.type}; this is a ${token.type}.`;
      if (leadsBack(target.key))
        return `{${alias.key}} refers to ${token.path} itself: that would be a circle.`;
    }
    return [{ op: 'replace', path: `${token.origin.pointer}/$value`, value: read.value }];
  };
  // In some context: another one may refer elsewhere.
  const leadsBack = (target: string): boolean =>
    system.tokens.alongEach().some(set => {
      const reaches = (key: string): boolean =>
        key === token.key || (set.byKey.get(key)?.refersTo ?? []).some(reaches);
      return reaches(target);
    });
  const leave = (): void => {
    isDone.current = true;
    store.endTryOut();
    onLeave();
  };
  /** Gives why it cannot be; `null` where it is done. */
  const put = (wanted: string): string | null => {
    const patch = patchFor(wanted);
    if (typeof patch === 'string') return patch;
    store.edit(token.origin.file, patch, `${name} set to ${wanted.trim()}`);
    return null;
  };
  const set = (wanted: string): boolean => {
    if (wanted.trim() !== written) {
      if (!draft.mayPut()) return false;
      const reason = put(wanted);
      setFault(reason);
      if (reason !== null) return false;
    }
    leave();
    return true;
  };
  const keep = useKeeping(
    name,
    draft,
    () => isDone.current,
    () => {
      const reason = put(text);
      if (reason === null) isDone.current = true;
      return reason;
    },
  );
  const tryOut = (wanted: string): void => {
    const patch = patchFor(wanted);
    if (typeof patch === 'string') store.endTryOut();
    else store.tryOut(token.origin.file, patch);
  };
  const type = (wanted: string): void => {
    draft.write(wanted);
    setFault(null);
    tryOut(wanted);
  };
  const usual = system.tokens.usual();
  const items = useMemo(
    () => (draft.isOpen ? fitting(othersOf(usual, token), text, MOST_LISTED) : []),
    [usual, token, text, draft.isOpen],
  );
  return (
    <div className="editor">
      <Completion
        label={`Value of ${name}`}
        text={text}
        items={items}
        onType={type}
        onTake={item => set(item?.text ?? text)}
        onChoose={item => tryOut(item?.text ?? text)}
        onEscape={leave}
        describe={item => <Offered token={usual.byKey.get(item.shown)} />}
        stays
        input={{
          autoFocus: true,
          'aria-invalid': fault !== null,
          onFocus: event => event.target.select(),
          onBlur: () => {
            keep('field');
            leave();
          },
        }}
      />
      <MovedNote draft={draft} />
      {fault === null ? null : (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
    </div>
  );
}

const isSameOrigin =
  ({ origin }: Token) =>
  (other: Token): boolean =>
    other.origin.file === origin.file && other.origin.pointer === origin.pointer;

/** Tokens that a token may refer to. */
const othersOf = ({ byKey }: TokenSet, { type, key }: Token): CompletionItem[] =>
  [...byKey.values()]
    .filter(other => other.type === type && other.key !== key)
    .map(other => ({ text: `{${other.key}}`, shown: other.key }));

const MOST_LISTED = 50;

/** A token in the list of those that may be referred to. */
const Offered = ({ token }: { token: Token | undefined }) =>
  token ? (
    <>
      <TokenMark token={token} />
      <span className="value">
        {token.type === 'color' ? colorHex(token.value as TokenColor) : token.css}
      </span>
    </>
  ) : null;

/** What the written value comes to, where that says more. */
function resolvedText(token: Token, written: string): string {
  if (token.type === 'color') return colorHex(token.value as TokenColor);
  return written === token.css ? '' : token.css;
}

/** Draws a token as what it is. */
function TokenMark({ token }: { token: Token }) {
  switch (token.type) {
    case 'color':
      return <ValueMark value={colorHex(token.value as TokenColor)} />;
    case 'dimension':
      return <ValueMark value={token.css.endsWith('rem') ? `${parseFloat(token.css) * 16}px` : token.css} />;
    case 'shadow':
      return (
        <span
          className="swatch"
          style={{ boxShadow: token.css, borderColor: 'transparent', margin: '0 14px 0 6px' }}
          aria-hidden="true"
        />
      );
    case 'cubicBezier':
      return <Curve points={token.value as number[]} />;
    case 'fontFamily':
      return (
        <span style={{ fontFamily: token.css, fontSize: 15, marginRight: 8 }} aria-hidden="true">
          Ag
        </span>
      );
    case 'fontWeight':
      return (
        <span
          style={{ fontWeight: Number(token.value), fontFamily: 'inherit', marginRight: 8 }}
          aria-hidden="true"
        >
          Ag
        </span>
      );
    default:
      return null;
  }
}

function Curve({ points }: { points: readonly number[] }) {
  const [x1, y1, x2, y2] = points.map(point => point * 14) as [number, number, number, number];
  return (
    <svg width="16" height="16" viewBox="-1 -1 16 16" style={{ marginRight: 8 }} aria-hidden="true">
      <path
        d={`M0 14C${x1} ${14 - y1} ${x2} ${14 - y2} 14 0`}
        fill="none"
        stroke="#5957aa"
        strokeWidth="1.5"
      />
    </svg>
  );
}
