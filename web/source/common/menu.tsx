import { forwardRef, type ButtonHTMLAttributes, type ReactNode } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';

/** A word that opens a menu below itself. */
export function Menu({
  label,
  words,
  className = 'word',
  onSelect,
  children,
}: {
  /** The word as readers have it. */
  label?: string | undefined;
  words: ReactNode;
  className?: string;
  /** Told of the `id` of what is chosen. */
  onSelect?: (id: string) => void;
  children: ReactNode;
}) {
  return (
    <Dropdown as="span" onSelect={id => id !== null && onSelect?.(id)}>
      <Dropdown.Toggle
        as="button"
        type="button"
        className={className}
        bsPrefix="word-toggle"
        aria-label={label}
      >
        {words}
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu" popperConfig={FIXED}>
        {children}
      </Dropdown.Menu>
    </Dropdown>
  );
}

/** Over everything, whatever cuts off what is around the word; the stylesheet says so too, since Popper measures before it says it. */
const FIXED = { strategy: 'fixed' } as const;

/** Something that can be done; or, with `isChosen`, one of several that exclude each other. */
export function MenuItem({
  id,
  isChosen,
  onClick,
  children,
}: {
  id?: string;
  isChosen?: boolean;
  onClick?: () => void;
  children: ReactNode;
}) {
  const role =
    isChosen === undefined ? { role: 'menuitem' } : { role: 'menuitemradio', 'aria-checked': isChosen };
  return (
    <Dropdown.Item
      {...role}
      as={ItemButton}
      {...(id === undefined ? {} : { eventKey: id })}
      {...(onClick ? { onClick } : {})}
      active={isChosen ?? false}
    >
      {children}
    </Dropdown.Item>
  );
}

/** React-Bootstrap says of each item whether it is selected, which only options and tabs can be (WAI-ARIA 1.2). */
const ItemButton = forwardRef<HTMLButtonElement, ButtonHTMLAttributes<HTMLButtonElement>>(function ItemButton(
  { 'aria-selected': _, ...props },
  ref,
) {
  return <button type="button" {...props} ref={ref} />;
});
