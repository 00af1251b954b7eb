import { useMemo } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { addTrial } from '@periwinkle/core/edits/trial-edits';
import { trialsOf, type Trial } from '@periwinkle/core/trials/trials';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { AddByName } from '../making/add-by-name';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';
import { TrialDesk } from './trial-desk';

/** Fields together in a real form, on a page of their own. */
export function TrialsScreen() {
  const { trialId } = useParams();
  const { id } = useStore();
  const carried = useCarried();
  const system = useSystemPart('edited');
  const contexts = useContexts(system.tokens);
  const trials = useMemo(() => trialsOf(system), [system]);
  const trial = trials.find(each => each.id === trialId);
  const [first] = trials;
  if (trialId === undefined && first) return <Navigate to={`/${id}/trials/${first.id}${carried}`} replace />;
  return (
    <>
      <div className="head">
        <h1>{trial?.title ?? 'Trials'}</h1>
        <span className="said crumb">
          {trial ? trial.description : 'fields together in a real form, on a page of their own'}
        </span>
        <TrialNames trials={trials} chosen={trial ?? null} />
      </div>
      {trial ? (
        <TrialDesk key={trial.id} system={system} trial={trial} contexts={contexts} />
      ) : trialId === undefined ? null : (
        <p className="fault" role="alert">
          There is no trial “{trialId}” here.
        </p>
      )}
    </>
  );
}

/** All trials by name, and another. */
function TrialNames({ trials, chosen }: { trials: readonly Trial[]; chosen: Trial | null }) {
  const { id } = useStore();
  const carried = useCarried();
  const navigate = useNavigate();
  const restructure = useRestructure();
  const add = (title: string): string | null => {
    const trialId = idFor(title, each => trials.some(trial => trial.id === each));
    const reason = restructure(
      addTrial({
        format: 'periwinkle-trial/1',
        id: trialId,
        title,
        width: 375,
        direction: 'ltr',
        fields: [],
      }),
      `Trial: ${title}`,
    );
    if (reason === null) void navigate(`/${id}/trials/${trialId}${carried}`);
    return reason;
  };
  return (
    <span className="beside">
      {trials.map(trial => (
        <Link
          key={trial.id}
          to={`/${id}/trials/${trial.id}${carried}`}
          aria-current={trial === chosen ? 'page' : undefined}
          className={trial === chosen ? 'active' : ''}
        >
          {trial.title}
        </Link>
      ))}
      <AddByName words="another trial" placeholder="Announce an arrival" onAdd={add} />
    </span>
  );
}
