import { useState } from 'react';

/** Code to read and to take along. */
export function CodeBlock({ text, label }: { text: string; label: string }) {
  return (
    <pre className="code" tabIndex={0} role="region" aria-label={label}>
      {text}
    </pre>
  );
}

export function CopyButton({ text, what }: { text: string; what: string }) {
  const [said, setSaid] = useState('');
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid('copied');
    } catch {
      setSaid('the browser did not allow it');
    }
    setTimeout(() => setSaid(''), 2000);
  };
  return (
    <button type="button" className="act" aria-label={`Copy ${what}`} onClick={() => void copy()}>
      <span role="status">{said || 'copy'}</span>
    </button>
  );
}
