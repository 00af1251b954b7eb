import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import {
  addEntry,
  changeEntry,
  moveEntry,
  removeEntry,
  renameEntry,
} from '@periwinkle/core/edits/entry-edits';
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
import { ConsideredAct } from '../making/considered-act';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What has a name: when it is so, what that means, and how many combinations it names. */
export function SituationList({ component, report }: { component: Component; report: SpaceReport | null }) {
  const [opened, open] = useOpened();
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
          const key = `situation:${situation.id}`;
          const counts = report?.situations[place];
          return (
            <li key={situation.id} className={opened === key ? 'open' : ''}>
              <div className="situation-line">
                <button
                  type="button"
                  className="act name"
                  aria-expanded={opened === key}
                  onClick={() => open(opened === key ? null : key)}
                >
                  {situation.title}
                </button>
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
              {opened === key ? <SituationEditor component={component} place={place} onOpen={open} /> : null}
            </li>
          );
        })}
      </ul>
      <AddByName words="another situation" placeholder="Being corrected" onAdd={add} />
    </section>
  );
}

function SituationEditor({
  component,
  place,
  onOpen,
}: {
  component: Component;
  place: number;
  onOpen: (what: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const { id } = component.situations[place]!;
  const index = (component.document.situations ?? []).findIndex(each => each.id === id);
  const document = component.document.situations![index]!;
  const change = (next: Partial<SituationDocument>): string | null =>
    restructure(
      changeEntry(component.id, 'situations', index, { ...document, ...next }),
      `${component.title}: ${document.title ?? id} changed`,
    );
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  const move = (by: number): void =>
    said(
      restructure(
        moveEntry(component.id, 'situations', index, index + by),
        `${component.title}: ${document.title ?? id} moved`,
      ),
    );
  return (
    <div className="opened">
      <CommitField label="title" value={document.title ?? ''} onCommit={text => change({ title: text })} />
      <CommitField
        label="id"
        mono
        value={id}
        onCommit={text => {
          const reason = restructure(
            renameEntry(component.id, 'situations', id, text),
            `${component.title}: ${id} is now ${text}`,
          );
          if (reason === null) onOpen(`situation:${text}`);
          return reason;
        }}
      />
      <div className="commit-field">
        <span>when</span>
        <ConditionEditor
          label="when"
          axes={component.space.axes}
          condition={document.when}
          onChange={when => said(change({ when }))}
        />
      </div>
      <CommitField
        label="means"
        lines={2}
        value={document.means ?? ''}
        placeholder="when it appears, and why it exists"
        onCommit={text => change({ means: text })}
      />
      <div className="acts">
        <button type="button" className="act" onClick={() => move(-1)}>
          up
        </button>
        <button type="button" className="act" onClick={() => move(1)}>
          down
        </button>
        <ConsideredAct
          words="take it out"
          title={document.title ?? id}
          edit={removeEntry(component.id, 'situations', index)}
          label={`${component.title}: ${document.title ?? id} taken out`}
          about={component.id}
          onDone={() => onOpen(null)}
        />
      </div>
    </div>
  );
}
