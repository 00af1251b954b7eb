import Modal from 'react-bootstrap/Modal';
import { placeWords } from '@periwinkle/core/documents/edit-words';
import { pointerSteps } from '@periwinkle/core/json/json';
import { useStore, useSystemPart } from '../data/system-context';
import type { Meeting } from '../synchronisation/working-copy';
import { EditContent } from './edit-content';

/** Two edits of the same place: both are shown, and a person decides. */
export function MeetingDialog({ meeting }: { meeting: Meeting }) {
  const store = useStore();
  const { documents } = useSystemPart('edited');
  const { mine, theirs, parts, path, place } = meeting;
  const words = placeWords(documents.get(path), pointerSteps(place) ?? []);
  return (
    <Modal show backdrop="static" keyboard={false} animation={false} aria-labelledby="meeting-title">
      <Modal.Header>
        <h2 id="meeting-title">Changed here and elsewhere</h2>
      </Modal.Header>
      <Modal.Body>
        <p>
          {place === '' ? 'The same document' : `The same place, ${words},`} was changed in another window
          while you changed it.{' '}
          {parts ? 'Which one stands?' : 'What you changed is gone there; yours can be put aside.'}
        </p>
        <div className="both">
          <div>
            <b>Yours</b>: {mine.label}
            <EditContent parts={parts ?? mine.parts} />
          </div>
          <div>
            <b>Elsewhere</b>: {theirs.label}
            <EditContent parts={[{ path: theirs.path, patch: theirs.patch }]} />
          </div>
        </div>
      </Modal.Body>
      <Modal.Footer>
        <button
          type="button"
          className="btn btn-outline-primary"
          onClick={() => store.decide(meeting, 'theirs')}
        >
          Keep what is there
        </button>
        <button
          type="button"
          className={parts ? 'btn btn-outline-primary' : 'btn btn-primary'}
          title="It is kept under “not placed”, and can be copied or placed later"
          onClick={() => store.decide(meeting, 'aside')}
        >
          Put mine aside
        </button>
        {parts ? (
          <button type="button" className="btn btn-primary" onClick={() => store.decide(meeting, 'mine')}>
            Put mine in its place
          </button>
        ) : null}
      </Modal.Footer>
    </Modal>
  );
}
