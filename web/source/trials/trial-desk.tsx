import { useMemo, useRef, useState } from 'react';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { logged, loggedText, type TrialLog } from '@periwinkle/core/trials/trial-log';
import type { Trial } from '@periwinkle/core/trials/trials';
import { counted } from '../common/numbers';
import { KeepLog } from './keep-log';
import { StandIn, useStandIn } from './stand-in';
import { TrialEditor } from './trial-editor';
import { TrialFrame, type SentValue, type TrialHands } from './trial-frame';
import { WidthEdge } from './width-edge';

/** A trial's page, beside what it sent, what was done, and who answers it. */
export function TrialDesk({
  system,
  trial,
  contexts,
}: {
  system: System;
  trial: Trial;
  contexts: ContextInput;
}) {
  const [attempt, setAttempt] = useState(0);
  const [log, setLog] = useState<TrialLog>([]);
  const [sent, setSent] = useState<readonly (readonly SentValue[])[]>([]);
  const [width, setWidth] = useState<number | null>(null);
  const desk = useRef<HTMLDivElement>(null);
  const standIn = useStandIn();
  const { ask } = standIn;
  const hands = useMemo(
    (): TrialHands => ({
      onAct: (field, act, value) => setLog(before => logged(before, field, act, value)),
      onTrySend: () => setLog(before => loggedText(before, null, 'send')),
      onReset: () => setLog(before => loggedText(before, null, 'reset')),
      onSent: values => setSent(before => [...before, values]),
      ask: async ({ name }, id) => {
        const isAccepted = await ask(id);
        setLog(before => loggedText(before, name, `answer ${id} ${isAccepted ? 'accepted' : 'rejected'}`));
        return isAccepted;
      },
    }),
    [ask],
  );
  const begin = (): void => {
    setAttempt(attempt + 1);
    setLog([]);
    setSent([]);
  };
  const asks = [
    ...new Set(
      trial.fields.flatMap(({ component }) =>
        (component.document.behaviour?.checks ?? []).flatMap(each => each.ask ?? []),
      ),
    ),
  ];
  const values = sent.at(-1);
  return (
    <div className="trial-desk" ref={desk}>
      <section className="trial-stage" aria-label="Page">
        <WidthEdge trial={trial} width={width} onWidth={setWidth}>
          <TrialFrame
            system={system}
            trial={trial}
            contexts={contexts}
            width={width ?? trial.width}
            attempt={attempt}
            hands={hands}
          />
        </WidthEdge>
      </section>
      <div className="trial-side">
        <section>
          <h2>
            Sent <small>{sent.length === 0 ? 'nothing yet' : counted(sent.length, 'time')}</small>
          </h2>
          {values ? (
            <dl className="sent" role="status" aria-label="What was sent">
              {values.map(([name, value], place) => (
                <div key={place}>
                  <dt>{name}</dt>
                  <dd>{value === '' ? <i className="said">empty</i> : value}</dd>
                </div>
              ))}
            </dl>
          ) : null}
          <p className="adding">
            <button
              type="button"
              className="act"
              onClick={() => desk.current!.querySelector('iframe')!.contentDocument!.forms[0]?.reset()}
            >
              reset the form
            </button>
            <button type="button" className="act" onClick={begin}>
              start again
            </button>
          </p>
        </section>
        {asks.length > 0 ? <StandIn standIn={standIn} asks={asks} /> : null}
        <section>
          <h2>
            What was done <small>{log.length === 0 ? 'nothing yet' : counted(log.length, 'act')}</small>
          </h2>
          <ol className="notes trial-log" aria-label="What was done" tabIndex={0}>
            {log.map(({ name, act }, place) => (
              <li key={place}>
                {name === null || name !== log[place - 1]?.name ? <b>{name ?? 'form'}</b> : <b />}{' '}
                <code>{act}</code>
              </li>
            ))}
          </ol>
          {log.length > 0 ? <KeepLog trial={trial} log={log} /> : null}
        </section>
        <TrialEditor system={system} trial={trial} />
      </div>
    </div>
  );
}
