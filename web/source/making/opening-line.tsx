import type { ReactNode } from 'react';
import { useOpened } from '../data/opened-address';

/** A word that opens what is edited below it, and closes it again. `of`: what lies open, as the address says it. */
export function OpeningWord({
  of,
  className = 'act name',
  disabled = false,
  children,
}: {
  of: string;
  className?: string;
  disabled?: boolean;
  children: ReactNode;
}) {
  const [opened, open] = useOpened();
  return (
    <button
      type="button"
      className={className}
      aria-expanded={opened === of}
      disabled={disabled}
      onClick={() => open(opened === of ? null : of)}
    >
      {children}
    </button>
  );
}

/** A line of a list that is edited in place, and below it, while it lies open, what edits it. */
export function OpeningLine({
  of,
  editor,
  children,
}: {
  of: string;
  editor: ReactNode;
  children: ReactNode;
}) {
  const [opened] = useOpened();
  return (
    <li className={opened === of ? 'open' : ''}>
      {children}
      {opened === of ? editor : null}
    </li>
  );
}
