import {
  DndContext,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import type { PartPlace } from '@periwinkle/core/edits/renamed-names';
import { movePart, removePart, unwrapPart, wrapParts } from '@periwinkle/core/edits/part-edits';
import { Choice } from '../common/choice';
import { useCaughtFocus } from '../common/focus';
import { useStore } from '../data/system-context';
import { ConsideredAct } from '../making/considered-act';
import { useRestructure } from '../making/use-restructure';
import { freshName, InsertForm } from './insert-form';
import { placeOver, type AimedPlace } from './part-drag';
import { PartItem } from './part-item';
import type { PartLine } from './part-lines';

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
  const restructure = useRestructure();
  const store = useStore();
  // A press chooses a line, a drag takes it along; keys have the words below.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const [aimed, setAimed] = useState<AimedPlace | null>(null);
  const onDragEnd = (event: DragEndEvent): void => {
    const place = placeOver(event, lines);
    setAimed(null);
    if (!place) return;
    const moved = String(event.active.id);
    const reason = restructure(
      movePart(component.id, moved, place.place),
      `${component.title}: ${moved} moved`,
    );
    if (reason !== null) store.say('error', reason);
  };
  // After an insertion one goes on at the new part.
  const chosen = useCaughtFocus<HTMLButtonElement>(selected?.name);
  return (
    <section>
      <h2>
        Parts <small>in the order in which they are read</small>
      </h2>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragMove={event => setAimed(placeOver(event, lines))}
        onDragCancel={() => setAimed(null)}
        onDragEnd={onDragEnd}
      >
        <ul className="parts" aria-label="Parts">
          {lines.map(line => (
            <PartItem
              key={line.name}
              line={line}
              isSelected={line.name === selected?.name}
              aimed={aimed?.line === line.name ? aimed.side : null}
              chosen={chosen}
              onSelect={onSelect}
            />
          ))}
        </ul>
      </DndContext>
      <PartActs component={component} lines={lines} selected={selected ?? lines[0]!} onSelect={onSelect} />
    </section>
  );
}

/** What can be done with a part, beside what the lines themselves do. */
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
