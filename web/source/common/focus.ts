import { useEffect, useRef, type RefObject } from 'react';

/**
 * Focuses an element if the focus is nowhere, because what had it is no longer there: after an act that took its own button away, the next
 * Tab would otherwise begin wherever the browser thinks one was.
 */
export function catchFocus(element: HTMLElement | null | undefined): void {
  if (document.activeElement === document.body) element?.focus({ preventScroll: true });
}

/** An element that catches a lost focus whenever something is different; not when it is drawn first. */
export function useCaughtFocus<Element extends HTMLElement>(when: unknown): RefObject<Element | null> {
  const element = useRef<Element>(null);
  const before = useRef(when);
  useEffect(() => {
    if (before.current === when) return;
    before.current = when;
    catchFocus(element.current);
  }, [when]);
  return element;
}
