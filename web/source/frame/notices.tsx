import type { Notice } from '../data/system-store';

/** What was done or went wrong, in the corner; errors stay until they are put away. */
export function Notices({
  notices,
  onPutAway,
}: {
  notices: readonly Notice[];
  onPutAway: (id: number) => void;
}) {
  return (
    <div className="notices" aria-live="polite">
      {notices.map(notice => (
        <p key={notice.id} className={notice.tone} role={notice.tone === 'error' ? 'alert' : undefined}>
          {notice.text}
          <button type="button" onClick={() => onPutAway(notice.id)}>
            put away
          </button>
        </p>
      ))}
    </div>
  );
}
