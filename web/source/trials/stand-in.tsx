import { useCallback, useId, useRef, useState } from 'react';
import { Choice } from '../common/choice';

/** Somebody who answers in the application's stead. */
export interface StandingIn {
  readonly delay: number;
  readonly refused: ReadonlySet<string>;
  readonly asked: readonly string[];
  readonly ask: (ask: string) => Promise<boolean>;
  readonly setDelay: (ms: number) => void;
  readonly setRefused: (ask: string, isRefused: boolean) => void;
}

const USUAL_MS = 600;
const MOST_MS = 10_000;

/** Answers what fields ask, after a while, as one has said. */
export function useStandIn(): StandingIn {
  const [delay, setDelay] = useState(USUAL_MS);
  const [refused, setAll] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useState<readonly string[]>([]);
  const now = useRef({ delay, refused });
  now.current = { delay, refused };
  const ask = useCallback(
    (id: string) =>
      new Promise<boolean>(resolve => {
        setAsked(before => [...before, id]);
        setTimeout(() => {
          setAsked(before => before.toSpliced(before.indexOf(id), 1));
          // As it is said when the answer comes.
          resolve(!now.current.refused.has(id));
        }, now.current.delay);
      }),
    [],
  );
  const setRefused = (id: string, isRefused: boolean): void =>
    setAll(before => {
      const after = new Set(before);
      if (isRefused) after.add(id);
      else after.delete(id);
      return after;
    });
  return { delay, refused, asked, ask, setDelay, setRefused };
}

const ANSWERS = [
  { id: 'accepts', words: 'accepts' },
  { id: 'refuses', words: 'refuses' },
] as const;

/** What the application would answer, and how long it takes. */
export function StandIn({ standIn, asks }: { standIn: StandingIn; asks: readonly string[] }) {
  const { delay, refused, asked, setDelay, setRefused } = standIn;
  const id = useId();
  return (
    <section>
      <h2>
        The application{' '}
        <small role="status">{asked.length > 0 ? `asked the ${asked.join(', ')} …` : 'a stand-in'}</small>
      </h2>
      <p className="judging">
        {asks.map((each, place) => (
          <span key={each}>
            {place === 0 ? 'It ' : ', it '}
            <Choice
              label={`answer about the ${each}`}
              value={refused.has(each) ? 'refuses' : 'accepts'}
              items={ANSWERS}
              onChoose={answer => setRefused(each, answer === 'refuses')}
            >
              {refused.has(each) ? 'refuses' : 'accepts'}
            </Choice>{' '}
            the {each}
          </span>
        ))}
        , after{' '}
        <label className="unseen" htmlFor={id}>
          delay in milliseconds
        </label>
        <input
          id={id}
          className="form-control form-control-sm mono delay"
          type="number"
          min={0}
          max={MOST_MS}
          step={100}
          value={delay}
          onChange={event => setDelay(Math.min(MOST_MS, Math.max(0, event.target.valueAsNumber || 0)))}
        />{' '}
        ms.
      </p>
    </section>
  );
}
