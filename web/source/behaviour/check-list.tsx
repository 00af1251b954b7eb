import { addCheck, putCheck, removeCheck } from '@periwinkle/core/edits/behaviour-edits';
import { CHECK_KINDS } from '@periwinkle/core/behaviour/check-kinds';
import type { Component } from '@periwinkle/core/components/component';
import type { CheckDocument } from '@periwinkle/core/documents/behaviour-document';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What each kind asks of an entry, in words, and what it has to say beside. */
const KINDS: Readonly<
  Record<string, { readonly words: string; readonly says?: keyof CheckDocument; readonly number?: true }>
> = {
  required: { words: 'something is entered' },
  pattern: { words: 'it has a form', says: 'pattern' },
  least: { words: 'it is at least', says: 'least', number: true },
  most: { words: 'it is at most', says: 'most', number: true },
  length: { words: 'it has a length' },
  kind: { words: 'it can be read' },
  equals: { words: 'it equals another field', says: 'equals' },
  ask: { words: 'the application accepts it', says: 'ask' },
};

/** What is checked, in order: the first that fails speaks. */
export function CheckList({ component }: { component: Component }) {
  const [, open] = useOpened();
  const restructure = useRestructure();
  const checks = component.document.behaviour?.checks ?? [];
  const add = (title: string): string | null => {
    const id = idFor(title, each => checks.some(check => check.id === each));
    const check = { id, kind: 'pattern', pattern: '.', message: `${title}.` };
    const reason = restructure(addCheck(component.id, check), `${component.title}: check ${title}`);
    if (reason === null) open(`check:${id}`);
    return reason;
  };
  return (
    <>
      <ol className="lines checks">
        {checks.map(check => (
          <OpeningLine
            key={check.id}
            of={`check:${check.id}`}
            editor={<CheckEditor component={component} check={check} onGone={() => open(null)} />}
          >
            <OpeningWord of={`check:${check.id}`}>{check.id}</OpeningWord>{' '}
            <span className="said">{check.message ?? 'says what the sample says'}</span>
          </OpeningLine>
        ))}
      </ol>
      <AddByName words="another check" placeholder="Four letters" onAdd={add} />
    </>
  );
}

function CheckEditor({
  component,
  check,
  onGone,
}: {
  component: Component;
  check: CheckDocument;
  onGone: () => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const put = (next: Partial<CheckDocument>): string | null =>
    restructure(putCheck(component.id, { ...check, ...next }), `${component.title}: check ${check.id}`);
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  const kind = KINDS[check.kind];
  const { says } = kind ?? {};
  const { least, most } =
    typeof check.length === 'object' ? check.length : { least: check.length, most: check.length };
  const number = (text: string): number | undefined => (text.trim() === '' ? undefined : Number(text));
  return (
    <div className="opened">
      <div className="commit-field">
        <span>holds if</span>
        <span>
          <Choice
            label="kind of check"
            value={check.kind}
            items={CHECK_KINDS.map(id => ({ id, words: KINDS[id]?.words ?? id, hint: id }))}
            onChoose={id =>
              said(
                restructure(
                  putCheck(component.id, beginning(check, id)),
                  `${component.title}: check ${check.id}`,
                ),
              )
            }
          >
            {kind?.words ?? check.kind}
          </Choice>
        </span>
      </div>
      {says ? (
        <CommitField
          label={says}
          mono
          value={written(check[says])}
          onCommit={text => put({ [says]: kind!.number ? (number(text) ?? 0) : text })}
        />
      ) : null}
      {check.kind === 'length'
        ? (['least', 'most'] as const).map(end => (
            <CommitField
              key={end}
              label={end}
              mono
              value={String((end === 'least' ? least : most) ?? '')}
              onCommit={text => put({ length: clean({ least, most, [end]: number(text) }) })}
            />
          ))
        : null}
      <CommitField label="says" value={check.message ?? ''} onCommit={text => put({ message: text })} />
      <CommitField
        label="because"
        value={check.because ?? ''}
        placeholder="why it is asked"
        onCommit={text => put({ because: text })}
      />
      <div className="acts">
        <button
          type="button"
          className="act"
          onClick={() => {
            const reason = restructure(
              removeCheck(component.id, check.id),
              `${component.title}: check ${check.id} taken out`,
            );
            said(reason);
            if (reason === null) onGone();
          }}
        >
          take it out
        </button>
      </div>
    </div>
  );
}

const written = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : '';

const clean = ({
  least,
  most,
}: {
  least?: number | undefined;
  most?: number | undefined;
}): { least?: number; most?: number } => ({
  ...(least === undefined ? {} : { least }),
  ...(most === undefined ? {} : { most }),
});

/** A check of another kind, with what that has to say at the least. */
function beginning({ id, message, because }: CheckDocument, kind: string): CheckDocument {
  const says: Readonly<Record<string, Partial<CheckDocument>>> = {
    pattern: { pattern: '.' },
    least: { least: 0 },
    most: { most: 100 },
    length: { length: { least: 1 } },
    equals: { equals: 'other' },
    ask: { ask: id },
  };
  return { id, kind, ...says[kind], ...(message ? { message } : {}), ...(because ? { because } : {}) };
}
