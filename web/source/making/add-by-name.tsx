import { useState, type ReactNode } from 'react';
import { CommitField } from './commit-field';

/** Words that open a line for the name of something new: `another sample`. */
export function AddByName({
  words,
  placeholder,
  mono = false,
  onAdd,
  children,
}: {
  words: string;
  placeholder: string;
  mono?: boolean;
  /** Gives why it cannot be; `null` where it is added. */
  onAdd: (name: string) => string | null;
  /** What else can be added, beside the words. */
  children?: ReactNode;
}) {
  const [isNaming, setNaming] = useState(false);
  if (!isNaming)
    return (
      <p className="adding">
        <button type="button" className="act" onClick={() => setNaming(true)}>
          {words}
        </button>
        {children}
      </p>
    );
  return (
    <div className="adding">
      <CommitField
        label={words}
        mono={mono}
        value=""
        placeholder={placeholder}
        autoFocus
        onCommit={text => {
          const name = text.trim();
          const reason = name === '' ? null : onAdd(name);
          if (reason === null) setNaming(false);
          return reason;
        }}
      />
      <button type="button" className="act" onClick={() => setNaming(false)}>
        leave it
      </button>
    </div>
  );
}
