import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { addEntry } from '@periwinkle/core/edits/entry-edits';
import type { SituationDocument } from '@periwinkle/core/documents/component-document';
import type { SpaceReport } from '@periwinkle/core/cascade/questions/space-report';
import { conditionWords } from '@periwinkle/core/space/condition';
import { countText } from '../common/numbers';
import { regionAddress } from '../component/region-address';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { CommitField } from '../making/commit-field';
import { ConditionEditor } from '../making/condition-editor';
import { EntryActs } from '../making/entry-acts';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { useEntryEdits } from '../making/use-entry-edits';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What has a name: when it is so, what that means, and how many combinations it names. */
export function SituationList({ component, report }: { component: Component; report: SpaceReport | null }) {
  const [, open] = useOpened();
  const restructure = useRestructure();
  const { id: systemId } = useStore();
  const { situations, space } = component;
  const add = (title: string): string | null => {
    const id = idFor(title, each => situations.some(situation => situation.id === each));
    const reason = restructure(
      addEntry(component.id, 'situations', { id, title, when: {}, means: '' }),
      `${component.title}: situation ${title}`,
    );
    if (reason === null) open(`situation:${id}`);
    return reason;
  };
  return (
    <section>
      <h2>
        Situations <small>when each appears, and why</small>
      </h2>
      <ul className="lines">
        {situations.map((situation, place) => {
          const of = `situation:${situation.id}`;
          const counts = report?.situations[place];
          return (
            <OpeningLine
              key={situation.id}
              of={of}
              editor={<SituationEditor component={component} place={place} />}
            >
              <div className="situation-line">
                <OpeningWord of={of}>{situation.title}</OpeningWord>
                <span>
                  <b>{conditionWords(situation.region, space.axes)}</b>{' '}
                  <i className="said">{situation.means || 'not explained yet'}</i>
                </span>
                <span className="number">
                  {counts ? (
                    <Link
                      to={regionAddress(systemId, component, situation.region, '')}
                      title={`${countText(counts.alone)} of them have no other name`}
                    >
                      {countText(counts.names)}
                    </Link>
                  ) : (
                    '…'
                  )}
                </span>
              </div>
            </OpeningLine>
          );
        })}
      </ul>
      <AddByName words="another situation" placeholder="Being corrected" onAdd={add} />
    </section>
  );
}

function SituationEditor({ component, place }: { component: Component; place: number }) {
  const { id } = component.situations[place]!;
  const index = (component.document.situations ?? []).findIndex(each => each.id === id);
  const document = component.document.situations![index]!;
  const name = document.title ?? id;
  const edits = useEntryEdits(component, 'situations', index, { id, name, opens: 'situation' });
  const change = (next: Partial<SituationDocument>): string | null => edits.change({ ...document, ...next });
  return (
    <div className="opened">
      <CommitField label="title" value={document.title ?? ''} onCommit={text => change({ title: text })} />
      <CommitField label="id" mono value={id} onCommit={edits.rename} />
      <div className="commit-field">
        <span>when</span>
        <ConditionEditor
          label="when"
          axes={component.space.axes}
          condition={document.when}
          onChange={when => edits.say(change({ when }))}
        />
      </div>
      <CommitField
        label="means"
        lines={2}
        value={document.means ?? ''}
        placeholder="when it appears, and why it exists"
        onCommit={text => change({ means: text })}
      />
      <EntryActs
        component={component}
        list="situations"
        index={index}
        name={name}
        onMove={edits.move}
        onGone={edits.close}
      />
    </div>
  );
}
