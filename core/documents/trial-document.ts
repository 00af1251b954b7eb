import { settingsOrNone } from './condition-shapes';
import {
  choice,
  flag,
  format,
  id,
  list,
  narrowed,
  number,
  object,
  refersTo,
  required,
  text,
  type Of,
} from './shape';

export const TRIAL_DIRECTIONS = ['ltr', 'rtl'] as const;
export type TrialDirection = (typeof TRIAL_DIRECTIONS)[number];

/** The narrowest and the widest page, in CSS px. */
export const TRIAL_WIDTHS = [160, 3840] as const;

/** A field of the form. */
export type TrialFieldDocument = Of<typeof field>;
const field = object(
  {
    component: required(refersTo('component', id)),
    /** Under which its value is sent. */
    name: required(narrowed(text, { minLength: 1, maxLength: 190 })),
    /** Values of axes at the beginning. */
    set: settingsOrNone,
    sample: refersTo('sample', id),
    required: flag,
  },
  {
    // What is not known is told where the trial is checked.
    opens: ({ component }, at) => {
      const names = at.names.of(component);
      return names && { names };
    },
  },
);

/** Fields in a form of their own, as it is stored (`periwinkle-trial/1`). */
export type TrialDocument = Of<typeof trial>;
export const trial = object({
  format: required(format('periwinkle-trial/1')),
  id: required(id),
  title: text,
  description: text,
  /** Of the page, in CSS px. */
  width: number({ minimum: TRIAL_WIDTHS[0], maximum: TRIAL_WIDTHS[1] }),
  direction: choice(TRIAL_DIRECTIONS),
  /** BCP 47. */
  locale: text,
  fields: required(list(field, { called: 'field' })),
  /** What the button that sends the form says. */
  send: text,
});
