import { useEffect, useRef } from 'react';

/** A key and what it does; the list under `?` is made of these. */
export interface Shortcut {
  /** As shown: `Ctrl+Z`, `/`, `?`. */
  readonly keys: string;
  readonly words: string;
}

/** Every shortcut there is, by where it works. */
export const SHORTCUTS: readonly { readonly where: string; readonly list: readonly Shortcut[] }[] = [
  {
    where: 'Everywhere',
    list: [
      { keys: 'Ctrl+Z', words: 'take the last change back' },
      { keys: 'Ctrl+Shift+Z', words: 'bring it back again' },
      { keys: '/', words: 'find a field, a page, a token, a situation' },
      { keys: '?', words: 'this list' },
    ],
  },
  {
    where: 'On a field',
    list: [{ keys: '1 to 6', words: 'its sheets: plates, anatomy, space, content, behaviour, rules' }],
  },
  {
    where: 'On a plate',
    list: [
      { keys: 'Arrow keys', words: 'go from cell to cell; at the edge, to the headings' },
      { keys: 'Shift+Arrow keys', words: 'widen the selection' },
      { keys: 'Enter', words: 'select the cell, row or column; on a selected one, go to its ledger' },
      { keys: 'F2', words: 'write the texts of the cell, as a double press on one does; Tab to the next' },
      { keys: 'Escape', words: 'select nothing' },
    ],
  },
  {
    where: 'In the ledger',
    list: [
      { keys: 'Arrow keys', words: 'go from entry to entry; Home and End to the first and last column' },
      { keys: 'Page Up / Down', words: 'go to where a part begins' },
      { keys: 'Enter', words: 'write into the entry; again, to set what is written' },
      { keys: 'Up / Down', words: 'while writing: through the list, or a number up and down' },
      { keys: 'Ctrl+Enter', words: 'while writing a token that is missing: make it' },
      { keys: 'Delete', words: 'take the entry out' },
      { keys: 'Escape', words: 'leave it as it was; from the ledger, back to the plate' },
    ],
  },
];

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName));

/** Listens for keys on the whole page. Plain keys do not fire while someone is typing; `false` leaves a key to others. */
export function usePageKeys(handlers: Readonly<Record<string, () => unknown>>): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      const inside = event.composedPath()[0] ?? null;
      if (event.defaultPrevented || isTyping(inside)) return;
      const command = event.ctrlKey || event.metaKey ? 'Ctrl+' : '';
      const shift = event.shiftKey && command ? 'Shift+' : '';
      const handler =
        latest.current[`${command}${shift}${event.key.length === 1 ? event.key.toUpperCase() : event.key}`];
      if (!handler || event.altKey) return;
      if (handler() !== false) event.preventDefault();
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
}
