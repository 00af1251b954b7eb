import type { Component } from '@periwinkle/core/components/component';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import { CONVERSIONS } from '@periwinkle/core/components/content/conversions';
import { addEntry, changeEntry, removeEntry, renameEntry } from '@periwinkle/core/edits/entry-edits';
import { CONTENT_KINDS, type ContentDocument } from '@periwinkle/core/documents/component-document';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { useRestructure } from '../making/use-restructure';

const AS_GIVEN = '';

/** The keys of what a field shows: which kind of content each is, whether it must be there, and where it comes from. */
export function KeyList({ component }: { component: Component }) {
  const [opened, open] = useOpened();
  const restructure = useRestructure();
  const store = useStore();
  const declared = component.document.content ?? [];
  const shown = contentKeys(component).filter(key => !declared.some(({ id }) => id === key));
  const declare = (entry: ContentDocument): string | null => {
    const reason = restructure(
      addEntry(component.id, 'content', entry),
      `${component.title}: ${entry.id} declared`,
    );
    if (reason === null) open(`key:${entry.id}`);
    return reason;
  };
  return (
    <section>
      <h2>
        Keys <small>what whoever uses it gives</small>
      </h2>
      <ul className="lines">
        {declared.map((entry, index) => {
          const key = `key:${entry.id}`;
          return (
            <li key={entry.id} className={opened === key ? 'open' : ''}>
              <div className="situation-line">
                <button
                  type="button"
                  className="act name"
                  aria-expanded={opened === key}
                  onClick={() => open(opened === key ? null : key)}
                >
                  {entry.title ?? entry.id}
                </button>
                <span>
                  <code>{entry.id}</code> <span className="said">{sentenceOf(entry)}</span>
                </span>
                <span />
              </div>
              {opened === key ? (
                <KeyEditor component={component} entry={entry} index={index} onOpen={open} />
              ) : null}
            </li>
          );
        })}
        {shown.map(key => (
          <li key={key}>
            <div className="situation-line">
              <span className="said">{key}</span>
              <span className="said">optional text, as parts name it</span>
              <button
                type="button"
                className="act"
                aria-label={`say more of ${key}`}
                onClick={() => {
                  const reason = declare({ id: key, kind: 'text' });
                  if (reason !== null) store.say('error', reason);
                }}
              >
                say more
              </button>
            </div>
          </li>
        ))}
      </ul>
      <AddByName words="another key" mono placeholder="hint" onAdd={id => declare({ id, kind: 'text' })} />
    </section>
  );
}

function sentenceOf({ kind = 'text', required, from, text, as, else: otherwise }: ContentDocument): string {
  const source = from
    ? `the first that is there of ${from.join(', ')}${as ? ` as ${as}` : ''}${otherwise === undefined ? '' : `, else ${otherwise}`}`
    : (text ?? '');
  return [`${required ? 'required' : 'optional'} ${kind}`, source].filter(Boolean).join(', ');
}

function KeyEditor({
  component,
  entry,
  index,
  onOpen,
}: {
  component: Component;
  entry: ContentDocument;
  index: number;
  onOpen: (what: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const change = (parts: { readonly [Member in keyof ContentDocument]?: ContentDocument[Member] | null }):
    string | null => {
    const next: Record<string, unknown> = { ...entry, ...parts };
    for (const [key, value] of Object.entries(next)) if (value === null || value === '') delete next[key];
    return restructure(
      changeEntry(component.id, 'content', index, next as unknown as ContentDocument),
      `${component.title}: ${entry.id} said otherwise`,
    );
  };
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  return (
    <div className="opened">
      <CommitField label="title" value={entry.title ?? ''} onCommit={title => change({ title })} />
      <CommitField
        label="id"
        mono
        value={entry.id}
        onCommit={id => {
          const reason = restructure(
            renameEntry(component.id, 'content', entry.id, id),
            `${component.title}: ${entry.id} is now ${id}`,
          );
          if (reason === null) onOpen(`key:${id}`);
          return reason;
        }}
      />
      <div className="commit-field">
        <span>is</span>
        <span>
          <Choice
            label="required"
            value={entry.required ? 'required' : 'optional'}
            items={['required', 'optional'].map(id => ({ id, words: id }))}
            onChoose={id => said(change({ required: id === 'required' ? true : null }))}
          >
            {entry.required ? 'required' : 'optional'}
          </Choice>{' '}
          <Choice
            label="kind of content"
            value={entry.kind ?? 'text'}
            items={CONTENT_KINDS.map(id => ({ id, words: id }))}
            onChoose={kind => said(change({ kind: kind as NonNullable<ContentDocument['kind']> }))}
          >
            {entry.kind ?? 'text'}
          </Choice>
        </span>
      </div>
      <CommitField
        label="sources"
        mono
        value={(entry.from ?? []).join(', ')}
        placeholder="due.currency, port.currency: the first that is there"
        onCommit={text => {
          const from = text
            .split(',')
            .map(each => each.trim())
            .filter(Boolean);
          return change({ from: from.length > 0 ? from : null });
        }}
      />
      <div className="commit-field">
        <span>as</span>
        <span>
          <Choice
            label="conversion"
            value={entry.as ?? AS_GIVEN}
            items={[
              { id: AS_GIVEN, words: 'it is given' },
              ...Object.keys(CONVERSIONS).map(id => ({ id, words: id })),
            ]}
            onChoose={as => said(change({ as: as || null }))}
          >
            {entry.as ?? 'it is given'}
          </Choice>
        </span>
      </div>
      <CommitField
        label="else"
        value={entry.else ?? ''}
        placeholder="the last resort"
        onCommit={text => change({ else: text })}
      />
      <CommitField
        label="template"
        mono
        value={entry.text ?? ''}
        placeholder="{value.length} of {value.most}"
        onCommit={text => change({ text })}
      />
      <div className="acts">
        <ConsideredAct
          words="take it out"
          title={entry.id}
          edit={removeEntry(component.id, 'content', index)}
          label={`${component.title}: ${entry.id} no longer declared`}
          about={component.id}
          onDone={() => onOpen(null)}
        />
      </div>
    </div>
  );
}
