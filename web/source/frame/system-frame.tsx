import type { Dialog } from './dialog';
import { useEffect, useState } from 'react';
import { Outlet, useLocation, useParams } from 'react-router';
import { useCaughtFocus } from '../common/focus';
import { usePageKeys } from '../common/shortcuts';
import { SystemProvider, useStore, useSystemPart } from '../data/system-context';
import { EngineProvider } from '../engine/use-answer';
import { SpecimenStyles } from '../specimen/specimen-styles';
import { fetchAhead } from '../fetch-ahead';
import { Band } from './band';
import { Failure } from './failure';
import { FindDialog } from './find-dialog';
import { HistoryDialog } from './history-dialog';
import { MeetingDialog } from './meeting-dialog';
import { useMissingFonts } from './use-missing-fonts';
import { Notices } from './notices';
import { ShortcutsDialog } from './shortcuts-dialog';
import { UnplacedDialog } from './unplaced-dialog';

/** Everything inside a system: the band on top, the screen, and what may lie over it. */
export function SystemFrame() {
  const { systemId = '' } = useParams();
  return (
    <SystemProvider
      key={systemId}
      id={systemId}
      pending={
        <main className="blank" aria-busy="true">
          Opening …
        </main>
      }
      failed={error => <Failure error={error} />}
    >
      <Inside />
    </SystemProvider>
  );
}

function Inside() {
  const store = useStore();
  const system = useSystemPart('system');
  const notices = useSystemPart('notices');
  const [meeting] = useSystemPart('meetings');
  const [dialog, setDialog] = useState<Dialog>(null);
  // A link of a screen that is left is no longer there to have the focus.
  const main = useCaughtFocus<HTMLElement>(useLocation().pathname);
  useEffect(() => {
    // At hand in the browser's console, and for the benchmarks, which make edits as the screens do.
    Object.assign(window, { periwinkle: store });
  }, [store]);
  useEffect(fetchAhead, []);
  useMissingFonts(system);
  usePageKeys({
    'Ctrl+Z': () => store.step('undo'),
    'Ctrl+Shift+Z': () => store.step('redo'),
    'Ctrl+Y': () => store.step('redo'),
    '/': () => setDialog('find'),
    '?': () => setDialog('shortcuts'),
  });
  const close = (): void => setDialog(null);
  return (
    <SpecimenStyles system={system}>
      <a className="skip" href="#main">
        To the page
      </a>
      <Band onOpen={setDialog} />
      <main id="main" ref={main} tabIndex={-1} style={{ outline: 'none' }}>
        <EngineProvider>
          <Outlet />
        </EngineProvider>
      </main>
      <Notices notices={notices} onPutAway={id => store.putAway(id)} />
      {dialog === 'find' ? <FindDialog system={system} onClose={close} /> : null}
      {dialog === 'history' ? <HistoryDialog onClose={close} /> : null}
      {dialog === 'unplaced' ? <UnplacedDialog onClose={close} /> : null}
      {dialog === 'shortcuts' ? <ShortcutsDialog onClose={close} /> : null}
      {meeting ? <MeetingDialog meeting={meeting} /> : null}
    </SpecimenStyles>
  );
}
