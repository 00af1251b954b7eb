import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { axisOfValues } from '@periwinkle/core/components/content/sample-text';
import { writeContent } from '@periwinkle/core/edits/sample-edits';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import { isObject } from '@periwinkle/core/json/json';
import { Choice } from '../common/choice';
import { counted } from '../common/numbers';
import { CommitField } from '../making/commit-field';
import { useRestructure } from '../making/use-restructure';
import { EntriesDialog } from './entries-dialog';

const SAME = '';

/** What a sample gives for a key: one text, one for each value of an axis, or a list; written where it stands. */
export function SampleCell({
  component,
  sample,
  contentKey: key,
}: {
  component: Component;
  sample: SampleDocument;
  contentKey: string;
}) {
  const restructure = useRestructure();
  const [isListOpen, setListOpen] = useState(false);
  const given = sample.content[key] as unknown;
  const put = (value: unknown): string | null =>
    restructure(
      writeContent(component.id, sample.id, key, value),
      `${component.title}: ${key} of ${sample.title ?? sample.id}`,
    );
  const name = `${key} of ${sample.title ?? sample.id}`;
  const declared = component.document.content?.find(({ id }) => id === key);
  if (Array.isArray(given) || declared?.kind === 'list') {
    const entries = Array.isArray(given) ? (given as unknown[]) : [];
    return (
      <>
        <button
          type="button"
          className="word"
          aria-label={`${counted(entries.length, 'entry', 'entries')}, ${name}`}
          onClick={() => setListOpen(true)}
        >
          {counted(entries.length, 'entry', 'entries')}
        </button>
        {isListOpen ? (
          <EntriesDialog
            title={name}
            component={component}
            contentKey={key}
            entries={entries}
            onCommit={put}
            onClose={() => setListOpen(false)}
          />
        ) : null}
      </>
    );
  }
  const { axes } = component.space;
  const axis = isObject(given) ? axisOfValues(Object.keys(given), axes) : undefined;
  const differ = (id: string): void => {
    if (id === SAME) {
      const [first] = isObject(given) ? Object.values(given) : [given];
      put(typeof first === 'string' ? first : undefined);
      return;
    }
    const next = axes.find(each => each.id === id)!;
    put(Object.fromEntries(next.values.map(value => [value.id, typeof given === 'string' ? given : ''])));
  };
  return (
    <div className="sample-cell">
      {isObject(given) && axis ? (
        axis.values.map(value => {
          const text = (given as Record<string, string>)[value.id];
          return (
            <CommitField
              key={value.id}
              label={value.words}
              value={text ?? ''}
              placeholder="nothing"
              onCommit={next => {
                const { [value.id]: _, ...others } = given as Record<string, string>;
                return put(next === '' ? others : { ...given, [value.id]: next });
              }}
            />
          );
        })
      ) : (
        <CommitField
          quiet
          label={name}
          value={typeof given === 'string' ? given : ''}
          placeholder="nothing"
          onCommit={text => put(text === '' ? undefined : text)}
        />
      )}
      <Choice
        label={`${name} differs by`}
        value={axis?.id ?? SAME}
        items={[
          { id: SAME, words: 'the same everywhere' },
          ...axes.map(({ id, title }) => ({ id, words: `differs by ${title.toLowerCase()}` })),
        ]}
        onChoose={differ}
        className="off"
      >
        {axis ? `by ${axis.title.toLowerCase()}` : '…'}
      </Choice>
    </div>
  );
}
