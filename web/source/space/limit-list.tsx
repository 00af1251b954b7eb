import type { Component } from '@periwinkle/core/components/component';
import { addEntry, changeEntry, removeEntry } from '@periwinkle/core/edits/entry-edits';
import type { LimitDocument } from '@periwinkle/core/documents/component-document';
import type { SpaceReport } from '@periwinkle/core/cascade/questions/space-report';
import { conditionWords, maskWords } from '@periwinkle/core/space/condition';
import type { Limit } from '@periwinkle/core/space/limit';
import { countText } from '../common/numbers';
import { useOpened } from '../data/opened-address';
import { CommitField } from '../making/commit-field';
import { ConditionEditor } from '../making/condition-editor';
import { OpeningLine, OpeningWord } from '../making/opening-line';
import { ConsideredAct } from '../making/considered-act';
import { useRestructure } from '../making/use-restructure';
import { useStore } from '../data/system-context';

/** What can never be, as sentences. */
export function LimitList({ component, report }: { component: Component; report: SpaceReport | null }) {
  const [, open] = useOpened();
  const restructure = useRestructure();
  const store = useStore();
  const { limits, axes } = component.space;
  const add = (): void => {
    const [first, second] = axes;
    if (!first || !second)
      return store.say('plain', 'A limit ties two ways to differ; there are not two yet.');
    const limit: LimitDocument = {
      while: { [second.id]: second.values.at(-1)!.id },
      holds: { [first.id]: [first.values[first.rest]!.id] },
      because: '',
    };
    const count = component.document.limits?.length ?? 0;
    const reason = restructure(addEntry(component.id, 'limits', limit), `${component.title}: another limit`);
    if (reason === null) open(`limit:${count}`);
    else store.say('error', reason);
  };
  return (
    <section>
      <h2>
        Limits <small>what can never be; in whatever order they are taken</small>
      </h2>
      <ul className="lines">
        {limits.map((limit, place) => {
          const of = `limit:${limit.index}`;
          const out = report?.ruledOut[place];
          return (
            <OpeningLine
              key={limit.index}
              of={of}
              editor={<LimitEditor component={component} limit={limit} onClose={() => open(null)} />}
            >
              <div className="limit-line">
                <span>
                  While{' '}
                  <OpeningWord of={of} className="word">
                    {conditionWords(limit.region, axes)}
                  </OpeningWord>
                  : <b>{heldWords(component, limit)}</b>.{' '}
                  {limit.because ? <i className="said">{limit.because}</i> : null}
                </span>
                <span className="number" title="combinations that it rules out alone">
                  {out === undefined ? '…' : countText(out)}
                </span>
              </div>
            </OpeningLine>
          );
        })}
      </ul>
      <p className="adding">
        <button type="button" className="act" onClick={add}>
          another limit
        </button>
      </p>
    </section>
  );
}

const heldWords = ({ space }: Component, { holds }: Limit): string =>
  holds.map(({ axis, allowed }) => maskWords(space.axes[axis]!, allowed)).join(', ');

function LimitEditor({
  component,
  limit,
  onClose,
}: {
  component: Component;
  limit: Limit;
  onClose: () => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const document = component.document.limits?.[limit.index];
  if (!document) return null;
  const change = (next: LimitDocument): string | null =>
    restructure(changeEntry(component.id, 'limits', limit.index, next), `${component.title}: limit changed`);
  const said = (next: LimitDocument): void => {
    const reason = change(next);
    if (reason !== null) store.say('error', reason);
  };
  return (
    <div className="opened">
      <div className="commit-field">
        <span>while</span>
        <ConditionEditor
          label="while"
          axes={component.space.axes}
          condition={document.while}
          onChange={condition => said({ ...document, while: condition })}
        />
      </div>
      <div className="commit-field">
        <span>it is</span>
        <ConditionEditor
          label="it is"
          axes={component.space.axes}
          condition={document.holds}
          isExact
          onChange={condition => said({ ...document, holds: condition })}
        />
      </div>
      <CommitField
        label="because"
        value={document.because ?? ''}
        placeholder="why that can never be"
        onCommit={text => change({ ...document, because: text })}
      />
      <div className="acts">
        <ConsideredAct
          words="take it out"
          title="this limit"
          edit={removeEntry(component.id, 'limits', limit.index)}
          label={`${component.title}: limit taken out`}
          about={component.id}
          onDone={onClose}
        />
      </div>
    </div>
  );
}
