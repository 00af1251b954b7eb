import { addEntry } from '@periwinkle/core/edits/entry-edits';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { WalkthroughDocument } from '@periwinkle/core/documents/behaviour-document';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Choice } from '../common/choice';
import { useOpened } from '../data/opened-address';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { EntryActs } from '../making/entry-acts';
import { OpeningWord } from '../making/opening-line';
import { useEntryEdits } from '../making/use-entry-edits';
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
  const [opened] = useOpened();
  const { id, title, shows, sample, set, acts } = walkthrough;
  const play = useMoments(system, component, sample, set, acts);
  const key = `walkthrough:${id}`;
  return (
    <section className="walkthrough" aria-label={title ?? id}>
      <h2>
        <OpeningWord of={key}>{title ?? id}</OpeningWord>
        <small>{shows}</small>
      </h2>
      {opened === key ? (
        <WalkthroughEditor component={component} walkthrough={walkthrough} index={index} />
      ) : null}
      <Strip system={system} component={component} contexts={contexts} title={title ?? id} play={play} />
    </section>
  );
}

function WalkthroughEditor({
  component,
  walkthrough,
  index,
}: {
  component: Component;
  walkthrough: WalkthroughDocument;
  index: number;
}) {
  const { id, title = id } = walkthrough;
  const edits = useEntryEdits(component, 'walkthroughs', index, { id, name: title, opens: 'walkthrough' });
  const change = (next: Partial<WalkthroughDocument>): string | null =>
    edits.change({ ...walkthrough, ...next });
  return (
    <div className="opened">
      <CommitField label="title" value={walkthrough.title ?? ''} onCommit={text => change({ title: text })} />
      <CommitField label="id" mono value={id} onCommit={edits.rename} />
      <CommitField label="shows" value={walkthrough.shows ?? ''} onCommit={text => change({ shows: text })} />
      <div className="commit-field">
        <span>sample</span>
        <span>
          <Choice
            label="sample"
            value={walkthrough.sample ?? null}
            items={component.samples.map(sample => ({ id: sample.id, words: sample.title ?? sample.id }))}
            onChoose={sample => edits.say(change({ sample }))}
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
      <EntryActs component={component} list="walkthroughs" index={index} name={title} onGone={edits.close} />
    </div>
  );
}
