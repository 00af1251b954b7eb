import { useState } from 'react';
import { Link } from 'react-router';
import { partKind, PART_KINDS } from '@periwinkle/core/anatomy/part-kinds';
import type { Component } from '@periwinkle/core/components/component';
import { insertPart, movePart, removePart, unwrapPart, wrapParts } from '@periwinkle/core/editing/part-edits';
import type { PartPlace } from '@periwinkle/core/editing/following-parts';
import type { PartDocument } from '@periwinkle/core/formats/component-document';
import { Choice } from '../common/choice';
import { useCaughtFocus } from '../common/focus';
import { useCarried } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { useRestructure } from '../making/use-restructure';
import type { PartLine } from './part-lines';

const SOURCES = { own: '', base: '', changed: 'departs from the base', added: 'added here' } as const;

/** The parts in the order in which they are read, and what can be done with the chosen one. */
export function PartList({
  component,
  lines,
  selected,
  onSelect,
}: {
  component: Component;
  lines: readonly PartLine[];
  selected: PartLine | null;
  onSelect: (name: string | null) => void;
}) {
  const { id } = useStore();
  const carried = useCarried();
  // After an insertion one goes on at the new part.
  const chosen = useCaughtFocus<HTMLButtonElement>(selected?.name);
  return (
    <section>
      <h2>
        Parts <small>in the order in which they are read</small>
      </h2>
      <ul className="parts" aria-label="Parts">
        {lines.map(line => (
          <li key={line.name} className={line.name === selected?.name ? 'chosen' : ''}>
            <span className="number">{line.number}</span>
            <button
              type="button"
              ref={line.name === selected?.name ? chosen : undefined}
              className="part"
              style={{ paddingInlineStart: line.depth * 16 }}
              aria-pressed={line.name === selected?.name}
              onClick={() => onSelect(line.name)}
            >
              <code>{line.name}</code>{' '}
              <span className="said">
                {line.uses === null ? kindWords(line) : 'uses'}{' '}
                {line.part.content ? <i>{line.part.content}</i> : null}
              </span>
            </button>
            <span className="note">
              {line.uses === null ? null : (
                <Link to={`/${id}/${line.uses}/anatomy${carried}`}>{line.uses}</Link>
              )}
              {line.isDrawn ? null : <span className="said">not there now</span>}
              {SOURCES[line.source] ? <span className="source">{SOURCES[line.source]}</span> : null}
            </span>
          </li>
        ))}
      </ul>
      <PartActs component={component} lines={lines} selected={selected ?? lines[0]!} onSelect={onSelect} />
    </section>
  );
}

const kindWords = ({ part }: PartLine): string =>
  part.kind.kind === 'control' ? part.element : part.kind.kind;

/** What can be inserted. */
const KINDS = [
  ...PART_KINDS.map(({ kind, words }) => ({ id: kind, words: kind, hint: words })),
  { id: 'use', words: 'a component', hint: 'one of this system' },
];

