import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Act } from '@periwinkle/core/behaviour/acts';
import { contrast } from '@periwinkle/core/css/contrast';
import type { System } from '@periwinkle/core/components/system';
import { namesOf } from '@periwinkle/core/render/names';
import { attachWhole } from '@periwinkle/core/runtime/attach-whole';
import type { AttachedField } from '@periwinkle/core/runtime/live-field';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { TRIAL_LAYOUT, trialFields, trialStyles, type PageField } from '@periwinkle/core/trials/trial-page';
import type { Trial, TrialField } from '@periwinkle/core/trials/trials';
import { buildField } from '../specimen/build-field';
import { fontFaces } from '../specimen/fonts';
import { pageColor } from '../specimen/page-color';

/** What happens on a trial's page. */
export interface TrialHands {
  readonly onAct: (field: TrialField, act: Act, value: string) => void;
  readonly onSent: (values: readonly SentValue[]) => void;
  readonly onTrySend: () => void;
  readonly onReset: () => void;
  readonly ask: (field: TrialField, ask: string) => Promise<boolean>;
}

export type SentValue = readonly [name: string, value: string];

const BLANK = '<!doctype html><html><head><title>Trial</title></head><body></body></html>';

/** The page of a trial, in a document of its own: what ships, stylesheets, markup and scripts, and nothing of ours. */
export function TrialFrame({
  system,
  trial,
  contexts,
  width,
  attempt,
  hands,
}: {
  system: System;
  trial: Trial;
  contexts: ContextInput;
  /** CSS px. */
  width: number;
  /** Another begins anew. */
  attempt: number;
  hands: TrialHands;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [page, setPage] = useState<Document | null>(null);
  const [height, setHeight] = useState(320);
  const told = useRef(hands);
  useLayoutEffect(() => {
    told.current = hands;
  }, [hands]);
  useStyles(page, system, trial, contexts);
  const fields = useMemo(() => trialFields(system, trial), [system, trial]);
  // A rule or a token restyles the fields that are there; only what they are made of, and how they behave, makes others.
  const made = JSON.stringify([
    fields.map(({ field, tree, plan }) => [field.name, tree, plan]),
    trial.title,
    trial.send,
    trial.direction,
    trial.locale,
  ]);
  const latest = useRef({ fields, trial });
  useLayoutEffect(() => {
    latest.current = { fields, trial };
  }, [fields, trial]);
  useEffect(() => {
    if (!page) return;
    return bringToLife(page, latest.current.fields, latest.current.trial, () => told.current);
  }, [page, made, attempt]);
  useEffect(() => {
    if (!page) return;
    const seen = new ResizeObserver(() => setHeight(Math.ceil(page.body.getBoundingClientRect().height)));
    seen.observe(page.body);
    return () => seen.disconnect();
  }, [page]);
  return (
    <iframe
      ref={frame}
      className="trial-page"
      title={`${trial.title}, ${width} px wide`}
      srcDoc={BLANK}
      style={{ width, height }}
      onLoad={() => setPage(frame.current!.contentDocument)}
    />
  );
}

/** Stylesheets as they ship, the ground that the system names, and the contexts. */
function useStyles(page: Document | null, system: System, trial: Trial, contexts: ContextInput): void {
  const styles = useMemo(() => trialStyles(system, trial), [system, trial]);
  useLayoutEffect(() => {
    if (!page) return;
    const { CSSStyleSheet } = page.defaultView! as Window & typeof globalThis;
    page.adoptedStyleSheets = [fontFaces(), TRIAL_LAYOUT, ...styles].map(text => {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
      return sheet;
    });
  }, [page, styles]);
  useLayoutEffect(() => {
    if (!page) return;
    const { documentElement: root } = page;
    const names = namesOf(system);
    for (const [modifier, context] of Object.entries(contexts))
      root.setAttribute(names.context(modifier), context);
    // Where the system names them, its stylesheet paints them.
    const { surface, ink } = system.page;
    const ground = pageColor(system, contexts);
    root.style.background = surface === null ? ground : '';
    root.style.color = ink === null ? inkOn(ground) : '';
  }, [page, system, contexts]);
}

/** Black or white, whichever can be read better on a colour. */
const inkOn = (ground: string): string =>
  (contrast('#000000', ground) ?? 21) >= (contrast('#ffffff', ground) ?? 1) ? '#000000' : '#ffffff';

/** Puts a form with its fields into the page, and has their scripts follow what is done. Gives what ends it. */
function bringToLife(
  page: Document,
  fields: readonly PageField[],
  { title, send, direction, locale }: Trial,
  hands: () => TrialHands,
): () => void {
  page.documentElement.lang = locale;
  page.documentElement.dir = direction;
  page.title = title;
  const heading = page.createElement('h1');
  heading.textContent = title;
  const form = page.createElement('form');
  const button = page.createElement('button');
  button.type = 'submit';
  button.textContent = send;
  const main = page.createElement('main');
  main.append(heading, form);
  page.body.replaceChildren(main);
  // Once the application has accepted, the form is sent again by itself.
  let isAgain = false;
  const attached = fields.map(each =>
    attachOne(each, form, hands, isAccepted => {
      if (!isAccepted) isAgain = false;
    }),
  );
  form.append(button);
  // Told of it before the fields judge it, which may stop it.
  page.defaultView!.addEventListener('submit', trySend, { capture: true });
  form.addEventListener('submit', event => {
    event.preventDefault();
    const sent = [...new FormData(form, event.submitter)];
    hands().onSent(sent.map(([name, value]) => [name, String(value)]));
  });
  form.addEventListener('reset', () => hands().onReset());
  function trySend(): void {
    if (!isAgain) hands().onTrySend();
    isAgain = false;
    setTimeout(() => (isAgain = attached.some(({ state }) => state.asking !== null)));
  }
  return () => {
    page.defaultView?.removeEventListener('submit', trySend, { capture: true });
    for (const each of attached) each.detach();
  };
}

function attachOne(
  { field, tree, plan }: PageField,
  form: HTMLFormElement,
  hands: () => TrialHands,
  onAnswer: (isAccepted: boolean) => void,
): AttachedField {
  const root = form.ownerDocument.adoptNode(buildField(tree));
  form.append(root);
  const attached: AttachedField = attachWhole(plan, root, {
    value: '',
    onAct: act => hands().onAct(field, act, attached.value),
    ask: async ask => {
      const isAccepted = await hands().ask(field, ask);
      onAnswer(isAccepted);
      return isAccepted;
    },
  });
  return attached;
}
