import { useEffect, useRef, type RefObject } from 'react';

/**
 * An element that catches the focus if that is nowhere, because what had it is gone, whenever something is different; not when it is drawn first. After
 * an act that took its own button away, the next Tab would otherwise begin wherever the browser thinks one was.
 */
export function useCaughtFocus<Element extends HTMLElement>(when: unknown): RefObject<Element | null> {
  const element = useRef<Element>(null);
  const before = useRef(when);
  useEffect(() => {
    if (before.current === when) return;
    before.current = when;
    if (document.activeElement === document.body) element.current?.focus({ preventScroll: true });
  }, [when]);
  return element;
}
