import type { Part } from '../components/anatomy/part';
import { ELEMENT_AXIS } from '../components/anatomy/elements';
import { showsPlaceholder } from '../documents/part-kinds';
import type { Component } from '../components/component';
import { isReached } from '../components/nesting/entries';
import type { Axis } from '../space/axis';
import type { StateMark } from '../space/state-catalogue';
import type { ComponentNames } from './names';
import { nameIn, type RenderScope } from './render-scope';

export type Attributes = [name: string, value: string][];

/** The element that a control is where the component stands. */
export function chosenElement({ element, elements }: Part, { combination }: RenderScope): string {
  const chosen = elements.length > 1 ? combination[ELEMENT_AXIS] : undefined;
  return chosen !== undefined && elements.includes(chosen) ? chosen : element;
}

/** The `type` of an input: what is secret is text while it is shown. */
export const inputType = ({ type }: Part, { combination }: RenderScope): string =>
  type === 'password' && combination['secret'] === 'shown' ? 'text' : (type ?? 'text');

/** How markup says on a component's root in which states it is, as far as no browser finds out by itself. */
export function rootMarks(standing: RenderScope, names: ComponentNames): Attributes {
  const { component, combination, nested } = standing;
  const { bearer } = component.anatomy;
  const isSeen = bearer !== null && showsPlaceholder(chosenElement(bearer, standing), bearer.type);
  return component.space.axes.flatMap((axis, index): Attributes => {
    const state = axis.state?.values.find(value => value.id === combination[axis.id]);
    if (!state || state === axis.state!.values[0]) return [];
    const mark = isReached(component) ? (state.reached?.mark ?? state.mark) : state.mark;
    if (mark?.on === 'root') return [[mark.attribute, mark.value]];
    const isBound = nested !== null && !nested.reading.isFree(index);
    const needsWord = mark && (mark.attribute === 'value' ? !isSeen : bearer === null);
    return needsWord && !isBound ? [[names.axis(nameIn(standing, axis.id)), state.id]] : [];
  });
}

/** The same on the element that bears the states. */
export const bearerMarks = ({ component, combination }: RenderScope, element: string): Attributes =>
  component.space.axes.flatMap((axis): Attributes => {
    const mark = axis.state?.values.find(value => value.id === combination[axis.id])?.mark;
    return mark?.on === 'control' && mark.attribute !== 'value' ? [controlMark(mark, element)] : [];
  });

const controlMark = ({ attribute, value }: StateMark, element: string): [name: string, value: string] =>
  NOT_IN_HTML.has(`${element} ${attribute}`) ? [`aria-${attribute}`, 'true'] : [attribute, value];

/** How markup says that a component as it stands on a page is in a state, where its control is some element; `null` where a browser finds out by itself. */
export function markOf(
  { anatomy: { control } }: Component,
  axis: Axis,
  value: string,
  element: string,
  attributeOf: (axis: string) => string,
): { readonly on: 'root' | 'control'; readonly attribute: string; readonly text: string } | null {
  const mark = axis.state?.values.find(({ id }) => id === value)?.mark;
  if (!mark) return null;
  if (mark.on === 'root') return { on: 'root', attribute: mark.attribute, text: mark.value };
  if (control && mark.attribute !== 'value') {
    const [attribute, text] = controlMark(mark, element);
    return { on: 'control', attribute, text };
  }
  const isSeen = control !== null && showsPlaceholder(element, control.type);
  return isSeen ? null : { on: 'root', attribute: attributeOf(axis.id), text: value };
}

/** Attributes that HTML does not give to an element, and that WAI-ARIA says instead. */
const NOT_IN_HTML: ReadonlySet<string> = new Set(['select readonly', 'button readonly', 'button required']);
