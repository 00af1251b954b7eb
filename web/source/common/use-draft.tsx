import { useEffect, useRef, useState } from 'react';
import { openDrafts } from '../data/drafts';

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

/**
 * Keeps a draft in every way of leaving: `leave` is called where its field goes away or the page is about to, and gives whether nothing is left
 * of it that is not kept.
 */
export function useLeaving(leave: (goes: 'field' | 'page') => boolean): void {
  const latest = useRef(leave);
  latest.current = leave;
  useEffect(() => {
    const draft = (): boolean => latest.current('page');
    openDrafts.add(draft);
    return () => {
      openDrafts.delete(draft);
      // What it makes is drawn after what is being taken away.
      queueMicrotask(() => latest.current('field'));
    };
  }, []);
}
