import { Dialog } from '../common/dialog';
import { SHORTCUTS } from '../common/shortcuts';

export function ShortcutsDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
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
    </Dialog>
  );
}
