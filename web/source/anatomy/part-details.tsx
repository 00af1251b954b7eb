import { partDocument } from './part-document';
import { Link } from 'react-router';
import { CONTROL_ELEMENTS, PART_KINDS } from '@periwinkle/core/documents/part-kinds';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import { changePart, renamePart, returnPart, type PartChange } from '@periwinkle/core/edits/part-edits';

import { conditionWords } from '@periwinkle/core/space/condition';
import { useState } from 'react';
import { Choice } from '../common/choice';
import { regionAddress } from '../component/region-address';
import { useStore, useSystemPart } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { TouchedList } from '../making/touched-list';
import { useAttempt, useRestructure } from '../making/use-restructure';
import { Bindings } from './bindings';
import type { PartLine } from './part-lines';

const TYPES = [
  'text',
  'search',
  'email',
  'tel',
  'url',
  'password',
  'number',
  'date',
  'time',
  'month',
  'week',
  'checkbox',
  'radio',
  'range',
  'file',
  'color',
];
const NOTHING = '';

/** What a part is, shows and is for; of one that uses a component, what that follows. */
export function PartDetails({
  component,
  line,
  onSelect,
}: {
  component: Component;
  line: PartLine;
  onSelect: (name: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const system = useSystemPart('edited');
  const { name, part, uses, source } = line;
  const [typed, setTyped] = useState(name);
  const renaming =
    typed === name || typed.trim() === '' ? null : renamePart(component.id, name, typed.trim());
  const written = partDocument(component, name);
  const change = (to: PartChange, words: string): string | null =>
    restructure(changePart(component.id, name, to), `${component.title}: ${name} ${words}`);
  const said = (to: PartChange, words: string): void => {
    const reason = change(to, words);
    if (reason !== null) store.say('error', reason);
  };
  const keys = contentKeys(component);
  const content = typeof written?.content === 'string' ? written.content : null;
  return (
    <section className="details">
      <h2>
        {part.title}{' '}
        <small>
          {uses === null ? part.kind.words : `uses ${componentNamed(system, uses)?.title ?? uses}`}
        </small>
      </h2>
      <CommitField
        label="name"
        mono
        value={name}
        onType={setTyped}
        onCommit={text => {
          const reason = restructure(
            renamePart(component.id, name, text.trim()),
            `${component.title}: ${name} is now ${text.trim()}`,
          );
          if (reason === null) onSelect(text.trim());
          return reason;
        }}
      />
      {renaming ? <Touching edit={renaming} about={component.id} /> : null}
      <CommitField
        label="title"
        value={written?.title ?? ''}
        placeholder={part.title}
        onCommit={text => change({ title: text.trim() || null }, 'has another title')}
      />
      <CommitField
        label="for"
        value={written?.description ?? ''}
        placeholder={part.kind.words}
        onCommit={text => change({ description: text.trim() || null }, 'is explained')}
      />
      <dl className="facts">
        {uses === null ? (
          <>
            <dt>is</dt>
            <dd>
              <Choice
                label={`kind of ${name}`}
                value={part.kind.kind}
                items={PART_KINDS.map(({ kind, words }) => ({ id: kind, words: kind, hint: words }))}
                onChoose={kind => said({ kind }, `is a ${kind}`)}
              >
                {part.kind.kind}
              </Choice>
              {part.kind.kind === 'control' ? (
                <>
                  {', '}
                  <Choice
                    label="element"
                    value={part.element}
                    items={CONTROL_ELEMENTS.map(id => ({ id, words: id }))}
                    onChoose={element =>
                      said(
                        {
                          element,
                          elements: null,
                          ...(element === 'input' ? { type: 'text' } : { type: null }),
                        },
                        `is a ${element}`,
                      )
                    }
                  >
                    {part.elements.join(' or ')}
                  </Choice>
                  {part.element === 'input' ? (
                    <>
                      {' of type '}
                      <Choice
                        label="type"
                        value={part.type ?? 'text'}
                        items={TYPES.map(id => ({ id, words: id }))}
                        onChoose={type => said({ type }, `is of type ${type}`)}
                      >
                        {part.type ?? 'text'}
                      </Choice>
                    </>
                  ) : null}
                </>
              ) : null}
            </dd>
          </>
        ) : null}
        {uses === null && !part.kind.box ? (
          <>
            <dt>shows</dt>
            <dd>
              <Choice
                label={`content of ${name}`}
                value={content ?? NOTHING}
                items={[...keys.map(id => ({ id, words: id })), { id: NOTHING, words: 'nothing' }]}
                onChoose={key =>
                  said(
                    { content: key === NOTHING ? null : key },
                    key === NOTHING ? 'shows nothing' : `shows ${key}`,
                  )
                }
              >
                {content ?? 'nothing'}
              </Choice>
              <SourceOf component={component} content={content} />
            </dd>
          </>
        ) : null}
        <dt>is there</dt>
        <dd>{presenceWords(component, name, content)}</dd>
        <dt>rules</dt>
        <dd>
          <SpeakingRules component={component} name={name} />
        </dd>
        {component.derivation ? (
          <>
            <dt>comes from</dt>
            <dd>
              {source === 'added' ? 'here' : componentNamed(system, component.derivation.bases[0]!.id)?.title}
              {source === 'changed' ? (
                <>
                  , and departs from it ·{' '}
                  <button
                    type="button"
                    className="act"
                    onClick={() => {
                      const reason = restructure(
                        returnPart(component.id, name),
                        `${component.title}: ${name} as in the base`,
                      );
                      if (reason !== null) store.say('error', reason);
                    }}
                  >
                    return to it
                  </button>
                </>
              ) : null}
            </dd>
          </>
        ) : null}
      </dl>
      {uses === null ? null : <Bindings component={component} name={name} uses={uses} onChange={said} />}
    </section>
  );
}

function Touching({ edit, about }: { edit: ReturnType<typeof renamePart>; about: string }) {
  return <TouchedList tried={useAttempt(edit)} about={about} />;
}

/** Where the text of a key comes from, where not from the sample alone. */
function SourceOf({ component, content }: { component: Component; content: string | null }) {
  const declared = component.document.content?.find(({ id }) => id === content);
  if (declared?.from)
    return (
      <>
        , the first that is there of <code>{declared.from.join(', ')}</code>
        {declared.else === undefined ? '' : `, else ${declared.else}`}
      </>
    );
  return declared?.text ? (
    <>
      , as <code>{declared.text}</code>
    </>
  ) : null;
}

/** When a part is there, by what rules say and whether there is content. */
function presenceWords(component: Component, name: string, content: string | null): string {
  const part = component.anatomy.byName.get(name);
  const saying = component.rules.flatMap(rule =>
    rule.written
      .filter(each => each.part === part?.name && each.property.name === 'present')
      .map(each => ({ rule, text: each.text })),
  );
  const words = saying.map(
    ({ rule, text }) => `${text === 'true' ? 'there' : 'not there'} ${whenWords(component, rule.region)}`,
  );
  const filled = content === null ? '' : `${words.length > 0 ? ', and ' : ''}where there is a ${content}`;
  return words.length === 0 && filled === '' ? 'always' : words.join(', ') + filled;
}

const whenWords = ({ space }: Component, region: readonly number[]): string => {
  const words = conditionWords(region, space.axes);
  return words === 'always' ? 'at first' : `when ${words}`;
};

function SpeakingRules({ component, name }: { component: Component; name: string }) {
  const { id } = useStore();
  const part = component.anatomy.byName.get(name);
  const speaking = component.rules.filter(
    rule => rule.nested === undefined && rule.written.some(each => each.part === part?.name),
  );
  if (speaking.length === 0) return 'none speaks for it';
  return (
    <>
      {speaking.length} speak for it:{' '}
      {speaking.map((rule, index) => (
        <span key={rule.id}>
          {index > 0 ? ', ' : ''}
          <Link
            to={regionAddress(
              id,
              component,
              rule.region,
              `${part!.name}.${rule.written.find(each => each.part === part!.name)!.property.name}`,
            )}
          >
            {rule.id}
          </Link>
        </span>
      ))}
    </>
  );
}
