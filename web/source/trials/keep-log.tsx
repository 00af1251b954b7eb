import { useState } from 'react';
import { Link } from 'react-router';
import { walkthroughFrom, type TrialLog } from '@periwinkle/core/trials/trial-log';
import type { Trial } from '@periwinkle/core/trials/trials';
import { KeepWalkthrough } from '../behaviour/keep-walkthrough';
import { Choice } from '../common/choice';
import { useCarried } from '../data/address';
import { useStore } from '../data/system-context';

/** What was done to one of the fields becomes a walkthrough of it. */
export function KeepLog({ trial, log }: { trial: Trial; log: TrialLog }) {
  const { id } = useStore();
  const carried = useCarried();
  const [chosen, choose] = useState<string | null>(null);
  const [kept, setKept] = useState<{ readonly path: string; readonly title: string } | null>(null);
  const names = [...new Set(log.flatMap(({ name }) => name ?? []))];
  const acts = (name: string): number => log.filter(entry => entry.name === name).length;
  // Others are only passed by.
  const [busiest] = names.toSorted((one, other) => acts(other) - acts(one));
  const name = chosen !== null && names.includes(chosen) ? chosen : busiest;
  const field = trial.fields.find(each => each.name === name);
  if (!field) return null;
  const { component } = field;
  return (
    <>
      <p className="said keeping">
        what was done to{' '}
        <Choice
          label="field to keep"
          value={field.name}
          items={names.map(each => ({ id: each, words: each }))}
          onChoose={choose}
        >
          {field.name}
        </Choice>
      </p>
      <KeepWalkthrough
        component={component}
        walkthrough={() => walkthroughFrom(log, trial, field)}
        onKept={(walkthrough, title) =>
          setKept({ path: `${component.id}/behaviour?open=walkthrough:${walkthrough}`, title })
        }
      />
      {kept ? (
        <p className="said" role="status">
          kept: <Link to={`/${id}/${kept.path}${carried.replace('?', '&')}`}>{kept.title}</Link>
        </p>
      ) : null}
    </>
  );
}
