import type { ReactNode } from 'react';
import { Menu, MenuItem } from './menu';

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
    <Menu
      label={`${label}: ${textOf(children)}`}
      words={children}
      className={`word ${className}`}
      onSelect={onChoose}
    >
      {items.map(item => (
        <MenuItem key={item.id} id={item.id} isChosen={item.id === value}>
          {item.words}
          {item.hint ? <span className="hint">{item.hint}</span> : null}
        </MenuItem>
      ))}
    </Menu>
  );
}

const textOf = (node: ReactNode): string =>
  typeof node === 'string' || typeof node === 'number'
    ? String(node)
    : Array.isArray(node)
      ? node.map(textOf).join('')
      : '';
