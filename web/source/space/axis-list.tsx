import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import * as axisEdits from '@periwinkle/core/edits/axis-edits';
import type { StructuralEdit } from '@periwinkle/core/edits/restructure';
import type { Axis } from '@periwinkle/core/space/axis';
import { STATE_CATALOGUE } from '@periwinkle/core/space/state-catalogue';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { idFor } from '../making/name-fields';
import { TouchedList } from '../making/touched-list';
import { useAttempt, useRestructure } from '../making/use-restructure';

/** Options and states with their values in order; each opens where it stands. */
export function AxisList({ component }: { component: Component }) {
  const [, open] = useOpened();
  const { axes } = component.space;
  return (
    <section>
      <h2>
        Options and states <small>the marked value of each is at rest</small>
      </h2>
      <ul className="lines">
        {axes.map(axis => {
          const of = `axis:${axis.id}`;
          // What a control may be is said of the control.
          const isWritten = component.document.axes?.some(each => each.id === axis.id) ?? false;
          return (
            <OpeningLine
              key={axis.id}
              of={of}
              editor={<AxisEditor component={component} axis={axis} onClose={() => open(null)} />}
            >
              <div className="axis-line">
                <OpeningWord of={of} disabled={!isWritten}>
                  {axis.title}
                </OpeningWord>
                <span className="said">{axis.kind}</span>
                <span>
                  {axis.values.map((value, index) => (
                    <span key={value.id}>
                      {index > 0 ? ' · ' : ''}
                      {index === axis.rest ? <b className="rest">{value.title}</b> : value.title}
                    </span>
                  ))}
                  {axis.ladder ? <i className="said"> each includes the one before</i> : null}
                </span>
                <span className="number">× {axis.values.length}</span>
              </div>
            </OpeningLine>
          );
        })}
      </ul>
      <AddAxis component={component} onAdded={id => open(`axis:${id}`)} />
    </section>
  );
}

function AddAxis({ component, onAdded }: { component: Component; onAdded: (id: string) => void }) {
  const restructure = useRestructure();
  const { axes } = component.space;
  const states = STATE_CATALOGUE.filter(state => !axes.some(axis => axis.id === state.id));
  const addState = (id: string): void => {
    const edit = axisEdits.addAxis(component.id, { id, kind: 'state' });
    if (restructure(edit, `${component.title}: state ${id} added`) === null) onAdded(id);
  };
  const addOption = (title: string): string | null => {
    const id = idFor(title, each => axes.some(axis => axis.id === each));
    const axis = { id, kind: 'option', title, values: [{ id: 'none' }], default: 'none' } as const;
    const reason = restructure(
      axisEdits.addAxis(component.id, axis),
      `${component.title}: option ${title} added`,
    );
    if (reason === null) onAdded(id);
    return reason;
  };
  return (
    <AddByName words="another option" placeholder="what it is called" onAdd={addOption}>
      {' · '}
      <Choice
        label="another state"
        value={null}
        items={states.map(({ id, title, values }) => ({
          id,
          words: title,
          hint: values.map(value => value.words).join(', '),
        }))}
        onChoose={addState}
        className="plain"
      >
        another state
      </Choice>
    </AddByName>
  );
}

function AxisEditor({ component, axis, onClose }: { component: Component; axis: Axis; onClose: () => void }) {
  const restructure = useRestructure();
  const { id, title } = component;
  const state = axis.state;
  const [typedId, setTypedId] = useState(axis.id);
  const renaming = typedId === axis.id ? null : axisEdits.renameAxis(id, axis.id, typedId);
  const run = (edit: StructuralEdit, words: string): string | null =>
    restructure(edit, `${title}: ${axis.title} ${words}`);
  const left = state?.values.filter(value => !axis.indexOf.has(value.id)) ?? [];
  return (
    <div className="opened">
      <CommitField
        label="title"
        value={axis.title}
        onCommit={text => run(axisEdits.wordAxis(id, axis.id, { title: text }), 'has another title')}
      />
      {axis.kind === 'option' ? (
        <>
          <CommitField
            label="id"
            mono
            value={axis.id}
            onType={setTypedId}
            onCommit={text => {
              const reason = run(axisEdits.renameAxis(id, axis.id, text), `is now ${text}`);
              if (reason === null) onClose();
              return reason;
            }}
          />
          <Touching edit={renaming} about={id} />
        </>
      ) : null}
      <CommitField
        label="for"
        value={axis.description}
        placeholder="what it is for"
        onCommit={text => run(axisEdits.wordAxis(id, axis.id, { description: text }), 'is explained')}
      />
      <ValueTable component={component} axis={axis} run={run} />
      <div className="acts">
        {axis.kind === 'option' ? (
          <AddValue component={component} axis={axis} run={run} />
        ) : left.length > 0 ? (
          <Choice
            label={`another value of ${axis.title}`}
            value={null}
            items={left.map(({ id: value, words, meaning }) => ({ id: value, words, hint: meaning }))}
            onChoose={value => void run(axisEdits.addValue(id, axis.id, { id: value }), `may be ${value}`)}
            className="plain"
          >
            another value
          </Choice>
        ) : null}
        <button
          type="button"
          className="act"
          onClick={() =>
            void run(axisEdits.moveAxis(id, axis.id, axisIndex(component, axis) - 1), 'moved up')
          }
        >
          up
        </button>
        <button
          type="button"
          className="act"
          onClick={() =>
            void run(axisEdits.moveAxis(id, axis.id, axisIndex(component, axis) + 1), 'moved down')
          }
        >
          down
        </button>
        <ConsideredAct
          words="take it out"
          title={axis.title}
          edit={axisEdits.removeAxis(id, axis.id)}
          label={`${title}: ${axis.title} taken out`}
          about={id}
          onDone={onClose}
        />
      </div>
    </div>
  );
}

