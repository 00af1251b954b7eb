import Modal from 'react-bootstrap/Modal';
import type { Patch } from '@periwinkle/core/formats/patch';
import { useStore } from '../data/system-context';
import type { Meeting } from '../synchronisation/working-copy';

/** Two edits of the same place: both are shown, and a person decides. */
export function MeetingDialog({ meeting }: { meeting: Meeting }) {
  const store = useStore();
  return (
    <Modal show backdrop="static" keyboard={false} animation={false} aria-labelledby="meeting-title">
      <Modal.Header>
        <h2 id="meeting-title">Changed here and elsewhere</h2>
      </Modal.Header>
      <Modal.Body>
        <p>
          The same place, <code>{meeting.place}</code> in <code>{meeting.path}</code>, was changed in another
          window while you changed it. Nothing is lost; which one stands?
        </p>
        <div className="both">
          <div>
            <b>Yours</b>: {meeting.mine.label}
            <pre className="mono">{patchText(ofPlace(meeting))}</pre>
          </div>
          <div>
            <b>Elsewhere</b>: {meeting.theirs.label}
            <pre className="mono">{patchText(meeting.theirs.patch)}</pre>
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
        <button type="button" className="btn btn-primary" onClick={() => store.decide(meeting, 'mine')}>
          Put mine in its place
        </button>
      </Modal.Footer>
    </Modal>
  );
}

/** What ours does to the document in which the two met. */
const ofPlace = ({ mine, path }: Meeting): Patch => mine.parts.find(part => part.path === path)?.patch ?? [];

function patchText(patch: Patch): string {
  return patch
    .filter(operation => operation.op !== 'test')
    .map(operation => {
      if (operation.op === 'remove') return `taken out: ${operation.path}`;
      if ('from' in operation) return `moved: ${operation.from} to ${operation.path}`;
      return typeof operation.value === 'string' ? operation.value : JSON.stringify(operation.value, null, 1);
    })
    .join('\n');
}
