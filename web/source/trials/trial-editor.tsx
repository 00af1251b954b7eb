import { useNavigate } from 'react-router';
import { behaves } from '@periwinkle/core/behaviour/behaves';
import type { System } from '@periwinkle/core/components/system';
import { changeTrial, removeTrial } from '@periwinkle/core/edits/trial-edits';
import {
  TRIAL_DIRECTIONS,
  type TrialDirection,
  type TrialDocument,
  type TrialFieldDocument,
} from '@periwinkle/core/documents/trial-document';
import type { Trial } from '@periwinkle/core/trials/trials';
import { Choice } from '../common/choice';
import { useCarried } from '../data/address';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';
import { TrialFieldEditor } from './trial-field-editor';

const DIRECTIONS: Readonly<Record<TrialDirection, string>> = {
  ltr: 'left to right',
  rtl: 'right to left',
};

/** What the page of a trial is made of. */
export function TrialEditor({ system, trial }: { system: System; trial: Trial }) {
  const restructure = useRestructure();
  const store = useStore();
  const [opened, open] = useOpened();
  const { document } = trial;
  const change = (next: Partial<TrialDocument>, what: string): string | null =>
    restructure(
      changeTrial(trial.id, each => ({ ...each, ...next })),
      `${trial.title}: ${what}`,
    );
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  const { fields } = document;
  const add = (componentId: string): void => {
    const name = idFor(componentId, each => fields.some(field => field.name === each));
    said(change({ fields: [...fields, { component: componentId, name }] }, `${name} added`));
    open(`field:${name}`);
  };
  return (
    <section>
      <h2>
        Fields <small>in the order of the form</small>
      </h2>
      <ol className="lines">
        {fields.map((field, index) => (
          <FieldLine
            key={field.name}
            system={system}
            trial={trial}
            field={field}
            index={index}
            change={change}
          />
        ))}
      </ol>
      <p className="adding">
        <Choice
          label="another field"
          value={null}
          items={system.components.filter(behaves).map(({ id, title }) => ({ id, words: title }))}
          onChoose={add}
        >
          another field
        </Choice>
        <button
          type="button"
          className="act"
          aria-expanded={opened === 'page'}
          onClick={() => open(opened === 'page' ? null : 'page')}
        >
          the page
        </button>
      </p>
      {opened === 'page' ? <PageEditor trial={trial} change={change} said={said} /> : null}
    </section>
  );
}

type Change = (next: Partial<TrialDocument>, what: string) => string | null;

function FieldLine({
  system,
  trial,
  field,
  index,
  change,
}: {
  system: System;
  trial: Trial;
  field: TrialFieldDocument;
  index: number;
  change: Change;
}) {
  const [opened, open] = useOpened();
  const { fields } = trial.document;
  const key = `field:${field.name}`;
  const component = system.components.find(({ id }) => id === field.component);
  return (
    <li className={opened === key ? 'open' : ''}>
      <button
        type="button"
        className="act name"
        aria-expanded={opened === key}
        onClick={() => open(opened === key ? null : key)}
      >
        {field.name}
      </button>{' '}
      <span className="said">
        {component?.title ?? `no ${field.component}`}
        {field.required ? ', required' : ''}
      </span>
      {opened === key ? (
        <TrialFieldEditor
          component={component}
          field={field}
          place={index}
          of={fields.length}
          onChange={next => {
            const reason = change({ fields: fields.with(index, next) }, `${field.name} changed`);
            if (reason === null && next.name !== field.name) open(`field:${next.name}`);
            return reason;
          }}
          onMove={to =>
            change({ fields: fields.toSpliced(index, 1).toSpliced(to, 0, field) }, `${field.name} moved`)
          }
          onRemove={() => {
            open(null);
            return change({ fields: fields.toSpliced(index, 1) }, `${field.name} taken out`);
          }}
        />
      ) : null}
    </li>
  );
}

function PageEditor({
  trial,
  change,
  said,
}: {
  trial: Trial;
  change: Change;
  said: (reason: string | null) => void;
}) {
  const { id } = useStore();
  const carried = useCarried();
  const navigate = useNavigate();
  return (
    <div className="opened">
      <CommitField label="title" value={trial.title} onCommit={title => change({ title }, `now ${title}`)} />
      <CommitField
        label="about"
        value={trial.description}
        onCommit={description => change({ description }, 'other words')}
      />
      <CommitField
        label="button"
        value={trial.send}
        onCommit={send => change({ send }, `the button says ${send}`)}
      />
      <CommitField
        label="width"
        mono
        value={String(trial.width)}
        onCommit={text => change({ width: Number(text) }, `${text} px wide`)}
      />
      <CommitField
        label="language"
        mono
        value={trial.locale}
        onCommit={locale => change({ locale }, `in ${locale}`)}
      />
      <div className="commit-field">
        <span>written</span>
        <span>
          <Choice
            label="direction"
            value={trial.direction}
            items={TRIAL_DIRECTIONS.map(each => ({ id: each, words: DIRECTIONS[each], hint: each }))}
            onChoose={direction =>
              said(
                change({ direction: direction as TrialDirection }, DIRECTIONS[direction as TrialDirection]),
              )
            }
          >
            {DIRECTIONS[trial.direction]}
          </Choice>
        </span>
      </div>
      <div className="acts">
        <ConsideredAct
          words="remove this trial"
          title={trial.title}
          edit={removeTrial(trial.id)}
          label={`Trial ${trial.title} removed`}
          about={trial.id}
          onDone={() => void navigate(`/${id}/trials${carried}`)}
        />
      </div>
    </div>
  );
}