const axisIndex = ({ derivation, document }: Component, axis: Axis): number =>
  (derivation?.own.axes ?? document.axes ?? []).findIndex(({ id }) => id === axis.id);

function Touching({ edit, about }: { edit: StructuralEdit | null; about: string }) {
  const tried = useAttempt(edit);
  return <TouchedList tried={tried} about={about} />;
}

type Run = (edit: StructuralEdit, words: string) => string | null;

function AddValue({ component, axis, run }: { component: Component; axis: Axis; run: Run }) {
  const add = (words: string): string | null => {
    const value = idFor(words, each => axis.indexOf.has(each));
    const title = words === value ? {} : { title: words };
    return run(axisEdits.addValue(component.id, axis.id, { id: value, ...title }), `may be ${words}`);
  };
  return <AddByName words="another value" placeholder="small, medium, …" onAdd={add} />;
}

function ValueTable({ component, axis, run }: { component: Component; axis: Axis; run: Run }) {
  const { id } = component;
  return (
    <table className="values">
      <thead>
        <tr>
          <th scope="col">value</th>
          <th scope="col">id</th>
          <th scope="col">
            {axis.kind === 'state' ? 'when it is so, and how a browser tells' : 'what it is for'}
          </th>
          <th scope="col">
            <span className="unseen">what can be done with it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {axis.values.map((value, index) => (
          <tr key={value.id}>
            <td>
              <CommitField
                quiet
                label={`title of ${value.id}`}
                value={value.title}
                onCommit={text =>
                  run(
                    axisEdits.wordValue(id, axis.id, value.id, { title: text }),
                    `${value.id} has another title`,
                  )
                }
              />
            </td>
            <td>
              {axis.kind === 'state' ? (
                <code>{value.id}</code>
              ) : (
                <CommitField
                  quiet
                  label={`id of ${value.id}`}
                  mono
                  value={value.id}
                  onCommit={text =>
                    run(axisEdits.renameValue(id, axis.id, value.id, text), `${value.id} is now ${text}`)
                  }
                />
              )}
            </td>
            <td className="said">
              {axis.state ? (
                <>
                  {value.description} <code>{toldBy(axis, value.id)}</code>
                </>
              ) : (
                <CommitField
                  quiet
                  label={`what ${value.id} is for`}
                  value={value.description}
                  onCommit={text =>
                    run(
                      axisEdits.wordValue(id, axis.id, value.id, { description: text }),
                      `${value.id} is explained`,
                    )
                  }
                />
              )}
            </td>
            <td className="acts">
              {axis.kind === 'option' ? (
                <>
                  <button
                    type="button"
                    className="act"
                    disabled={index === 0}
                    aria-label={`${value.title} earlier`}
                    onClick={() =>
                      void run(axisEdits.moveValue(id, axis.id, value.id, index - 1), `${value.id} earlier`)
                    }
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    className="act"
                    disabled={index === axis.values.length - 1}
                    aria-label={`${value.title} later`}
                    onClick={() =>
                      void run(axisEdits.moveValue(id, axis.id, value.id, index + 1), `${value.id} later`)
                    }
                  >
                    ↓
                  </button>
                  {index === axis.rest ? (
                    <span className="said">at rest</span>
                  ) : (
                    <button
                      type="button"
                      className="act"
                      aria-label={`rest here: ${value.title}`}
                      onClick={() =>
                        void run(axisEdits.chooseDefault(id, axis.id, value.id), `is ${value.id} at rest`)
                      }
                    >
                      rest here
                    </button>
                  )}
                </>
              ) : index === 0 ? (
                <span className="said">at rest</span>
              ) : null}
              {axis.values.length > 1 && !(axis.kind === 'state' && index === 0) ? (
                <ConsideredAct
                  words="take out"
                  title={value.title}
                  edit={axisEdits.removeValue(id, axis.id, value.id)}
                  label={`${component.title}: ${axis.title} no longer ${value.title}`}
                  about={id}
                />
              ) : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How a browser tells a state, in short. */
function toldBy(axis: Axis, value: string): string {
  const row = axis.state?.values.find(({ id }) => id === value);
  const mark = row?.mark;
  return row?.detect ? (mark ? `${mark.attribute}="${mark.value}"` : 'of itself') : '';
}
