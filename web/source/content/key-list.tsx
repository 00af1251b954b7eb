import type { Component } from '@periwinkle/core/components/component';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import { CONVERSIONS } from '@periwinkle/core/components/content/conversions';
import { addEntry } from '@periwinkle/core/edits/entry-edits';
import { CONTENT_KINDS, type ContentDocument } from '@periwinkle/core/documents/component-document';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { EntryActs } from '../making/entry-acts';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { useEntryEdits } from '../making/use-entry-edits';
import { useRestructure } from '../making/use-restructure';

const AS_GIVEN = '';

/** The keys of what a field shows: which kind of content each is, whether it must be there, and where it comes from. */
export function KeyList({ component }: { component: Component }) {
  const [, open] = useOpened();
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
        {declared.map((entry, index) => (
          <OpeningLine
            key={entry.id}
            of={`key:${entry.id}`}
            editor={<KeyEditor component={component} entry={entry} index={index} />}
          >
            <div className="situation-line">
              <OpeningWord of={`key:${entry.id}`}>{entry.title ?? entry.id}</OpeningWord>
              <span>
                <code>{entry.id}</code> <span className="said">{sentenceOf(entry)}</span>
              </span>
              <span />
            </div>
          </OpeningLine>
        ))}
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
}: {
  component: Component;
  entry: ContentDocument;
  index: number;
}) {
  const { id } = entry;
  const edits = useEntryEdits(component, 'content', index, { id, name: id, opens: 'key' });
  const change = (parts: { readonly [Member in keyof ContentDocument]?: ContentDocument[Member] | null }):
    string | null => {
    const next: Record<string, unknown> = { ...entry, ...parts };
    for (const [key, value] of Object.entries(next)) if (value === null || value === '') delete next[key];
    return edits.change(next as unknown as ContentDocument);
  };
  return (
    <div className="opened">
      <CommitField label="title" value={entry.title ?? ''} onCommit={title => change({ title })} />
      <CommitField label="id" mono value={id} onCommit={edits.rename} />
      <div className="commit-field">
        <span>is</span>
        <span>
          <Choice
            label="required"
            value={entry.required ? 'required' : 'optional'}
            items={['required', 'optional'].map(id => ({ id, words: id }))}
            onChoose={id => edits.say(change({ required: id === 'required' ? true : null }))}
          >
            {entry.required ? 'required' : 'optional'}
          </Choice>{' '}
          <Choice
            label="kind of content"
            value={entry.kind ?? 'text'}
            items={CONTENT_KINDS.map(id => ({ id, words: id }))}
            onChoose={kind => edits.say(change({ kind: kind as NonNullable<ContentDocument['kind']> }))}
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
            onChoose={as => edits.say(change({ as: as || null }))}
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
      <EntryActs component={component} list="content" index={index} name={id} onGone={edits.close} />
    </div>
  );
}
