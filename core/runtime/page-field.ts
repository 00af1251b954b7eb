import type { FieldState } from '../behaviour/field-state';
import type { ListEntry } from '../behaviour/kinds/value-kind';
import type { FieldElements } from './field-elements';
import type { Machine } from '../behaviour/machine';
import type { Plan } from '../behaviour/plan';
import type { ShippedPlan } from './shipped-plan';
import { type Words } from './field-view';

/** How a control that holds no text stands in a page. */
export interface ControlView {
  /** The value that the markup, or a person, has it hold. */
  readonly read: (field: PageField) => string;
  readonly show: (state: FieldState, elements: FieldElements) => void;
  /** Of a list. */
  readonly entries?: (elements: FieldElements) => ListEntry[];
  /** What forms submit, one name several times. */
  readonly values?: (value: string) => readonly string[];
}

/** What a page gives to a field. */
export interface AttachOptions {
  readonly value?: string;
  /** Called with what forms submit, whenever that has changed. */
  readonly onChange?: (value: string) => void;
  /** Answers what only the application knows; what nobody answers is accepted. */
  readonly ask?: (ask: string, value: string) => boolean | Promise<boolean>;
  /** Called where the field stands in no form, when Enter sends it. */
  readonly onSend?: (value: string) => void;
  readonly locale?: string;
  /** Words instead of the script’s own, by id of the check; `valid` for what is approved. */
  readonly messages?: Words;
}

/** A field of a page, as those see it that do what only some fields need. */
export interface PageField {
  readonly state: FieldState;
  readonly plan: Plan & ShippedPlan;
  readonly elements: FieldElements;
  readonly options: AttachOptions;
  /** Of a control that holds no text. */
  readonly controlView: ControlView | undefined;
  readonly control: HTMLElement | null;
  /** Ends with the field. */
  readonly signal: AbortSignal;
  /** The combination in a state, by places of values. */
  placesAt(state: FieldState): readonly number[];
  /** What an option or a state is in the markup. */
  inMarkup(id: string): string | null;
  run(what: (machine: Machine) => unknown): void;
  focus(): void;
  reset(): void;
  /** Hears an event of the field until it ends. */
  on<Name extends keyof HTMLElementEventMap>(
    name: Name,
    heard: (event: HTMLElementEventMap[Name]) => void,
    options?: AddEventListenerOptions,
  ): void;
  /** Of the control's text, where it has the focus. */
  selection(): readonly [number, number] | null;
}
