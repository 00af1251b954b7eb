/** Fields in a form of their own, as it is stored (`periwinkle-trial/1`). */
export interface TrialDocument {
  readonly format: string;
  readonly id: string;
  readonly title?: string;
  readonly description?: string;
  /** Of the page, in CSS px. */
  readonly width?: number;
  readonly direction?: TrialDirection;
  /** BCP 47. */
  readonly locale?: string;
  readonly fields: readonly TrialFieldDocument[];
  /** What the button that sends the form says. */
  readonly send?: string;
}

export const TRIAL_DIRECTIONS = ['ltr', 'rtl'] as const;
export type TrialDirection = (typeof TRIAL_DIRECTIONS)[number];

/** The narrowest and the widest page, in CSS px. */
export const TRIAL_WIDTHS = [160, 3840] as const;

/** A field of the form. */
export interface TrialFieldDocument {
  readonly component: string;
  /** Under which its value is sent. */
  readonly name: string;
  /** Values of axes at the beginning. */
  readonly set?: { readonly [axis: string]: string };
  readonly sample?: string;
  readonly required?: boolean;
}
