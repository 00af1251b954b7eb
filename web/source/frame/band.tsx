import { Link, NavLink, useLocation, useParams } from 'react-router';
import { behaves } from '@periwinkle/core/behaviour/behaves';
import { Mark } from '../common/mark';
import { useCarried } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { ContextPicker } from './context-picker';
import { StoringState } from './storing-state';
import type { Dialog } from './dialog';

/** The slim band on top: whose system, the parts of the book, contexts, find, history, whether all is stored. */
export function Band({ onOpen }: { onOpen: (dialog: Dialog) => void }) {
  const { systemId = '' } = useParams();
  const { pathname } = useLocation();
  const carried = useCarried();
  const store = useStore();
  const edited = useSystemPart('edited');
  const history = useSystemPart('history');
  const unplaced = useSystemPart('unplaced');
  const base = `/${systemId}`;
  const parts = pathname.slice(base.length).split('/').filter(Boolean);
  const inFields = parts.length === 0 || !['tokens', 'trials', 'guide', 'outputs'].includes(parts[0]!);
  return (
    <header className="band">
      <Link className="mark" to="/" title="To the shelf">
        <Mark />
        {edited.title} <i>{edited.subtitle}</i>
      </Link>
      <nav className="book" aria-label="Parts of the book">
        <Link
          to={`${base}${carried}`}
          className={inFields ? 'active' : ''}
          aria-current={inFields ? 'page' : undefined}
        >
          Fields
        </Link>
        <NavLink to={`${base}/tokens${carried}`}>Tokens</NavLink>
        {edited.components.some(behaves) ? <NavLink to={`${base}/trials${carried}`}>Trials</NavLink> : null}
        <NavLink to={`${base}/guide${carried}`}>Guide</NavLink>
        <NavLink to={`${base}/outputs${carried}`}>Outputs</NavLink>
      </nav>
      <div className="aside">
        <ContextPicker tokens={edited.tokens} />
        <span>
          <button
            type="button"
            className="act"
            disabled={history.undo === null}
            title={
              history.undo === null ? 'Nothing to take back' : `Take back: ${history.undo.label} (Ctrl+Z)`
            }
            onClick={() => store.step('undo')}
          >
            undo
          </button>{' '}
          <button
            type="button"
            className="act"
            disabled={history.redo === null}
            title={
              history.redo === null
                ? 'Nothing to bring back'
                : `Bring back: ${history.redo.label} (Ctrl+Shift+Z)`
            }
            onClick={() => store.step('redo')}
          >
            redo
          </button>
        </span>
        <button type="button" className="act" onClick={() => onOpen('history')}>
          history
        </button>
        <button type="button" className="act" onClick={() => onOpen('find')}>
          find <kbd>/</kbd>
        </button>
        {unplaced.length > 0 ? (
          <button
            type="button"
            className="act fails"
            title="What could not be stored is kept here: look at it, copy it, place it after all"
            onClick={() => onOpen('unplaced')}
          >
            {unplaced.length} not placed
          </button>
        ) : null}
        <StoringState />
      </div>
    </header>
  );
}
