import Modal from 'react-bootstrap/Modal';
import { useQuery } from '@tanstack/react-query';
import { api } from '../data/api';
import { useStore, useSystemState } from '../data/system-context';

const KIND = { edit: '', undo: 'taken back: ', redo: 'brought back: ' } as const;

/** What was done to the system, newest first; steps back and forth reach through all of it. */
export function HistoryDialog({ onClose }: { onClose: () => void }) {
  const store = useStore();
  const { history, storing } = useSystemState();
  const { data, error } = useQuery({
    queryKey: ['edits', store.id, history, storing],
    queryFn: () => api.edits(store.id),
  });
  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="history-title">
      <Modal.Header closeButton>
        <h2 id="history-title">What was done</h2>
      </Modal.Header>
      <Modal.Body>
        {error ? <p role="alert">{error.message}</p> : null}
        {data?.length === 0 ? (
          <p className="said">Nothing yet. Every edit you make will stand here, and can be taken back.</p>
        ) : null}
        <ul className="history-list" tabIndex={0} aria-label="Edits">
          {data?.map(edit => (
            <li key={edit.id}>
              <span>
                {KIND[edit.kind]}
                {edit.label}
              </span>
              <time dateTime={edit.at}>
                {new Date(edit.at).toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'short' })}
              </time>
            </li>
          ))}
        </ul>
      </Modal.Body>
      <Modal.Footer>
        <button
          type="button"
          className="act"
          disabled={history.undo === null}
          onClick={() => void store.step('undo')}
        >
          take back{history.undo === null ? '' : `: ${history.undo}`}
        </button>
        <button
          type="button"
          className="act"
          disabled={history.redo === null}
          onClick={() => void store.step('redo')}
        >
          bring back{history.redo === null ? '' : `: ${history.redo}`}
        </button>
      </Modal.Footer>
    </Modal>
  );
}
