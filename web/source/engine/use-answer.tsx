import { createContext, use, useEffect, useId, useRef, useState, type ReactNode } from 'react';
import type { Documents } from '@periwinkle/core/documents/document-kinds';
import type { Progress } from '@periwinkle/core/cascade/questions/rules-report';
import { EngineClient } from './engine-client';
import type { QuestionName, Questions } from './questions';

const ClientContext = createContext<EngineClient | null>(null);

/** One engine for all screens of a system. */
export function EngineProvider({ children }: { children: ReactNode }) {
  const [client, setClient] = useState<EngineClient | null>(null);
  useEffect(() => {
    const own = new EngineClient();
    setClient(own);
    return () => own.close();
  }, []);
  return <ClientContext value={client}>{children}</ClientContext>;
}

export interface Answer<Value> {
  /** The last answer there was to this question, perhaps for an older state of the documents. */
  readonly value: Value | undefined;
  /** Whether `value` is for the documents as they are. */
  readonly upToDate: boolean;
  /** How far the next answer has come, once it has taken long. */
  readonly progress: Progress | null;
  readonly failed: Error | null;
  /** Whether looking for the answer has been stopped by hand. It is looked for again after the next edit, or with `again`. */
  readonly stopped: boolean;
  readonly stop: () => void;
  readonly again: () => void;
}

/** The question that is none. */
const NOTHING = JSON.stringify(null);

/** Progress that is shown only when it takes longer than this. */
const PATIENCE_MS = 500;

interface Found<Value> {
  readonly value: Value;
  readonly question: string;
  readonly documents: Documents;
}

/**
 * Asks anew whenever the documents or the question change; older questions are dropped. `null` asks nothing. What is not looked at
 * while one types may wait until the hand rests: `rest` ms after the last change.
 */
export function useAnswer<Name extends QuestionName>(
  name: Name,
  asks: Questions[Name]['asks'] | null,
  documents: Documents,
  rest = 0,
): Answer<Questions[Name]['answers']> {
  const client = use(ClientContext);
  const asker = useId();
  const question = JSON.stringify(asks);
  const [found, setFound] = useState<Found<Questions[Name]['answers']> | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [failed, setFailed] = useState<Error | null>(null);
  const [stopped, setStopped] = useState(false);
  const [attempt, setAttempt] = useState(0);
  /** The same as `stopped`, at once: what the worker has told before it hears of the stop is still on its way. */
  const halted = useRef(false);
  const answered = useRef(false);
  useEffect(() => {
    if (!client || question === NOTHING) return;
    let current = true;
    halted.current = false;
    setStopped(false);
    setFailed(null);
    const since = performance.now();
    const ask = (): Promise<void> =>
      client
        .ask(name, JSON.parse(question) as Questions[Name]['asks'], documents, asker, next => {
          if (current && !halted.current && performance.now() - since > PATIENCE_MS) setProgress(next);
        })
        .then(result => {
          if (!current) return;
          setProgress(null);
          if (!result) return;
          answered.current = true;
          setFound({ value: result.answer, question, documents });
        })
        .catch((error: Error) => {
          if (current) setFailed(error);
        });
    // The first answer is waited for.
    const resting = rest > 0 && answered.current ? setTimeout(() => void ask(), rest) : void ask();
    return () => {
      current = false;
      clearTimeout(resting as ReturnType<typeof setTimeout> | undefined);
      // Whoever asks again or goes away no longer waits for this one.
      client.stop(asker);
    };
  }, [client, name, question, documents, asker, attempt, rest]);
  const fitting = found?.question === question ? found : null;
  const upToDate = fitting?.documents === documents;
  return {
    value: fitting?.value,
    upToDate,
    progress,
    failed,
    // It may have been found in the moment of stopping.
    stopped: stopped && !upToDate,
    stop: () => {
      halted.current = true;
      setProgress(null);
      setStopped(true);
      client?.stop(asker);
    },
    again: () => setAttempt(attempt + 1),
  };
}
