import type { MakeExtra } from '../extra';

/** A whole number that goes in steps (ARIA Authoring Practices, spinbutton); amounts ask for the keyboard that has their digits. */
export const numbers: MakeExtra = field => {
  const { control, elements } = field;
  const { kind, least, most } = field.plan.value;
  if (!control) return {};
  if (kind === 'amount') control.inputMode = 'decimal';
  if (kind !== 'count') return {};
  control.inputMode = 'numeric';
  control.setAttribute('role', 'spinbutton');
  if (typeof least === 'number') control.setAttribute('aria-valuemin', String(least));
  if (typeof most === 'number') control.setAttribute('aria-valuemax', String(most));
  return {
    show({ value }) {
      elements.mark(control, 'aria-valuenow', value === '' ? '' : String(Number(value)));
      return undefined;
    },
  };
};