function PartActs({
  component,
  lines,
  selected,
  onSelect,
}: {
  component: Component;
  lines: readonly PartLine[];
  selected: PartLine;
  onSelect: (name: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const [inserting, setInserting] = useState<'before' | 'after' | 'into' | null>(null);
  const { name, siblings, outer, part, uses } = selected;
  const place = siblings.indexOf(name);
  const isBox = part.kind.box && uses === null;
  const move = (to: PartPlace | null): void => {
    const reason = to && restructure(movePart(component.id, name, to), `${component.title}: ${name} moved`);
    if (reason !== null) store.say('error', reason);
  };
  const wrap = (kind: string): void => {
    const box = freshName(kind === 'row' ? 'row' : 'stack', lines);
    const reason = restructure(
      wrapParts(component.id, [name], { part: box, kind }),
      `${component.title}: ${name} wrapped`,
    );
    if (reason === null) onSelect(box);
    else store.say('error', reason);
  };
  const ahead = siblings[place - 1];
  const behind = siblings[place + 1];
  const boxAhead = lines.find(line => line.name === ahead && line.part.kind.box && line.uses === null);
  return (
    <div className="part-acts">
      <b className="mono">{name}</b>: insert{' '}
      {outer === null ? null : (
        <>
          <button type="button" className="act" onClick={() => setInserting('before')}>
            before
          </button>{' '}
          <button type="button" className="act" onClick={() => setInserting('after')}>
            after
          </button>{' '}
        </>
      )}
      {isBox ? (
        <button type="button" className="act" onClick={() => setInserting('into')}>
          into
        </button>
      ) : null}
      {outer === null ? null : (
        <>
          {' · '}move{' '}
          <button
            type="button"
            className="act"
            disabled={ahead === undefined}
            onClick={() => move(ahead === undefined ? null : { before: ahead })}
          >
            up
          </button>{' '}
          <button
            type="button"
            className="act"
            disabled={behind === undefined}
            onClick={() => move(behind === undefined ? null : { after: behind })}
          >
            down
          </button>{' '}
          <button
            type="button"
            className="act"
            disabled={!boxAhead}
            onClick={() => move(boxAhead ? { into: boxAhead.name } : null)}
          >
            in
          </button>{' '}
          <button
            type="button"
            className="act"
            disabled={outer === lines[0]!.name}
            onClick={() => move(outer === lines[0]!.name ? null : { after: outer })}
          >
            out
          </button>
          {' · '}
          <Choice
            label={`wrap ${name} in`}
            value={null}
            items={[
              { id: 'row', words: 'in a row' },
              { id: 'stack', words: 'in a stack' },
            ]}
            onChoose={wrap}
            className="plain"
          >
            wrap
          </Choice>
          {isBox ? (
            <>
              {' · '}
              <ConsideredAct
                words="unwrap"
                title={name}
                edit={unwrapPart(component.id, name)}
                label={`${component.title}: ${name} unwrapped`}
                about={component.id}
                onDone={() => onSelect(null)}
              />
            </>
          ) : null}
          {' · '}
          <ConsideredAct
            words="take out"
            title={name}
            edit={removePart(component.id, name)}
            label={`${component.title}: ${name} taken out`}
            about={component.id}
            onDone={() => onSelect(null)}
          />
        </>
      )}
      {inserting ? (
        <InsertForm
          component={component}
          lines={lines}
          where={inserting}
          place={{ [inserting]: name } as unknown as PartPlace}
          onDone={fresh => {
            setInserting(null);
            if (fresh) onSelect(fresh);
          }}
        />
      ) : null}
    </div>
  );
}

/** A name that says what something is, and is free. */
function freshName(word: string, lines: readonly PartLine[]): string {
  const taken = new Set(lines.map(({ name }) => name));
  let name = word;
  for (let number = 2; taken.has(name); number++) name = `${word}${number}`;
  return name;
}

/** Kinds that show something of the sample under a key of their own name. */
const SHOWING = new Set(['text', 'label', 'icon', 'action']);

function InsertForm({
  component,
  lines,
  where,
  place,
  onDone,
}: {
  component: Component;
  lines: readonly PartLine[];
  where: string;
  place: PartPlace;
  onDone: (name: string | null) => void;
}) {
  const system = useSystemPart('edited');
  const restructure = useRestructure();
  const others = system.components.filter(({ id }) => id !== component.id);
  const [kind, setKind] = useState('text');
  const [uses, setUses] = useState(others[0]?.id ?? '');
  const insert = (typed: string): string | null => {
    const name = typed.trim();
    if (name === '') return null;
    const content =
      kind === 'control'
        ? { content: 'value', element: 'input', type: 'text' }
        : SHOWING.has(kind)
          ? { content: name }
          : {};
    const part: PartDocument =
      kind === 'use' ? { part: name, kind, component: uses } : { part: name, kind, ...content };
    const reason = restructure(insertPart(component.id, part, place), `${component.title}: ${name} inserted`);
    if (reason === null) onDone(name);
    return reason;
  };
  return (
    <div className="insert">
      <span className="said">insert {where}</span>{' '}
      <Choice label="kind of part" value={kind} items={KINDS} onChoose={setKind}>
        {kind === 'use' ? 'a component' : kind}
      </Choice>{' '}
      {kind === 'use' ? (
        <Choice
          label="component"
          value={uses}
          items={others.map(({ id, title }) => ({ id, words: title }))}
          onChoose={setUses}
        >
          {others.find(({ id }) => id === uses)?.title ?? 'none'}
        </Choice>
      ) : (
        <span className="said">{partKind(kind)?.words}</span>
      )}
      <CommitField
        key={kind}
        label="called"
        mono
        value=""
        placeholder={freshName(kind === 'use' ? 'piece' : kind, lines)}
        autoFocus
        onCommit={insert}
      />
      <button type="button" className="act" onClick={() => onDone(null)}>
        leave it
      </button>
    </div>
  );
}
