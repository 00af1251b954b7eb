import type { Component } from '../rules/component';
import { kebab } from '../space/axis';

/** Class of a component's root: `qs-text-field`. */
export const rootClass = (prefix: string, component: Component): string => `${prefix}-${kebab(component.id)}`;

/** Class of a part: `qs-text-field-frame`; the outermost part bears the component's own. */
export function partClass(prefix: string, component: Component, part: string): string {
  const root = rootClass(prefix, component);
  return part === component.anatomy.root.name ? root : `${root}-${kebab(part)}`;
}

/** Attribute that carries an axis on the root: `data-size`. */
export const axisAttribute = (axis: string): string => `data-${kebab(axis)}`;
