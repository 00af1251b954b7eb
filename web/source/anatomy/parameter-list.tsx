import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { PARAMETER_TYPES } from '@periwinkle/core/components/parameters';
import { addEntry } from '@periwinkle/core/edits/entry-edits';
import type { ParameterDocument } from '@periwinkle/core/documents/component-document';
import { Choice } from '../common/choice';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { useOpened } from '../data/opened-address';
import { useSystemPart } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { EntryActs } from '../making/entry-acts';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { useEntryEdits } from '../making/use-entry-edits';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What a parameter is to begin with, where the system has no token of its type. */
const PLAIN: Readonly<Record<string, string>> = {
  color: '#000000',
  dimension: '0px',
  number: '0',
  duration: '0s',
  fontFamily: 'sans-serif',
  fontWeight: '400',
  cubicBezier: 'ease',
  strokeStyle: 'solid',
};
const MOST_LISTED = 40;

/** What whoever uses a component can set without another copy of it. */
export function ParameterList({ component }: { component: Component }) {
  const system = useSystemPart('edited');
  const [, open] = useOpened();
  const restructure = useRestructure();
  const parameters = component.document.parameters ?? [];
  const add = (title: string): string | null => {
    const id = idFor(title, each => parameters.some(parameter => parameter.id === each));
    const parameter = {
      id,
      title,
      type: 'color',
      default: firstOf(system.tokens.usual().byKey.values(), 'color'),
    };
    const reason = restructure(
      addEntry(component.id, 'parameters', parameter),
      `${component.title}: parameter ${title}`,
    );
    if (reason === null) open(`parameter:${id}`);
    return reason;
  };
  return (
    <section className="details">
      <h2>
        Parameters <small>what whoever uses it can set</small>
      </h2>
      <ul className="lines">
        {parameters.map((parameter, index) => (
          <OpeningLine
            key={parameter.id}
            of={`parameter:${parameter.id}`}
            editor={<ParameterEditor component={component} parameter={parameter} index={index} />}
          >
            <div className="situation-line">
              <OpeningWord of={`parameter:${parameter.id}`}>{parameter.title ?? parameter.id}</OpeningWord>
              <span>
                <code>@{parameter.id}</code> <span className="said">{parameter.type}, else</span>{' '}
                <code>{parameter.default}</code>
              </span>
              <span />
            </div>
          </OpeningLine>
        ))}
      </ul>
      <AddByName words="another parameter" placeholder="Accent" onAdd={add} />
    </section>
  );
}

/** A token of a type, as a reference; the plainest value where there is none. */
function firstOf(tokens: Iterable<{ readonly key: string; readonly type: string }>, type: string): string {
  const token = [...tokens].find(each => each.type === type);
  return token ? `{${token.key}}` : (PLAIN[type] ?? '');
}

function ParameterEditor({
  component,
  parameter,
  index,
}: {
  component: Component;
  parameter: ParameterDocument;
  index: number;
}) {
  const system = useSystemPart('edited');
  const { id, type } = parameter;
  const tokens = [...system.tokens.usual().byKey.values()];
  const edits = useEntryEdits(component, 'parameters', index, { id, name: `@${id}`, opens: 'parameter' });
  const change = (parts: Partial<ParameterDocument>): string | null =>
    edits.change({ ...parameter, ...parts });
  return (
    <div className="opened">
      <CommitField label="title" value={parameter.title ?? ''} onCommit={title => change({ title })} />
      <CommitField label="id" mono value={id} onCommit={edits.rename} />
      <CommitField
        label="for"
        value={parameter.description ?? ''}
        placeholder="what setting it does"
        onCommit={description => change({ description })}
      />
      <div className="commit-field">
        <span>is a</span>
        <span>
          <Choice
            label="type of the parameter"
            value={type}
            items={PARAMETER_TYPES.map(each => ({ id: each, words: each }))}
            onChoose={next => edits.say(change({ type: next, default: firstOf(tokens, next) }))}
          >
            {type}
          </Choice>
        </span>
      </div>
      <DefaultLine
        value={parameter.default}
        items={tokens
          .filter(token => token.type === type)
          .map(({ key }) => ({ text: `{${key}}`, shown: key }))}
        onCommit={text => change({ default: text })}
      />
      <EntryActs
        component={component}
        list="parameters"
        index={index}
        name={`@${id}`}
        onMove={edits.move}
        onGone={edits.close}
      />
    </div>
  );
}

/** What holds where nobody sets it: a token of the type, or a value. */
function DefaultLine({
  value,
  items,
  onCommit,
}: {
  value: string;
  items: readonly CompletionItem[];
  onCommit: (text: string) => string | null;
}) {
  const [text, setText] = useState(value);
  const [fault, setFault] = useState<string | null>(null);
  const commit = (next: string): void => {
    const reason = next === value ? null : onCommit(next);
    setFault(reason);
    setText(reason === null ? next : text);
  };
  return (
    <div className="commit-field">
      <span aria-hidden="true">else</span>
      <div>
        <Completion
          label="default"
          text={text}
          items={fitting(items, text === value ? '' : text, MOST_LISTED)}
          onType={next => {
            setFault(null);
            setText(next);
          }}
          onTake={item => commit(item?.text ?? text)}
          input={{ className: 'form-control form-control-sm mono', onBlur: () => commit(text) }}
        />
        {fault ? (
          <p className="fault" role="alert">
            {fault}
          </p>
        ) : null}
      </div>
    </div>
  );
}
