import { behaves } from '../behaviour/behaves';
import type { Component } from '../components/component';
import { componentNamed, type System } from '../components/system';
import { documentsOf } from '../documents/document-kinds';
import type { SampleDocument } from '../documents/component-document';
import type { TrialDocument, TrialFieldDocument, TrialDirection } from '../documents/trial-document';
import { sampleNamed } from '../cascade/plates/plate-grid';
import type { Combination } from '../space/space';

/** Fields in a form: what a trial's document says, with what it leaves open filled in. */
export interface Trial {
  /** Path of its document. */
  readonly file: string;
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly width: number;
  readonly direction: TrialDirection;
  readonly locale: string;
  readonly send: string;
  /** Those that can be shown, in the order of the form. */
  readonly fields: readonly TrialField[];
  readonly document: TrialDocument;
}

export interface TrialField {
  /** Its place in the document. */
  readonly index: number;
  readonly component: Component;
  readonly name: string;
  readonly sample: SampleDocument | undefined;
  /** Allowed, and empty. */
  readonly combination: Combination;
  readonly document: TrialFieldDocument;
}

const USUAL = { width: 375, direction: 'ltr', locale: 'en', send: 'Send' } as const;

/** The trials of a system, in the order of their files. */
export const trialsOf = (system: System): Trial[] =>
  documentsOf(system.documents, 'trial').map(([file, document]) =>
    readTrial(system, file, document as TrialDocument),
  );

export const trialNamed = (system: System, id: string): Trial | undefined =>
  trialsOf(system).find(trial => trial.id === id);

function readTrial(system: System, file: string, document: TrialDocument): Trial {
  return {
    ...USUAL,
    description: '',
    ...document,
    title: document.title ?? document.id,
    file,
    document,
    fields: document.fields.flatMap((field, index) => {
      const component = componentNamed(system, field.component);
      return component && behaves(component) ? [{ ...readField(component, field), index }] : [];
    }),
  };
}

function readField(component: Component, document: TrialFieldDocument): Omit<TrialField, 'index'> {
  const { space } = component;
  const wanted = { ...document.set, ...startOf(document), content: 'empty' };
  const known = Object.entries(wanted).filter(([id, value]) =>
    space.axes.some(axis => axis.id === id && axis.indexOf.has(value)),
  );
  return {
    component,
    name: document.name,
    sample: sampleNamed(component, document.sample),
    combination: space.written(space.settled(space.indices(Object.fromEntries(known))).combination),
    document,
  };
}

const startOf = ({ required }: TrialFieldDocument): Combination =>
  required === undefined ? {} : { requirement: required ? 'required' : 'optional' };

/** What the application has set of a field before anything is done, as a walkthrough says it. */
export const givenOf = (document: TrialFieldDocument): Combination => ({
  ...document.set,
  ...startOf(document),
});
