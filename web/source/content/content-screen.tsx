import { useMemo, useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import { STRESSES, stressedSample } from '@periwinkle/core/components/content/stress-samples';
import {
  addEntry,
  changeEntry,
  moveEntry,
  removeEntry,
  renameEntry,
} from '@periwinkle/core/edits/entry-edits';
import { sharableWith, shareSample, sharersOf } from '@periwinkle/core/edits/sample-edits';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import { Choice } from '../common/choice';
import { sheetScreen } from '../component/sheet-screen';
import { useContexts } from '../data/address';
import { useOpened } from '../data/opened-address';
import { useStore, useSystemPart } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, useShape } from '../specimen/specimen';
import { KeyList } from './key-list';
import { SampleCell } from './sample-cell';
import { SourcesField } from './sources-field';

/** What a field is drawn with: the keys of its content, samples for them, and what stress does to it. */
export const ContentScreen = sheetScreen('edited', ContentSheet);

function ContentSheet({ component }: { component: Component }) {
  const [opened, open] = useOpened();
  const keys = contentKeys(component);
  const samples = component.document.samples ?? [];
  return (
    <>
      <div className="content-sheet">
        <section>
          <h2>
            Samples <small>what it is drawn with; a text may differ by the values of an axis</small>
          </h2>
          <div className="sample-scroll">
            <table className="samples">
              <thead>
                <tr>
                  <td />
                  {samples.map(sample => (
                    <th key={sample.id} scope="col">
                      <button
                        type="button"
                        className="act name"
                        aria-expanded={opened === `sample:${sample.id}`}
                        onClick={() => open(opened === `sample:${sample.id}` ? null : `sample:${sample.id}`)}
                      >
                        {sample.title ?? sample.id}
                      </button>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {keys.map(key => (
                  <tr key={key}>
                    <th scope="row">
                      <code>{key}</code>
                    </th>
                    {samples.map(sample => (
                      <td key={sample.id}>
                        <SampleCell component={component} sample={sample} contentKey={key} />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <AddSample component={component} onAdded={sample => open(`sample:${sample}`)} />
          {samples.map((sample, index) =>
            opened === `sample:${sample.id}` ? (
              <SampleEditor
                key={sample.id}
                component={component}
                sample={sample}
                index={index}
                onOpen={open}
              />
            ) : null,
          )}
        </section>
        <KeyList component={component} />
        {samples.length > 0 ? <StressPlate component={component} samples={samples} /> : null}
      </div>
    </>
  );
}

function AddSample({ component, onAdded }: { component: Component; onAdded: (id: string) => void }) {
  const restructure = useRestructure();
  const add = (title: string): string | null => {
    const id = idFor(title, each => component.samples.some(sample => sample.id === each));
    const content = Object.fromEntries(
      (component.document.content ?? [])
        .filter(each => each.required)
        .map(each => [each.id, each.title ?? each.id]),
    );
    const reason = restructure(
      addEntry(component.id, 'samples', { id, title, content }),
      `${component.title}: sample ${title}`,
    );
    if (reason === null) onAdded(id);
    return reason;
  };
  return <AddByName words="another sample" placeholder="what it is called" onAdd={add} />;
}

function SampleEditor({
  component,
  sample,
  index,
  onOpen,
}: {
  component: Component;
  sample: SampleDocument;
  index: number;
  onOpen: (what: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const run = (edit: Parameters<typeof restructure>[0], words: string): string | null =>
    restructure(edit, `${component.title}: ${words}`);
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  const copy = (): void => {
    const id = idFor(`${sample.id} copy`, each => component.samples.some(other => other.id === each));
    const next = { ...sample, id, title: `${sample.title ?? sample.id}, a copy` };
    const reason = run(addEntry(component.id, 'samples', next), `sample ${sample.id} copied`);
    if (reason === null) onOpen(`sample:${id}`);
    else said(reason);
  };
  return (
    <div className="opened sample-editor">
      <CommitField
        label="title"
        value={sample.title ?? ''}
        onCommit={title =>
          run(
            changeEntry(component.id, 'samples', index, { ...sample, title }),
            `sample ${sample.id} has another title`,
          )
        }
      />
      <CommitField
        label="id"
        mono
        value={sample.id}
        onCommit={id => {
          const reason = run(
            renameEntry(component.id, 'samples', sample.id, id),
            `sample ${sample.id} is now ${id}`,
          );
          if (reason === null) onOpen(`sample:${id}`);
          return reason;
        }}
      />
      <SourcesField
        sources={sample.sources}
        onCommit={sources =>
          run(
            changeEntry(
              component.id,
              'samples',
              index,
              sources ? { ...sample, sources } : withoutSources(sample),
            ),
            `sources of ${sample.id}`,
          )
        }
      />
      <SharedWith component={component} sample={sample} />
      <div className="acts">
        <button type="button" className="act" onClick={copy}>
          duplicate
        </button>
        <button
          type="button"
          className="act"
          onClick={() =>
            said(run(moveEntry(component.id, 'samples', index, index - 1), `sample ${sample.id} earlier`))
          }
        >
          earlier
        </button>
        <button
          type="button"
          className="act"
          onClick={() =>
            said(run(moveEntry(component.id, 'samples', index, index + 1), `sample ${sample.id} later`))
          }
        >
          later
        </button>
        <ConsideredAct
          words="take it out"
          title={sample.title ?? sample.id}
          edit={removeEntry(component.id, 'samples', index)}
          label={`${component.title}: sample ${sample.id} taken out`}
          about={component.id}
          onDone={() => onOpen(null)}
        />
      </div>
    </div>
  );
}

const EVERY = '';

/** Which fields of the group have the same sample, whose texts follow each other as far as they are alike; and who else may have it. */
function SharedWith({ component, sample }: { component: Component; sample: SampleDocument }) {
  const system = useSystemPart('edited');
  const restructure = useRestructure();
  const store = useStore();
  const sharers = sharersOf(system, component, sample.id);
  const others = sharableWith(system, component, sample.id);
  if (sharers.length + others.length === 0) return null;
  const group = component.group.join(', ');
  const share = (id: string): void => {
    const chosen = others.filter(other => id === EVERY || other.id === id);
    const reason = restructure(
      shareSample(
        component.id,
        sample.id,
        chosen.map(other => other.id),
      ),
      `Sample ${sample.title ?? sample.id} of ${component.title} shared with ${chosen.map(({ title }) => title).join(', ')}`,
    );
    if (reason !== null) store.say('error', reason);
  };
  return (
    <div className="commit-field">
      <span>shared</span>
      <span>
        {sharers.length === 0 ? (
          <span className="said">with no other field of {group} </span>
        ) : (
          <>
            with {sharers.map(({ title }) => title).join(', ')}
            <span className="said">; what is said alike is written once </span>
          </>
        )}
        {others.length === 0 ? null : (
          <Choice
            label="share it with"
            value={null}
            items={[
              ...others.map(({ id, title }) => ({ id, words: title })),
              ...(others.length > 1 ? [{ id: EVERY, words: `all of ${group}` }] : []),
            ]}
            onChoose={share}
            className="plain"
          >
            share it
          </Choice>
        )}
      </span>
    </div>
  );
}

const withoutSources = ({ sources: _, ...rest }: SampleDocument): SampleDocument => rest;

/** The field with its content longest, shortest, longer, mirrored and unbroken; each can be kept as a sample. */
function StressPlate({ component, samples }: { component: Component; samples: readonly SampleDocument[] }) {
  const system = useSystemPart('system');
  const contexts = useContexts(system.tokens);
  const restructure = useRestructure();
  const store = useStore();
  const shape = useShape(system, component);
  const [chosen, setChosen] = useState(samples[0]!.id);
  const sample = samples.find(({ id }) => id === chosen) ?? samples[0]!;
  const { space, anatomy } = component;
  const combination = useMemo(
    () => space.written(space.settled(space.indices({ content: 'filled', validity: 'invalid' })).combination),
    [space],
  );
  const drawings = new Set(
    anatomy.parts.flatMap(part => (part.kind.kind === 'icon' && part.content !== null ? [part.content] : [])),
  );
  const isDrawing = (key: string): boolean =>
    drawings.has(key) ||
    component.document.content?.find(({ id }) => id === key)?.kind === 'icon' ||
    /icon$/i.test(key);
  const stressed = STRESSES.map(stress => ({
    stress,
    sample: stressedSample(sample, stress, samples, isDrawing),
  }));
  const keep = (next: SampleDocument): void => {
    const id = idFor(next.id, each => samples.some(other => other.id === each));
    const reason = restructure(
      addEntry(component.id, 'samples', { ...next, id }),
      `${component.title}: sample ${next.title ?? id}`,
    );
    if (reason !== null) store.say('error', reason);
  };
  return (
    <section>
      <h2>
        Under stress{' '}
        <small>
          of{' '}
          <Choice
            label="sample"
            value={sample.id}
            items={samples.map(({ id, title }) => ({ id, words: title ?? id }))}
            onChoose={setChosen}
          >
            {sample.title ?? sample.id}
          </Choice>
        </small>
      </h2>
      <PreviewSurface system={system} contexts={contexts} className="stresses" label="The field under stress">
        {stressed.map(({ stress, sample: each }) => (
          <figure key={stress.id}>
            <Specimen shape={shape} combination={combination} sample={each} />
            <figcaption>
              <span>{stress.title}</span>{' '}
              <button
                type="button"
                className="act"
                aria-label={`keep: ${stress.title}`}
                onClick={() => keep(each)}
              >
                keep
              </button>
            </figcaption>
          </figure>
        ))}
      </PreviewSurface>
    </section>
  );
}
