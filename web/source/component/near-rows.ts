import { useCallback, useLayoutEffect, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';

/** Rows of a table, from the first to before the last. */
interface RowRange {
  readonly from: number;
  readonly to: number;
}

export interface NearRows {
  readonly isNear: (row: number) => boolean;
  /** Has a row drawn at once, for the focus to go there. */
  readonly reveal: (row: number) => void;
}

/** Rows beyond what is seen are drawn in such portions. */
const PORTION = 10;

/**
 * The rows of a table that are in sight of its scroller or near it, in a table of rows of one height. All of them while
 * `all` holds.
 */
export function useNearRows(scroller: RefObject<HTMLElement | null>, all: boolean): NearRows {
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
  const reveal = useCallback((row: number): void => {
    const from = Math.max(0, Math.floor(row / PORTION) - 1) * PORTION;
    flushSync(() =>
      setRange(before => ({
        from: Math.min(before.from, from),
        to: Math.max(before.to, from + 3 * PORTION),
      })),
    );
  }, []);
  return { isNear: row => all || (row >= range.from && row < range.to), reveal };
}
