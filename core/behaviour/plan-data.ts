import type { CheckDocument, JudgingDocument, ValueDocument } from '../documents/behaviour-document';
import type { LimitRegion } from '../space/limit';
import type { Box } from '../space/box';
import type { Act } from './acts';

/**
 * What a press on a part comes to: it lands on the control, as on its label or the frame around it (HTML, 4.10.4); on a button, by the part that then
 * has the focus; on an entry of the list; or on nothing that takes the focus.
 */
export type Target =
  | { readonly kind: 'control' | 'entry' | 'none' }
  /** `isInFrame` where it lies in what reacts to a press for the control: a browser takes that to be pointed at, too (HTML, 4.16.3). */
  | { readonly kind: 'button'; readonly part: string; readonly isInFrame: boolean };

/** Parts that a kind of value knows by what they do. */
export const ROLES = ['reveal', 'clear', 'less', 'more', 'list', 'entry'] as const;
export type PartRole = (typeof ROLES)[number];

/** Roles of parts that are pressed by themselves. */
export const BUTTON_ROLES: readonly PartRole[] = ['reveal', 'clear', 'less', 'more'];

/** Those that act as soon as they are pressed down, and again while they are held. */
export const REPEATING: readonly PartRole[] = ['less', 'more'];

interface PlanAxis {
  readonly id: string;
  readonly kind: 'option' | 'state';
  readonly values: readonly string[];
  /** Place of the value at rest. */
  readonly rest: number;
}

/** What a move does. */
export type MoveDeed =
  | { readonly kind: 'set'; readonly axis: string; readonly value: string }
  | { readonly kind: 'value'; readonly text: string }
  | { readonly kind: 'step'; readonly by: number }
  | { readonly kind: 'focus'; readonly part: string }
  | { readonly kind: 'choose'; readonly entry: string };

/** What an act does beyond what the kind of value knows, where a condition holds. */
export interface PlanMove {
  readonly id: string;
  readonly on: Act;
  /** The act as it is written. */
  readonly written: string;
  readonly when: Box;
  readonly deeds: readonly MoveDeed[];
}

/** What of a component the machine must know. Plain data: it goes along with what ships. */
export interface PlanData {
  readonly value: ValueDocument;
  readonly control: {
    readonly part: string;
    readonly element: string;
    /** Of an input. */
    readonly type?: string;
  } | null;
  readonly targets: Readonly<Record<string, Target>>;
  readonly roles: { readonly [Name in PartRole]?: string };
  /** Parts that Tab comes to, in reading order. */
  readonly stops: readonly string[];
  readonly checks: readonly CheckDocument[];
  readonly judging: Required<JudgingDocument>;
  readonly moves: readonly PlanMove[];
  readonly axes: readonly PlanAxis[];
  readonly limits: readonly LimitRegion[];
  /** How many hours are counted, by the value of an option; where none says so, the locale does. */
  readonly clock: { readonly axis: number; readonly hours: readonly (12 | 24)[] } | null;
  /** Whether the half of the day is shown by a part of its own. */
  readonly isHalfApart: boolean;
}
