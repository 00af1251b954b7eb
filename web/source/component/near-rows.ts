import { useLayoutEffect, useState, type RefObject } from 'react';

/** Rows of a table, from the first to before the last. */
export interface RowRange {
  readonly from: number;
  readonly to: number;
}

/** Rows beyond what is seen are drawn in such portions. */
const PORTION = 10;

/**
 * The rows of a table that are in sight of its scroller or near it, in a table of rows of one height. All of them while
 * `all` holds.
 */
export function useNearRows(scroller: RefObject<HTMLElement | null>, all: boolean): RowRange {
  const [range, setRange] = useState<RowRange>({ from: 0, to: 3 * PORTION });
  useLayoutEffect(() => {
    const element = scroller.current;
    if (all || !element) return;
    const look = (): void => {
      const height = element.querySelector<HTMLElement>('tbody tr')?.offsetHeight;
      if (!height) return;
      const first = Math.floor(element.scrollTop / height / PORTION) - 1;
      const last = Math.ceil((element.scrollTop + element.clientHeight) / height / PORTION) + 1;
      const next = { from: Math.max(0, first) * PORTION, to: last * PORTION };
      setRange(before => (before.from === next.from && before.to === next.to ? before : next));
    };
    look();
    element.addEventListener('scroll', look, { passive: true });
    const resized = new ResizeObserver(look);
    resized.observe(element);
    return () => {
      element.removeEventListener('scroll', look);
      resized.disconnect();
    };
  }, [scroller, all]);
  return all ? { from: 0, to: Infinity } : range;
}
