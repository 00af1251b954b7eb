import { useMemo, type KeyboardEvent } from 'react';
import type { Transition, TransitionTable } from '@periwinkle/core/behaviour/transitions';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { counted } from '../common/numbers';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, useShape } from '../specimen/specimen';

/** Situations down, what a person does across; in each cell the situation it leads to. Chosen is where one wants to get. */
export function PassagePlate({
  system,
  component,
  contexts,
  table,
  chosen,
  onChoose,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
  table: TransitionTable;
  chosen: string | null;
  onChoose: (situation: string | null) => void;
}) {
  const shape = useShape(system, component);
  const titles = useMemo(
    () => new Map(component.situations.map(({ id, title }) => [id, title])),
    [component.situations],
  );
  // As plates draw them: with all else at rest.
  const drawn = useMemo(
    () =>
      new Map(
        component.situations.map(({ id, when }) => {
          const { space } = component;
          return [id, space.written(space.settled(space.indices(when)).combination)] as const;
        }),
      ),
    [component],
  );
  const rows = table.rows.filter(({ situation }) => titles.has(situation));
  const moves = rows.flatMap(({ cells }) => cells.flat()).length;
  const steps = rows.find(({ situation }) => situation === chosen)?.steps ?? [];
  // Arrow keys go through the situations, as through any list of one choice.
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    const buttons = [...event.currentTarget.querySelectorAll<HTMLButtonElement>('button.situation')];
    const next = buttons[buttons.indexOf(document.activeElement as HTMLButtonElement) + by];
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    <>
      <PreviewSurface system={system} contexts={contexts} className="passage-plate" label="Passages">
        <table onKeyDown={onKeyDown}>
          <thead>
            <tr>
              <td colSpan={2} />
              {table.columns.map(title => (
                <th key={title} scope="col">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ situation, way, because, isNever, cells }) => {
              const known = component.situations.find(({ id }) => id === situation)!;
              return (
                <tr key={situation} className={situation === chosen ? 'chosen' : ''}>
                  <th scope="row">
                    <button
                      type="button"
                      className="situation"
                      aria-pressed={situation === chosen}
                      disabled={way === null}
                      title={
                        way === null
                          ? isNever
                            ? 'Nothing leads here.'
                            : `Not known: ${because}.`
                          : `How does one get here? ${way.join(', ')}`
                      }
                      onClick={() => onChoose(situation === chosen ? null : situation)}
                    >
                      {known.title}
                    </button>
                  </th>
                  <td className="drawn">
                    <Specimen
                      shape={shape}
                      combination={drawn.get(situation)!}
                      sample={component.samples[0]}
                    />
                  </td>
                  {cells.map((passages, place) => (
                    <td key={table.columns[place]} className={passages.length === 0 ? 'nothing' : ''}>
                      {steps.map((step, number) =>
                        step.situation === situation && step.column === place ? (
                          <b key={number} className="step" title={`act ${number + 1} of the way there`}>
                            {number + 1}
                          </b>
                        ) : null,
                      )}
                      {passages.map(each => (
                        <Outcome key={each.acts.join()} passage={each} titles={titles} onChoose={onChoose} />
                      ))}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </PreviewSurface>
      <p className="passage-caption">
        <b>From here, by this act, to there.</b> {counted(moves, 'passage')}
        {table.shut.length > 0
          ? `; only the application leads out of ${table.shut.map(id => titles.get(id)?.toLowerCase()).join(', ')}`
          : ''}
        .
      </p>
    </>
  );
}

function Outcome({
  passage: { where, to, stays, effects },
  titles,
  onChoose,
}: {
  passage: Transition;
  titles: ReadonlyMap<string, string>;
  onChoose: (situation: string) => void;
}) {
  const words = stays ? 'stays' : to === null ? 'no name' : titles.get(to);
  return (
    <span className="outcome">
      {where ? <i>{where}</i> : null}{' '}
      {stays || to === null ? (
        <span className="said">{words}</span>
      ) : (
        <button type="button" className="act" onClick={() => onChoose(to)}>
          {words}
        </button>
      )}
      {effects.length > 0 ? <small> {effects.join(', ')}</small> : null}
    </span>
  );
}
