import { useRef, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';

const STEP = 24;
const LEAST = 96;
/** What is left of the window at least above what is made high. */
const ABOVE = 120;

/** A line to draw by, or to move with the arrow keys, that makes what lies below it higher or lower; px. */
export function HeightHandle({
  label,
  target,
  onHeight,
}: {
  label: string;
  target: RefObject<HTMLElement | null>;
  /** `null` gives it back the height that it has by itself. */
  onHeight: (height: number | null) => void;
}) {
  const from = useRef<{ readonly y: number; readonly height: number } | null>(null);
  const most = (): number => Math.max(LEAST, innerHeight - ABOVE);
  const set = (height: number): void => onHeight(Math.round(Math.min(most(), Math.max(LEAST, height))));
  const now = (): number => target.current?.offsetHeight ?? LEAST;
  const onKeyDown = (event: KeyboardEvent): void => {
    const heights: Readonly<Record<string, () => number>> = {
      ArrowUp: () => now() + STEP,
      ArrowDown: () => now() - STEP,
      Home: () => LEAST,
      End: most,
    };
    const height = heights[event.key];
    if (!height) return;
    event.preventDefault();
    set(height());
  };
  const onPointerDown = (event: PointerEvent<HTMLElement>): void => {
    from.current = { y: event.clientY, height: now() };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  return (
    <div
      className="height-handle"
      role="separator"
      aria-orientation="horizontal"
      aria-label={label}
      aria-valuenow={Math.round(now())}
      aria-valuemin={LEAST}
      aria-valuemax={most()}
      tabIndex={0}
      title="Draw, or press the arrow keys; a double press gives back the usual height"
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={event => {
        if (from.current) set(from.current.height + from.current.y - event.clientY);
      }}
      onPointerUp={() => (from.current = null)}
      onPointerCancel={() => (from.current = null)}
      onDoubleClick={() => onHeight(null)}
    />
  );
}
