import { addEntry, changeEntry, removeEntry, renameEntry } from '@periwinkle/core/edits/entry-edits';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { WalkthroughDocument } from '@periwinkle/core/documents/component-document';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';
import { Strip } from './strip';
import { useMoments } from './use-moments';

/** What is shown of a field's use: acts in their order, as strips of real specimens. */
export function WalkthroughList({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const restructure = useRestructure();
  const [, open] = useOpened();
  const walkthroughs = component.document.walkthroughs ?? [];
  const add = (title: string): string | null => {
    const id = idFor(title, each => walkthroughs.some(walkthrough => walkthrough.id === each));
    const reason = restructure(
      addEntry(component.id, 'walkthroughs', { id, title, acts: [] }),
      `${component.title}: walkthrough ${title}`,
    );
    if (reason === null) open(`walkthrough:${id}`);
    return reason;
  };
  return (
    <div className="walkthroughs">
      {walkthroughs.map((walkthrough, index) => (
        <Walkthrough
          key={walkthrough.id}
          system={system}
          component={component}
          contexts={contexts}
          walkthrough={walkthrough}
          index={index}
        />
      ))}
      <AddByName words="another walkthrough" placeholder="Pasted whole" onAdd={add} />
    </div>
  );
}

function Walkthrough({
  system,
  component,
  contexts,
  walkthrough,
  index,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
  walkthrough: WalkthroughDocument;
  index: number;
}) {
  const [opened, open] = useOpened();
  const { id, title, shows, sample, set, acts } = walkthrough;
  const play = useMoments(system, component, sample, set, acts);
  const key = `walkthrough:${id}`;
  return (
    <section className="walkthrough" aria-label={title ?? id}>
      <h2>
        <button
          type="button"
          className="act name"
          aria-expanded={opened === key}
          onClick={() => open(opened === key ? null : key)}
        >
          {title ?? id}
        </button>
        <small>{shows}</small>
      </h2>
      {opened === key ? (
        <WalkthroughEditor component={component} walkthrough={walkthrough} index={index} onOpen={open} />
      ) : null}
      <Strip system={system} component={component} contexts={contexts} title={title ?? id} play={play} />
    </section>
  );
}

function WalkthroughEditor({
  component,
  walkthrough,
  index,
  onOpen,
}: {
  component: Component;
  walkthrough: WalkthroughDocument;
  index: number;
  onOpen: (what: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const { id, title = id } = walkthrough;
  const change = (next: Partial<WalkthroughDocument>): string | null =>
    restructure(
      changeEntry(component.id, 'walkthroughs', index, { ...walkthrough, ...next }),
      `${component.title}: ${title} changed`,
    );
  return (
    <div className="opened">
      <CommitField label="title" value={walkthrough.title ?? ''} onCommit={text => change({ title: text })} />
      <CommitField
        label="id"
        mono
        value={id}
        onCommit={text => {
          const reason = restructure(
            renameEntry(component.id, 'walkthroughs', id, text),
            `${component.title}: ${id} is now ${text}`,
          );
          if (reason === null) onOpen(`walkthrough:${text}`);
          return reason;
        }}
      />
      <CommitField label="shows" value={walkthrough.shows ?? ''} onCommit={text => change({ shows: text })} />
      <div className="commit-field">
        <span>sample</span>
        <span>
          <Choice
            label="sample"
            value={walkthrough.sample ?? null}
            items={component.samples.map(sample => ({ id: sample.id, words: sample.title ?? sample.id }))}
            onChoose={sample => {
              const reason = change({ sample });
              if (reason !== null) store.say('error', reason);
            }}
          >
            {component.samples.find(sample => sample.id === walkthrough.sample)?.title ?? 'the first'}
          </Choice>
        </span>
      </div>
      <CommitField
        label="acts"
        mono
        lines={Math.max(3, walkthrough.acts.length + 1)}
        value={walkthrough.acts.join('\n')}
        placeholder={'press frame\ntype Osprey\nleave'}
        onCommit={text => change({ acts: text.split('\n').filter(act => act.trim() !== '') })}
      />
      <div className="acts">
        <ConsideredAct
          words="take it out"
          title={title}
          edit={removeEntry(component.id, 'walkthroughs', index)}
          label={`${component.title}: ${title} taken out`}
          about={component.id}
          onDone={() => onOpen(null)}
        />
      </div>
    </div>
  );
}
