import type { Act } from '../behaviour/acts';
import type { Effect, FieldState } from '../behaviour/field-state';
import type { Machine } from '../behaviour/machine';
import type { PageField } from './page-field';

/** What only some fields need: their modules ask for it, so that others do without. */
export interface Extra {
  /** Writes into the page where the field is. Gives ids of what describes the control. */
  readonly show?: (state: FieldState, combination: readonly number[]) => readonly string[] | undefined;
  /** An act has been done. */
  readonly acted?: (act: Act, machine: Machine, before: FieldState) => void;
  /** What has happened is shown; the machine may have to go on. */
  readonly shown?: (machine: Machine) => void;
  /** All is done. */
  readonly after?: (before: FieldState) => void;
  readonly effect?: (effect: Effect) => void;
  /** The focus came by keys from elsewhere. */
  readonly entered?: (part: string) => void;
  readonly left?: () => void;
  /** A text was composed and stands in the control, but nobody was told yet. Gives what of it is not taken. */
  readonly composed?: (text: string) => string;
}

export type MakeExtra = (field: PageField) => Extra;
