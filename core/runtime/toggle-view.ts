import type { ControlView } from './page-field';

/** A checkbox, or a switch. */
export const toggleView: ControlView = {
  // What a browser has done to one that cannot be changed is taken back: it holds what it held.
  read: ({ control, state }) => {
    const { checked } = control as HTMLInputElement;
    const held = state?.value ?? 'false';
    return !checked && held !== 'true' ? held : String(checked);
  },
  show({ value }, { control }) {
    (control as HTMLInputElement).checked = value === 'true';
  },
};
