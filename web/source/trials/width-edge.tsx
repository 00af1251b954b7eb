import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { changeTrial } from '@periwinkle/core/edits/trial-edits';
import { TRIAL_WIDTHS } from '@periwinkle/core/documents/trial-document';
import type { Trial } from '@periwinkle/core/trials/trials';
import { useStore } from '../data/system-context';
import { useRestructure } from '../making/use-restructure';

const STEP = 8;
const [NARROWEST, WIDEST] = TRIAL_WIDTHS;

/** A page with an edge by which it is made wider and narrower; what it comes to is kept as it is let go. */
export function WidthEdge({
  trial,
  width,
  onWidth,
  children,
}: {
  trial: Trial;
  /** While it is being dragged. */
  width: number | null;
  onWidth: (width: number | null) => void;
  children: ReactNode;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const from = useRef<{ readonly x: number; readonly width: number } | null>(null);
  const isMirrored = getComputedStyle(document.documentElement).direction === 'rtl';
  const within = (px: number): number => Math.round(Math.min(WIDEST, Math.max(NARROWEST, px)));
  const keep = (px: number): void => {
    onWidth(null);
    if (px === trial.width) return;
    const reason = restructure(
      changeTrial(trial.id, each => ({ ...each, width: px })),
      `${trial.title}: ${px} px wide`,
    );
    if (reason !== null) store.say('error', reason);
  };
  const moved = (event: PointerEvent): number => {
    const { x, width: before } = from.current!;
    return within(before + (event.clientX - x) * (isMirrored ? -1 : 1));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP, PageDown: -10 * STEP, PageUp: 10 * STEP }[event.key];
    const to = { Home: NARROWEST, End: WIDEST }[event.key] ?? (by === undefined ? null : trial.width + by);
    if (to === null) return;
    event.preventDefault();
    keep(within(to));
  };
  const shown = width ?? trial.width;
  return (
    <div className="width-edge">
      {/* The page would take the pointer while it is dragged over it. */}
      <div className={width === null ? '' : 'dragged'}>{children}</div>
      <div
        className="edge"
        role="separator"
        tabIndex={0}
        aria-orientation="vertical"
        aria-label="Width of the page"
        aria-valuenow={shown}
        aria-valuemin={NARROWEST}
        aria-valuemax={WIDEST}
        aria-valuetext={`${shown} px`}
        title="Drag, or arrows: another width"
        onKeyDown={onKeyDown}
        onPointerDown={event => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = { x: event.clientX, width: trial.width };
          onWidth(trial.width);
        }}
        onPointerMove={event => from.current && onWidth(moved(event))}
        onPointerUp={event => {
          if (!from.current) return;
          const px = moved(event);
          from.current = null;
          keep(px);
        }}
        onPointerCancel={() => {
          from.current = null;
          onWidth(null);
        }}
      >
        <span className="mono">{shown} px</span>
      </div>
    </div>
  );
}
