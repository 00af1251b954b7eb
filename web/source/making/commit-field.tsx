import { useId, useRef, useState, type KeyboardEvent } from 'react';
import { MovedNote, useDraft, useKeeping } from '../common/use-draft';

/**
 * A line of text that is stored when one leaves it or presses Enter; Escape leaves it as it was. What cannot be is said below it, and so is what
 * another has put there meanwhile, over which nothing is put unasked.
 */
export function CommitField({
  label,
  value,
  onCommit,
  onType,
  mono = false,
  lines = 1,
  placeholder,
  autoFocus = false,
  quiet = false,
}: {
  label: string;
  value: string;
  /** Gives why it cannot be; `null` where it is done. */
  onCommit: (text: string) => string | null;
  /** What is typed so far; the value itself once that is left. */
  onType?: (text: string) => void;
  mono?: boolean;
  lines?: number;
  placeholder?: string;
  autoFocus?: boolean;
  /** Whether what it is stands beside it anyway: the label is for readers. */
  quiet?: boolean;
}) {
  const draft = useDraft(value);
  const { text } = draft;
  const [fault, setFault] = useState<string | null>(null);
  const id = useId();
  /** What was given up or handed on already, so that leaving does not do it again. */
  const done = useRef<string | null>(null);
  const type = (next: string): void => {
    draft.write(next);
    done.current = null;
    setFault(null);
    onType?.(next);
  };
  /** Gives why it cannot be; `null` where it is done. */
  const put = (): string | null => {
    const reason = onCommit(text);
    if (reason === null) done.current = text;
    return reason;
  };
  useKeeping(label, draft, () => done.current === text, put);
  const commit = (): void => {
    if (draft.isOpen && done.current !== text) setFault(put());
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key === 'Enter' && (lines === 1 || event.ctrlKey)) {
      event.preventDefault();
      if (draft.mayPut()) commit();
    }
    if (event.key !== 'Escape' || !draft.isOpen) return;
    event.stopPropagation();
    type(value);
    draft.giveUp();
    done.current = text;
  };
  const common = {
    id,
    className: `form-control form-control-sm${mono ? ' mono' : ''}`,
    value: text,
    placeholder,
    autoFocus,
    spellCheck: !mono,
    'aria-invalid': fault !== null,
    'aria-describedby': fault !== null ? `${id}-fault` : draft.moved !== null ? `${id}-moved` : undefined,
    onBlur: () => draft.moved === null && commit(),
    onKeyDown,
  };
  return (
    <div className={quiet ? 'commit-field quiet' : 'commit-field'}>
      <label htmlFor={id} className={quiet ? 'unseen' : undefined}>
        {label}
      </label>
      <div>
        {lines > 1 ? (
          <textarea {...common} rows={lines} onChange={event => type(event.target.value)} />
        ) : (
          <input {...common} onChange={event => type(event.target.value)} />
        )}
        <MovedNote draft={draft} id={`${id}-moved`} />
        {fault === null ? null : (
          <p className="fault" id={`${id}-fault`} role="alert">
            {fault}
          </p>
        )}
      </div>
    </div>
  );
}
