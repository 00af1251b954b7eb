import type { ValueKind } from './value-kind';

const toggled = (value: string): string => (value === 'true' ? 'false' : 'true');

/** Keys: ARIA Authoring Practices, checkbox and switch. */
export const toggle: ValueKind = {
  takesText: false,
  takesLines: false,
  isEmpty: value => value !== 'true',
  isMisfit: value => !['', 'true', 'false'].includes(value),
  key: (key, value) => (key === ' ' ? toggled(value) : undefined),
  press: toggled,
};
