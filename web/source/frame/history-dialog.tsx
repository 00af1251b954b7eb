import type { ListedChange } from '@periwinkle/protocol/wire';
import { useEffect, useRef } from 'react';
import { useInfiniteQuery } from '@tanstack/react-query';
import { api, author, type ChangesPage } from '../data/api';
import { Dialog } from '../common/dialog';
import { useStore, useSystemPart } from '../data/system-context';

const PAGE = 50;
/** Pages that are kept; whoever goes on leaves those behind that are farthest. */
const MOST_PAGES = 4;

/** What anybody has done to the system, newest first, in pages both ways; any single change can be taken back. */
export function HistoryDialog({ onClose }: { onClose: () => void }) {
  const store = useStore();
  const history = useSystemPart('history');
  const edited = useSystemPart('edited');
  const list = useInfiniteQuery({
    queryKey: ['changes', store.id],
    queryFn: ({ pageParam }) => api.changes(store.id, pageParam, PAGE),
    initialPageParam: null as ChangesPage,
    getNextPageParam: (page): ChangesPage | undefined =>
      page.length === PAGE ? { before: page.at(-1)!.made } : undefined,
    getPreviousPageParam: (page, _, parameter): ChangesPage | undefined =>
      parameter === null || page.length === 0 ? undefined : { after: page[0]!.made },
    maxPages: MOST_PAGES,
    gcTime: 0,
  });
  const { refetch } = list;
  // Whatever has been done since, here or elsewhere, stands in it too.
  const isOpening = useRef(true);
  useEffect(() => {
    if (!isOpening.current) void refetch();
    isOpening.current = false;
  }, [history, edited.documents, refetch]);
  const changes = list.data?.pages.flat() ?? [];
  return (
    <Dialog
      title="What was done"
      isWide
      isScrolled
      onClose={onClose}
      footer={
        <>
          <span className="said push-right">
            Undo and redo concern what you did, wherever others have edited since.
          </span>
          <Step direction="undo" words="undo" />
          <Step direction="redo" words="redo" />
        </>
      }
    >
      {list.error ? <p role="alert">{list.error.message}</p> : null}
      {list.data && changes.length === 0 ? (
        <p className="said">Nothing yet. Every edit you make will stand here, and can be taken back.</p>
      ) : null}
      {list.hasPreviousPage ? (
        <button type="button" className="act" onClick={() => void list.fetchPreviousPage()}>
          newer
        </button>
      ) : null}
      <ul className="history-list">
        {changes.map(change => (
          <Entry key={change.change} change={change} />
        ))}
      </ul>
      {list.hasNextPage ? (
        <button type="button" className="act" onClick={() => void list.fetchNextPage()}>
          older
        </button>
      ) : null}
    </Dialog>
  );
}

function Entry({ change }: { change: ListedChange }) {
  const store = useStore();
  const isDone = change.state === 'done';
  const words = isDone ? 'take back' : 'bring back';
  return (
    <li className={isDone ? '' : 'gone'}>
      <span className="what">{change.label}</span>
      <span className="who">{change.author === author() ? 'you' : 'someone else'}</span>
      <time dateTime={change.at}>
        {new Date(change.at).toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'short' })}
      </time>
      <button
        type="button"
        className="act"
        aria-label={`${words}: ${change.label}`}
        onClick={() => store.stepTo(isDone ? 'undo' : 'redo', change)}
      >
        {words}
      </button>
    </li>
  );
}

function Step({ direction, words }: { direction: 'undo' | 'redo'; words: string }) {
  const store = useStore();
  const next = useSystemPart('history')[direction];
  return (
    <button
      type="button"
      className="act"
      disabled={next === null}
      title={next?.label}
      onClick={() => store.step(direction)}
    >
      {words}
    </button>
  );
}
