import type { Combination } from '../space/space';

/** One rule's word on a property. */
interface TrailEntry {
  readonly rule: string;
  readonly text: string;
}

/** A property of a part in one combination. */
export interface Outcome {
  /** As `print-value` writes it; empty when the value cannot be resolved. */
  readonly value: string;
  /** Path of the token, when the value is just that. */
  readonly token?: string;
  /** The rule that had the last word. */
  readonly rule: string;
  /** All that spoke, in order. */
  readonly trail: readonly TrailEntry[];
}

/** Part, then property. Only what some rule sets. */
export type Outcomes = Readonly<Record<string, Readonly<Record<string, Outcome>>>>;

/** How one combination looks, and why. */
export interface Resolution {
  /** After the limits. */
  readonly combination: Combination;
  readonly parts: Outcomes;
}
