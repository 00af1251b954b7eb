import { useMemo, useState } from 'react';
import type { StructuralEdit } from '@periwinkle/core/edits/restructure';
import { useCaughtFocus } from '../common/focus';
import { TouchedList } from './touched-list';
import { useAttempt, useRestructure } from './use-restructure';

/** An act that says what it touches before it is done: pressed once it tells, and offers itself. */
export function ConsideredAct({
  words,
  title,
  edit,
  label,
  about,
  onDone,
}: {
  words: string;
  /** What it is done to, for readers. */
  title: string;
  edit: StructuralEdit;
  /** As the history names it. */
  label: string;
  about: string;
  onDone?: () => void;
}) {
  const [isConsidered, setConsidered] = useState(false);
  const act = useCaughtFocus<HTMLButtonElement>(isConsidered);
  if (!isConsidered)
    return (
      <button
        type="button"
        ref={act}
        className="act"
        aria-label={`${words}: ${title}`}
        onClick={() => setConsidered(true)}
      >
        {words}
      </button>
    );
  return (
    <Considered
      words={words}
      edit={edit}
      label={label}
      about={about}
      onDone={onDone}
      onLeave={() => setConsidered(false)}
    />
  );
}

function Considered({
  words,
  edit,
  label,
  about,
  onDone,
  onLeave,
}: {
  words: string;
  edit: StructuralEdit;
  label: string;
  about: string;
  onDone: (() => void) | undefined;
  onLeave: () => void;
}) {
  const restructure = useRestructure();
  // The act is what it was when it was asked about.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const asked = useMemo(() => edit, []);
  const tried = useAttempt(asked);
  return (
    <div className="considered" role="group" aria-label={words}>
      <TouchedList tried={tried} about={about} />
      <button
        type="button"
        className="btn btn-sm btn-primary"
        autoFocus
        disabled={!tried?.ok}
        onClick={() => {
          if (restructure(asked, label) !== null) return;
          onLeave();
          onDone?.();
        }}
      >
        {words}
      </button>{' '}
      <button type="button" className="act" onClick={onLeave}>
        leave it
      </button>
    </div>
  );
}
