import type { Component } from '../components/component';
import type { System } from '../components/system';
import { announcedParts } from '../render/accessibility';
import { chosenIds } from '../components/content/entries';
import { sampleText } from '../components/content/sample-text';
import type { SampleDocument, SampleText } from '../documents/component-document';
import type { Combination } from '../space/space';
import { readAct, RefusedAct } from './acts';
import { entriesGiven, messageOf, seenAt, type PlayedField } from './rendered-field';
import type { FieldState } from './field-state';
import { performAct } from './user-input';
import { atRest } from './machine';
import { named, planOf } from './make-plan';
import { combinationAt } from './derived-states';

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

/** A moment of a play. */
export interface Moment {
  readonly played: Played;
  readonly state: FieldState;
}

/** A field with a sample's words, and where it begins. */
export function beginning({ system, component, sample, set = {} }: Omit<PlayInput, 'acts'>): {
  readonly field: PlayedField;
  readonly state: FieldState;
} {
  const plan = planOf(component);
  const { space, anatomy } = component;
  const given = sample?.content[anatomy.control?.content ?? 'value'];
  const start = space.written(combinationAt(plan, atRest(plan, { set })));
  const said = sampleText(given as SampleText | undefined, start, space.axes) ?? '';
  const value = plan.kind.list && said !== '' ? chosenIds(entriesGiven({ component, sample }), said) : said;
  return { field: { system, component, plan, sample }, state: atRest(plan, { value, set }) };
}

/** Plays acts one after the other, from rest, and gives every moment. Throws `StoppedPlay`. */
export function moments(input: PlayInput): Moment[] {
  const start = beginning(input);
  const { field } = start;
  let { state } = start;
  const found: Moment[] = [];
  let shown: readonly string[] = [];
  input.acts.forEach((text, place) => {
    try {
      const step = performAct(field.plan, state, named(field.component, readAct(text)), at =>
        seenAt(field, at),
      );
      state = step.state;
      const messages = messagesAt(field, state);
      // A message is read out when it comes, once; so is what was not taken.
      const announced = [
        ...messages.filter(message => !shown.includes(message)),
        ...step.effects.flatMap(effect =>
          effect.kind === 'refuse' ? [refusal(field, state, effect.text)] : [],
        ),
      ];
      shown = messages;
      const played = {
        act: text,
        at: state.time,
        value: state.value,
        focus: state.focus?.part ?? null,
        combination: field.component.space.written(combinationAt(field.plan, state)),
        messages,
        announced,
      };
      found.push({ played, state });
    } catch (error) {
      if (!(error instanceof RefusedAct)) throw error;
      throw new StoppedPlay(
        place,
        text,
        error.message,
        found.map(({ played }) => played),
      );
    }
  });
  return found;
}

/** The same, as the command line prints it. */
export const play = (input: PlayInput): Played[] => moments(input).map(({ played }) => played);

/** The message of what is complained of. */
function messagesAt(field: PlayedField, state: FieldState): string[] {
  const check = field.plan.checks.find(({ id }) => id === state.complaint);
  // Where no text comes and goes with what is said, nobody sees it.
  return check && announcedParts(field.component).size > 0 ? [messageOf(field, state, check)] : [];
}

/** What is read out when characters were not taken: what the check of the kind says, else that they were not. */
function refusal(field: PlayedField, state: FieldState, text: string): string {
  const check = field.plan.checks.find(({ kind }) => kind === 'kind');
  return check ? messageOf(field, state, check) : notTaken(text);
}

export const notTaken = (text: string): string => `“${text}” is not taken here.`;
