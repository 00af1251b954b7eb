import type { Axis } from '../space/axis';

/** The selectors by which the shipped scheme tells a state's value on a root whose control has a class. */
export function detectionSelectors(axis: Axis, value: string, controlClass: string): string[] {
  const detect = axis.state?.values.find(each => each.id === value)?.detect ?? [];
  return detect.map(({ on, test }) =>
    on === 'root' ? test : on === 'inside' ? `:has(${test})` : `:has(.${controlClass}${test})`,
  );
}
