import { useEffect, useMemo, useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import { motion, type Look, type Motion } from '@periwinkle/core/layout/motion';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Choice } from '../common/choice';
import { PreviewSurface } from '../specimen/preview-surface';
import { useShape } from '../specimen/specimen';
import { TokenValue } from '../tokens/token-row';
import { MovingSpecimen } from './moving-specimen';

/** Parts of the way that stand side by side. */
const MOMENTS = [0, 0.25, 0.5, 0.75, 1] as const;

/** How slowly it goes, as people say it. */
const SPEEDS = [
  { rate: 1, words: 'as it is' },
  { rate: 0.25, words: 'a quarter' },
  { rate: 0.1, words: 'a tenth' },
] as const;

/** From one situation to another: what moves, for how long and along which curve; what snaps, what jumps. */
export function MotionPanel({
  system,
  edited,
  component,
  contexts,
}: {
  /** As shown, with what is tried out. */
  system: System;
  /** As edited: what is written in tokens is written there. */
  edited: System;
  component: Component;
  contexts: ContextInput;
}) {
  const shape = useShape(system, component);
  const { situations } = component;
  const [from, setFrom] = useState<End>({ situation: situations[0]?.id ?? '', options: {} });
  const [to, setTo] = useState<End>({ situation: (situations[1] ?? situations[0])?.id ?? '', options: {} });
  const [at, setAt] = useState(0);
  const [rate, setRate] = useState<number>(1);
  const [isReduced, setReduced] = useState(false);
  const [isPlaying, setPlaying] = useState(false);
  const looks = useMemo(() => {
    const look = ({ situation, options }: End): Look => {
      const { space, samples } = component;
      const when = { ...options, ...situations.find(each => each.id === situation)?.when };
      return {
        combination: space.written(space.settled(space.indices(when)).combination),
        sample: samples[0],
      };
    };
    return { from: look(from), to: look(to) };
  }, [component, situations, from, to]);
  const found = useMemo(
    () => motion(system, component, looks.from, looks.to, contexts),
    [system, component, looks, contexts],
  );
  const { duration } = found;
  useEffect(() => {
    if (!isPlaying) return;
    let frame = 0;
    const began = performance.now();
    const step = (now: number): void => {
      const next = Math.min((now - began) * rate, duration);
      setAt(next);
      if (next < duration) frame = requestAnimationFrame(step);
      else setPlaying(false);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, rate, duration]);
  const shared = { shape, ...looks, isReduced, version: system };
  return (
    <section className="walkthrough motion" aria-label="Motion">
      <h2>
        Motion{' '}
        <small>
          from <EndChoices label="from" component={component} end={from} onChange={setFrom} /> to{' '}
          <EndChoices label="to" component={component} end={to} onChange={setTo} />
        </small>
      </h2>
      <p className="film-acts">
        <button
          type="button"
          className="act"
          disabled={duration === 0 || isReduced}
          onClick={() => {
            setAt(0);
            setPlaying(true);
          }}
        >
          play
        </button>
        {SPEEDS.map(({ rate: each, words }) => (
          <button
            key={each}
            type="button"
            className={each === rate ? 'word' : 'word off'}
            aria-pressed={each === rate}
            onClick={() => setRate(each)}
          >
            {words}
          </button>
        ))}
        <button
          type="button"
          className={isReduced ? 'word' : 'word off'}
          aria-pressed={isReduced}
          onClick={() => setReduced(!isReduced)}
        >
          less motion
        </button>
        <label className="scrub">
          <span className="said">
            {Math.round(isReduced ? duration : at)} of {Math.round(duration)} ms
          </span>
          <input
            type="range"
            aria-label="moment"
            min={0}
            max={duration}
            step={1}
            value={at}
            disabled={duration === 0 || isReduced}
            onChange={event => {
              setPlaying(false);
              setAt(Number(event.target.value));
            }}
          />
        </label>
      </p>
      <div className="motion-plate">
        <PreviewSurface system={system} contexts={contexts} className="stage">
          <MovingSpecimen {...shared} at={at} />
        </PreviewSurface>
        <PreviewSurface system={system} contexts={contexts} className="film" label="Moments">
          <ol>
            {MOMENTS.map(part => (
              <li key={part}>
                <code>{Math.round(part * duration)} ms</code>
                <MovingSpecimen {...shared} at={part * duration} />
              </li>
            ))}
          </ol>
        </PreviewSurface>
      </div>
      <Changes edited={edited} component={component} found={found} />
    </section>
  );
}

/** Where a way begins or ends: a situation, and the options that are not as usual. */
interface End {
  readonly situation: string;
  readonly options: Readonly<Record<string, string>>;
}

function EndChoices({
  label,
  component: { situations, space },
  end,
  onChange,
}: {
  label: string;
  component: Component;
  end: End;
  onChange: (end: End) => void;
}) {
  const { situation, options } = end;
  const axes = space.axes.filter(({ kind, values }) => kind === 'option' && values.length > 1);
  return (
    <>
      <Choice
        label={label}
        value={situation}
        items={situations.map(({ id, title }) => ({ id, words: title }))}
        onChoose={id => onChange({ ...end, situation: id })}
      >
        {situations.find(({ id }) => id === situation)?.title ?? situation}
      </Choice>
      {axes.map(({ id, title, values, rest }) => {
        const value = values.find(each => each.id === options[id]) ?? values[rest]!;
        return (
          <span key={id}>
            ,{' '}
            <Choice
              label={`${label}, ${title.toLowerCase()}`}
              value={value.id}
              items={values.map(each => ({ id: each.id, words: each.words }))}
              onChoose={chosen => onChange({ ...end, options: { ...options, [id]: chosen } })}
              className={value === values[rest] ? 'off' : ''}
            >
              {value.words}
            </Choice>
          </span>
        );
      })}
    </>
  );
}

/** What differs, part by part: moving first, then what snaps, then what lies elsewhere. */
function Changes({ edited, component, found }: { edited: System; component: Component; found: Motion }) {
  const { changes, comes, goes, shifts, isJump } = found;
  const moving = changes.filter(({ timing }) => timing !== null);
  const snapping = changes.filter(({ timing }) => timing === null);
  const tokens = new Set(
    moving.flatMap(({ timing }) =>
      [timing!.durationToken, timing!.easingToken].filter(token => token !== null),
    ),
  );
  const byKey = edited.tokens.usual().byKey;
  const titleOf = (part: string): string => {
    const own = component.anatomy.byName.get(part);
    return own?.title ?? part;
  };
  return (
    <div className="motion-lists">
      <div>
        <h3>Moves</h3>
        <ul className="lines">
          {moving.map(({ part, property, timing }) => (
            <li key={`${part} ${property}`}>
              <code>
                {part} {property}
              </code>{' '}
              <span className="said">
                {timing!.duration} ms{timing!.delay ? ` after ${timing!.delay} ms` : ''}, {timing!.easing}
              </span>
            </li>
          ))}
          {moving.length === 0 ? <li className="said">nothing</li> : null}
        </ul>
        {[...tokens].map(path => {
          const token = byKey.get(path);
          return token ? (
            <div key={path} className="motion-token">
              <code>{path}</code>
              <TokenValue system={edited} token={token} context="" />
            </div>
          ) : null;
        })}
      </div>
      <div>
        <h3>Snaps</h3>
        <ul className="lines">
          {snapping.map(({ part, property, from, to }) => (
            <li key={`${part} ${property}`}>
              <code>
                {part} {property}
              </code>{' '}
              <span className="said">
                {from || 'as around it'} → {to || 'as around it'}
              </span>
            </li>
          ))}
          {comes.map(part => (
            <li key={part}>
              <b>{titleOf(part)}</b> <span className="said">comes</span>
            </li>
          ))}
          {goes.map(part => (
            <li key={part}>
              <b>{titleOf(part)}</b> <span className="said">goes</span>
            </li>
          ))}
          {snapping.length + comes.length + goes.length === 0 ? <li className="said">nothing</li> : null}
        </ul>
      </div>
      <div>
        <h3>{isJump ? 'Jumps' : 'Lies elsewhere'}</h3>
        <ul className="lines">
          {shifts.map(({ part, x, y, width, height }) => (
            <li key={part}>
              <b>{titleOf(part)}</b> <span className="said">{shiftWords({ x, y, width, height })}</span>
            </li>
          ))}
          {shifts.length === 0 ? <li className="said">nothing</li> : null}
        </ul>
      </div>
    </div>
  );
}

function shiftWords({ x, y, width, height }: Record<'x' | 'y' | 'width' | 'height', number>): string {
  const by = (amount: number, more: string, less: string): string[] =>
    amount === 0 ? [] : [`${Math.abs(amount)} px ${amount > 0 ? more : less}`];
  return [
    ...by(y, 'down', 'up'),
    ...by(x, 'on', 'back'),
    ...by(width, 'wider', 'narrower'),
    ...by(height, 'taller', 'lower'),
  ].join(', ');
}
