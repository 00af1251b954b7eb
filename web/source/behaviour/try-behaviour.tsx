import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { BEHAVIOUR_KINDS } from '@periwinkle/core/behaviour/kinds/value-kinds';
import { recorded } from '@periwinkle/core/behaviour/act-recorder';
import { situationAt } from '@periwinkle/core/behaviour/situation-at';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { attachWhole } from '@periwinkle/core/runtime/attach-whole';
import { planToShip } from '@periwinkle/core/runtime/plan-to-ship';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { useOpened } from '../data/opened-address';
import { buildField } from '../specimen/build-field';
import { PreviewSurface } from '../specimen/preview-surface';
import { useShape } from '../specimen/specimen';
import { useSpecimenSheets } from '../specimen/specimen-styles';
import { KeepWalkthrough } from './keep-walkthrough';

/** What was asked of the application, until someone stands in for it. */
interface PendingQuestion {
  readonly ask: string;
  readonly answer: (isAccepted: boolean) => void;
}

/** The field as it ships, with the script that ships: what one does is noted, and can be kept. */
export function TryBehaviour({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const host = useRef<HTMLDivElement>(null);
  const sheets = useSpecimenSheets();
  const shape = useShape(system, component);
  const [, open] = useOpened();
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [asked, setAsked] = useState<PendingQuestion | null>(null);
  const [is, setIs] = useState('');
  const [attempt, setAttempt] = useState(0);
  // A rule or a token restyles the field that is there; only what it is made of, and how it behaves, makes another.
  const plan = useMemo(() => JSON.stringify(planToShip(system, component)), [system, component]);
  const titleAt = useRef<(combination: Readonly<Record<string, string>>) => string>(() => '');
  useEffect(() => {
    titleAt.current = combination =>
      situationAt(component, component.space.indices(combination))?.title.toLowerCase() ?? 'no name';
  }, [component]);
  useLayoutEffect(() => {
    const element = host.current!;
    const root = element.shadowRoot ?? element.attachShadow({ mode: 'open', delegatesFocus: true });
    const { component: of, names, icons } = shape;
    root.adoptedStyleSheets = [sheets.sheetFor(of.id, 'shipped')];
    const combination = { ...of.space.written(of.space.indices({})), content: 'empty' };
    const tree = fieldTree({
      component: of,
      names,
      icons,
      sample: of.samples[0],
      combination,
      mode: 'shipped',
      id: 'tried',
    });
    const fresh = buildField(tree);
    root.replaceChildren(fresh);
    const data = JSON.parse(plan) as ReturnType<typeof planToShip>;
    const kind = BEHAVIOUR_KINDS[data.value.kind] ?? BEHAVIOUR_KINDS['text']!;
    const attached = attachWhole(data, fresh, {
      value: '',
      onAct: act => setNotes(before => recorded(before, act, kind.takesText)),
      onDone: () => setIs(titleAt.current(attached.combination)),
      ask: ask =>
        new Promise<boolean>(resolve => {
          const answer = (isAccepted: boolean): void => {
            setAsked(null);
            setNotes(before => [...before, `answer ${ask} ${isAccepted ? 'accepted' : 'rejected'}`]);
            resolve(isAccepted);
          };
          setAsked({ ask, answer });
        }),
    });
    setIs(titleAt.current(attached.combination));
    setNotes([]);
    setAsked(null);
    return () => attached.detach();
  }, [sheets, shape, plan, attempt]);
  return (
    <>
      <PreviewSurface system={system} contexts={contexts} className="ground tried">
        <div ref={host} className="field-host" />
      </PreviewSurface>
      <ol className="notes" aria-label="What was done">
        {notes.map((note, place) => (
          <li key={place}>
            <code>{note}</code>
          </li>
        ))}
      </ol>
      <div className="now" role="status">
        {asked ? (
          <span>
            asked the {asked.ask}:{' '}
            <button type="button" className="act" onClick={() => asked.answer(true)}>
              accept
            </button>{' '}
            <button type="button" className="act" onClick={() => asked.answer(false)}>
              refuse
            </button>
          </span>
        ) : (
          <i>{is}</i>
        )}
      </div>
      {notes.length > 0 ? (
        <>
          <KeepWalkthrough
            component={component}
            // The field began empty.
            walkthrough={() => ({ acts: ['app value=', ...notes] })}
            onKept={id => open(`walkthrough:${id}`)}
          />
          <p className="adding">
            <button type="button" className="act" onClick={() => setAttempt(attempt + 1)}>
              start again
            </button>
          </p>
        </>
      ) : null}
    </>
  );
}
