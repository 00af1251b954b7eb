import type { SystemSummary } from '@periwinkle/protocol/wire';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Mark } from '../common/mark';
import { api } from '../data/api';
import { ApiError } from '../data/api-error';
import { ImportButton } from './import-button';
import { NewSystemDialog } from './new-system-dialog';
import { SystemEntry } from './system-entry';

/** The systems on this server. */
export function ShelfScreen() {
  const client = useQueryClient();
  const systems = useQuery({ queryKey: ['systems'], queryFn: api.systems, refetchOnMount: 'always' });
  const [removed, setRemoved] = useState<SystemSummary | null>(null);
  const [copying, setCopying] = useState<SystemSummary | null>(null);
  const [creating, setCreating] = useState(false);
  const [fault, setFault] = useState<ApiError | null>(null);
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['systems'] });
  const remove = useMutation({
    mutationFn: (system: SystemSummary) => api.remove(system.id),
    onSuccess: (_, system) => {
      setRemoved(system);
      return refresh();
    },
  });
  const restore = useMutation({
    mutationFn: (system: SystemSummary) => api.restore(system.id),
    onSuccess: () => {
      setRemoved(null);
      return refresh();
    },
  });
  const error = fault ?? systems.error ?? remove.error ?? restore.error;
  return (
    <>
      <header className="band">
        <span className="mark">
          <Mark />
          Periwinkle <i>a field guide for fields</i>
        </span>
      </header>
      <main>
        <div className="head">
          <h1>Shelf</h1>
          <span className="said crumb">the design systems on this server</span>
          <span className="push">
            <ImportButton onDone={refresh} onFault={setFault} />{' '}
            <button type="button" className="btn btn-primary" onClick={() => setCreating(true)}>
              New system
            </button>
          </span>
        </div>
        {removed ? (
          <div className="strip" role="status">
            {removed.title} was taken off the shelf.
            <button type="button" className="act" onClick={() => restore.mutate(removed)}>
              Put it back
            </button>
          </div>
        ) : null}
        {error ? <Fault error={error} onPutAway={() => setFault(null)} /> : null}
        <div className="shelf">
          {systems.data?.map(system => (
            <SystemEntry
              key={system.id}
              system={system}
              onRemove={() => remove.mutate(system)}
              onCopy={() => setCopying(system)}
            />
          ))}
          {systems.data?.length === 0 ? (
            <p className="blank">
              Nothing stands here yet. Make a{' '}
              <button className="act" onClick={() => setCreating(true)}>
                new system
              </button>
              , or import a folder that you keep in version control.
            </p>
          ) : null}
        </div>
      </main>
      {creating || copying ? (
        <NewSystemDialog
          from={copying}
          onClose={() => {
            setCreating(false);
            setCopying(null);
          }}
          onDone={refresh}
        />
      ) : null}
    </>
  );
}

function Fault({ error, onPutAway }: { error: Error; onPutAway: () => void }) {
  const problems = error instanceof ApiError ? (error.body.problems ?? []) : [];
  return (
    <div className="fault" role="alert" style={{ margin: '8px 28px', maxWidth: 900 }}>
      {error.message}{' '}
      {problems.length > 0 ? (
        <ul>
          {problems.slice(0, 50).map(problem => (
            <li key={problem.file + problem.pointer + problem.message}>
              <code>
                {problem.file}
                {problem.pointer}
              </code>
              : {problem.message} {problem.suggestion ? <b>Perhaps {problem.suggestion}.</b> : null}
            </li>
          ))}
        </ul>
      ) : null}
      <button type="button" onClick={onPutAway}>
        put away
      </button>
    </div>
  );
}
