import type { ParameterDocument } from '../documents/component-document';

/** What whoever uses a component can set without another copy of it. */
export interface Parameter {
  /** As calculations and rules name it; of a nested component with the way to it: `less/accent`. */
  readonly key: string;
  readonly document: ParameterDocument;
  /** Components under whose names it can be set in CSS, the nearest first: its own, then those it takes the parameter of. */
  readonly owners: readonly string[];
  /** What a use gives it, in words of the component that holds that use; `null`: its default holds. */
  readonly given: string | null;
}

export type Parameters = ReadonlyMap<string, Parameter>;
