import { useEffect, useRef, useState } from 'react';
import { openDrafts } from '../data/drafts';
import { useStore } from '../data/system-context';

/** A text as it is being written over a value that may change elsewhere meanwhile. */
export interface Draft {
  readonly text: string;
  readonly write: (text: string) => void;
  /** Whether something is written that is not the value. */
  readonly isOpen: boolean;
  /** The value by now, where it has become another since one began to write. */
  readonly moved: string | null;
  /** Whether it may be put in place of the value; the first time it is not where that has moved, and is asked about. */
  readonly mayPut: () => boolean;
  readonly isAsked: boolean;
  /** Gives the draft up, for the value as it is by now. */
  readonly giveUp: () => void;
}

export function useDraft(value: string): Draft {
  const [text, setText] = useState(value);
  const [begunOn, setBegunOn] = useState(value);
  const [isAsked, setAsked] = useState(false);
  // Where nothing is written, or the same, the value is followed.
  if (value !== begunOn && (text === begunOn || text === value)) {
    setText(value);
    setBegunOn(value);
    setAsked(false);
  }
  const moved = value !== begunOn && text !== begunOn && text !== value ? value : null;
  return {
    text,
    write: setText,
    isOpen: text !== value,
    moved,
    isAsked: moved !== null && isAsked,
    mayPut: () => {
      if (moved === null) return true;
      setAsked(!isAsked);
      return isAsked;
    },
    giveUp: () => {
      setText(value);
      setBegunOn(value);
      setAsked(false);
    },
  };
}

/** Says that the value has changed under a draft, and shows it. */
export function MovedNote({ draft, id }: { draft: Draft; id?: string }) {
  if (draft.moved === null) return null;
  return (
    <p className="fault moved" id={id} role="alert">
      {draft.moved === '' ? 'Taken out meanwhile.' : <>Changed meanwhile to “{draft.moved}”.</>}{' '}
      <button type="button" onMouseDown={event => event.preventDefault()} onClick={draft.giveUp}>
        take that
      </button>{' '}
      {draft.isAsked ? <b>Enter once more puts yours in its place.</b> : null}
    </p>
  );
}

/** Whether a field goes away, or the page is about to. */
export type Leaving = 'field' | 'page';

/**
 * Keeps a draft in every way of leaving. `put` puts it in and gives why it cannot be, or `null`; where it cannot, or its place has moved, that is
 * said when the field goes, and asked about when the page does. `isOver` says that it has been dealt with. What is given does the same where a
 * field is left by hand, and tells whether nothing is left that is not kept.
 */
export function useKeeping(
  label: string,
  draft: Draft,
  isOver: () => boolean,
  put: () => string | null,
): (leaving: Leaving) => boolean {
  const store = useStore();
  const keep = (leaving: Leaving): boolean => {
    if (!draft.isOpen || isOver()) return true;
    const reason = draft.moved === null ? put() : `it was changed meanwhile to “${draft.moved}”.`;
    if (reason !== null && leaving === 'field')
      store.say('error', `${label}: “${draft.text}” was not put in: ${reason}`);
    return reason === null;
  };
  const latest = useRef(keep);
  latest.current = keep;
  useEffect(() => {
    const draftHere = (): boolean => latest.current('page');
    openDrafts.add(draftHere);
    return () => {
      openDrafts.delete(draftHere);
      // What it makes is drawn after what is being taken away.
      queueMicrotask(() => latest.current('field'));
    };
  }, []);
  return keep;
}
