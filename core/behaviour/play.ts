import type { Component } from '../components/component';
import type { System } from '../components/system';
import { derivedText } from '../content/derived-text';
import { sampleText } from '../content/sample-text';
import { fieldTree, type FieldNode } from '../emit/field-tree';
import { namesOf } from '../emit/names';
import type { SampleDocument, SampleText } from '../formats/component-document';
import { resolve } from '../resolution/resolve';
import type { Combination } from '../space/space';
import { readAct, RefusedAct } from './acts';
import { atRest, type FieldState } from './field-state';
import { act, type Drawn } from './machine';
import { named, planOf } from './plan-of';
import type { Plan } from './plan';
import { combinationAt } from './states';

/** What came of an act, as the command line prints it. */
export interface Played {
  readonly act: string;
  /** ms; only waiting moves it. */
  readonly at: number;
  readonly value: string;
  /** The part that has the focus. */
  readonly focus: string | null;
  readonly combination: Combination;
  /** Texts that are shown because something is wrong. */
  readonly messages: readonly string[];
  readonly announced: readonly string[];
}

export interface PlayInput {
  readonly system: System;
  readonly component: Component;
  readonly sample: SampleDocument | undefined;
  readonly set?: Readonly<Record<string, string>>;
  readonly acts: readonly string[];
}

/** An act that stopped a play. */
export class StoppedPlay extends Error {
  constructor(
    /** Counted from 0. */
    readonly place: number,
    readonly act: string,
    reason: string,
    readonly played: readonly Played[],
  ) {
    super(`Act ${place + 1}, “${act}”: ${reason}`);
  }
}

/** Plays acts one after the other, from rest. Throws `StoppedPlay`. */
export function play({ system, component, sample, set = {}, acts }: PlayInput): Played[] {
  const plan = planOf(component);
  const { axes } = component.space;
  const given = sample?.content[component.anatomy.control?.content ?? 'value'];
  let state = atRest(sampleText(given as SampleText | undefined, {}, axes) ?? '', set);
  const played: Played[] = [];
  let shown: readonly string[] = [];
  acts.forEach((text, place) => {
    try {
      const step = act(
        plan,
        state,
        named(component, readAct(text)),
        drawnAt(system, component, sample, plan, state),
      );
      state = step.state;
      const combination = component.space.written(combinationAt(plan, state));
      const messages = messagesOf(plan, component, sample, state, combination);
      // A message is read out when it comes, once.
      const announced = messages.filter(message => !shown.includes(message));
      shown = messages;
      played.push({
        act: text,
        at: state.time,
        value: state.value,
        focus: state.focus?.part ?? null,
        combination,
        messages,
        announced,
      });
    } catch (error) {
      if (!(error instanceof RefusedAct)) throw error;
      throw new StoppedPlay(place, text, error.message, played);
    }
  });
  return played;
}

/** What is drawn where a field is, and what of it lets the pointer through. */
function drawnAt(
  system: System,
  component: Component,
  sample: SampleDocument | undefined,
  plan: Plan,
  state: FieldState,
): Drawn {
  const combination = component.space.written(combinationAt(plan, state));
  const names = namesOf(system).component(component.id);
  let parts: ReadonlySet<string> | null = null;
  const drawn = (): ReadonlySet<string> =>
    (parts ??= new Set(
      partsOf(
        fieldTree({
          component,
          names,
          icons: system.icons,
          sample,
          combination,
          mode: 'shipped',
          id: 'play',
        }),
      ),
    ));
  const context = { tokens: system.tokens.usual(), rootFontSize: system.rootFontSize };
  const outcome = (part: string, property: string): string | undefined =>
    resolve(component, combination, context).parts[part]?.[property]?.value;
  const around = (part: string): string[] => {
    const own = component.anatomy.byName.get(part);
    const outer = own && component.anatomy.outer(own);
    return [part, ...(outer ? around(outer.name) : [])];
  };
  return {
    isThere: part => drawn().has(part) && around(part).every(each => outcome(each, 'present') !== 'false'),
    // It is inherited (SVG 2, 15.4; CSS Basic User Interface 4).
    letsThrough: part =>
      around(part)
        .map(each => outcome(each, 'pointer-events'))
        .find(value => value !== undefined && value !== 'inherit') === 'none',
  };
}

const partsOf = ({ part, children }: FieldNode): string[] => [
  part,
  ...children.flatMap(child => (typeof child === 'string' ? [] : partsOf(child))),
];

/** The message of what is complained of: the text of its key, else the key; without a key, what the sample's message says there. */
function messagesOf(
  plan: Plan,
  { document, space }: Component,
  sample: SampleDocument | undefined,
  { complaint, value }: FieldState,
  combination: Combination,
): string[] {
  const check = plan.checks.find(({ id }) => id === complaint);
  if (!check) return [];
  const key = check.message ?? 'message';
  const given = sampleText(sample?.content[key] as SampleText | undefined, combination, space.axes);
  if (given !== undefined) return [given];
  const declared = document.content?.find(({ id }) => id === key);
  const text =
    declared &&
    derivedText(declared, { value: () => value, entries: () => 0, sources: sample?.sources ?? {} });
  return [text ?? check.message ?? check.id];
}
