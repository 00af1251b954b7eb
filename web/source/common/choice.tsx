import Dropdown from 'react-bootstrap/Dropdown';
import type { ReactNode } from 'react';

export interface ChoiceItem {
  readonly id: string;
  readonly words: string;
  readonly hint?: string;
}

/** A word that opens a list of other words to take its place. */
export function Choice({
  label,
  value,
  items,
  onChoose,
  children,
  className = '',
}: {
  /** What is chosen, for assistive technology. */
  label: string;
  value: string | null;
  items: readonly ChoiceItem[];
  onChoose: (id: string) => void;
  children: ReactNode;
  className?: string;
}) {
  return (
    <Dropdown as="span" onSelect={id => id !== null && onChoose(id)}>
      <Dropdown.Toggle
        as="button"
        type="button"
        className={`word ${className}`}
        bsPrefix="word-toggle"
        aria-label={`${label}: ${textOf(children)}`}
      >
        {children}
      </Dropdown.Toggle>
      <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
        {items.map(item => (
          <Dropdown.Item
            key={item.id}
            as="button"
            type="button"
            eventKey={item.id}
            active={item.id === value}
          >
            {item.words}
            {item.hint ? <span className="hint">{item.hint}</span> : null}
          </Dropdown.Item>
        ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}

const textOf = (node: ReactNode): string =>
  typeof node === 'string' || typeof node === 'number'
    ? String(node)
    : Array.isArray(node)
      ? node.map(textOf).join('')
      : '';
