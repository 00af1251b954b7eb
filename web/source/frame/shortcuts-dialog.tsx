import Modal from 'react-bootstrap/Modal';
import { SHORTCUTS } from '../common/shortcuts';

export function ShortcutsDialog({ onClose }: { onClose: () => void }) {
  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="shortcuts-title">
      <Modal.Header closeButton>
        <h2 id="shortcuts-title">Keys</h2>
      </Modal.Header>
      <Modal.Body>
        {SHORTCUTS.map(({ where, list }) => (
          <table key={where} className="shortcuts">
            <caption className="said" style={{ captionSide: 'top' }}>
              {where}
            </caption>
            <tbody>
              {list.map(({ keys, words }) => (
                <tr key={keys}>
                  <td>
                    <kbd>{keys}</kbd>
                  </td>
                  <td>{words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </Modal.Body>
    </Modal>
  );
}
