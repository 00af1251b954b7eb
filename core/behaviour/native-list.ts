import type { PlanData } from './plan-data';

/** Whether the control's element opens a list of its own. */
export function isNative(
  { combination }: { readonly combination: readonly number[] },
  { axes, control }: PlanData,
): boolean {
  const axis = axes.findIndex(({ id }) => id === 'element');
  const chosen = axis < 0 ? undefined : axes[axis]!.values[combination[axis]!];
  return (chosen ?? control?.element) === 'select';
}
