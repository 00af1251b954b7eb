import type { FieldState } from '../behaviour/field-state';
import type { ListEntry } from '../behaviour/kinds/value-kind';
import type { FieldElements } from './field-elements';
import type { LiveField } from './live-field';

/** How a control that holds no text stands in a page. */
export interface ControlView {
  /** The value that the markup, or a person, has it hold. */
  readonly read: (field: LiveField) => string;
  readonly show: (state: FieldState, elements: FieldElements) => void;
  /** Of a list. */
  readonly entries?: (elements: FieldElements) => ListEntry[];
  /** What forms submit, one name several times. */
  readonly values?: (value: string) => readonly string[];
}
