import type { ControlView } from './control-view';

/** A checkbox, or a switch. */
export const toggleView: ControlView = {
  read: ({ control }) => String((control as HTMLInputElement).checked),
  show({ value }, { control }) {
    (control as HTMLInputElement).checked = value === 'true';
  },
};
