import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';

/** A line of text that is stored when one leaves it or presses Enter; Escape leaves it as it was. What cannot be is said below it. */
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
  const [text, setText] = useState(value);
  const [fault, setFault] = useState<string | null>(null);
  const id = useId();
  const isLeaving = useRef(false);
  useEffect(() => setText(value), [value]);
  const type = (next: string): void => {
    setText(next);
    setFault(null);
    onType?.(next);
  };
  const commit = (): void => {
    if (isLeaving.current || text === value) return;
    setFault(onCommit(text));
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key === 'Enter' && (lines === 1 || event.ctrlKey)) {
      event.preventDefault();
      commit();
    }
    if (event.key !== 'Escape' || text === value) return;
    event.stopPropagation();
    isLeaving.current = true;
    type(value);
    queueMicrotask(() => (isLeaving.current = false));
  };
  const common = {
    id,
    className: `form-control form-control-sm${mono ? ' mono' : ''}`,
    value: text,
    placeholder,
    autoFocus,
    spellCheck: !mono,
    'aria-invalid': fault !== null,
    'aria-describedby': fault === null ? undefined : `${id}-fault`,
    onBlur: commit,
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
        {fault === null ? null : (
          <p className="fault" id={`${id}-fault`} role="alert">
            {fault}
          </p>
        )}
      </div>
    </div>
  );
}
