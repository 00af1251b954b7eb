import { useEffect, useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { counted } from '../common/numbers';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, useShape } from '../specimen/specimen';
import type { DrawnMoment, Play } from './use-moments';

/** ms that one act stands while a strip is played. */
const PACE = 900;

/** Acts side by side, each with the field as it leaves it; played, and stepped through. */
export function Strip({
  system,
  component,
  contexts,
  title,
  play: { moments, stopped },
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
  /** What is played, for readers. */
  title: string;
  play: Play;
}) {
  const shape = useShape(system, component);
  const [at, setAt] = useState<number | null>(null);
  const [pace, setPace] = useState<number | null>(null);
  const last = moments.length - 1;
  useEffect(() => {
    if (pace === null) return;
    const timer = setInterval(
      () =>
        setAt(before => {
          const next = (before ?? -1) + 1;
          if (next >= last) setPace(null);
          return Math.min(next, last);
        }),
      pace,
    );
    return () => clearInterval(timer);
  }, [pace, last]);
  const start = (ms: number): void => {
    setAt(at === null || at >= last ? 0 : at);
    setPace(ms);
  };
  const step = (by: number): void => {
    setPace(null);
    setAt(Math.min(Math.max((at ?? -1) + by, 0), last));
  };
  return (
    <>
      <p className="film-acts">
        {pace === null ? (
          <>
            <button type="button" className="act" onClick={() => start(PACE)}>
              play
            </button>
            <button type="button" className="act" onClick={() => start(4 * PACE)}>
              slower
            </button>
          </>
        ) : (
          <button type="button" className="act" onClick={() => setPace(null)}>
            stop
          </button>
        )}
        <button type="button" className="act" onClick={() => step(-1)}>
          step back
        </button>
        <button type="button" className="act" onClick={() => step(1)}>
          step
        </button>
        <span className="said" role="status">
          {at === null || !moments[at] ? counted(moments.length, 'act') : `${at + 1} of ${moments.length}`}
        </span>
      </p>
      <PreviewSurface system={system} contexts={contexts} className="film" label={`Acts: ${title}`}>
        <ol>
          {moments.map((moment, place) => (
            <li
              key={place}
              className={place === at ? 'now' : ''}
              aria-current={place === at ? 'step' : undefined}
            >
              <Told moment={moment} before={moments[place - 1]}>
                <Specimen
                  shape={shape}
                  combination={moment.combination}
                  sample={moment.sample}
                  written={moment.written}
                  locale={moment.locale}
                />
              </Told>
            </li>
          ))}
        </ol>
      </PreviewSurface>
      {stopped === null ? null : (
        <p className="fault" role="alert">
          {stopped}
        </p>
      )}
    </>
  );
}

/** What was done, the field, and what that was: a situation, something read out, an answer that is awaited. */
function Told({
  moment: { played, situation },
  before,
  children,
}: {
  moment: DrawnMoment;
  before: DrawnMoment | undefined;
  children: React.ReactNode;
}) {
  const is = situation !== null && situation === before?.situation ? 'as before' : (situation ?? 'no name');
  return (
    <>
      <code>{played.act}</code>
      {children}
      <i>
        {is}
        {played.announced.length > 0 ? ', read out' : ''}
      </i>
    </>
  );
}
