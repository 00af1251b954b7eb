import type { OverlayDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { originAt } from '../derivation/origin';
import type { Component } from './component';

/** Where a rule was written. */
export interface RuleSource {
  /**
   * `own`: in the component's own document; `base`: in another's; `overlaid`: in another's, with something laid over it here;
   * `nested`: in that of a component which this one uses.
   */
  readonly kind: 'own' | 'base' | 'overlaid' | 'nested';
  /** Id of the component whose rule it is. */
  readonly from: string;
}

/** The rules that stand in a component's own document: of a derived one what it lays over others and what it adds. */
export const ownRules = ({ document, derivation }: Component): readonly OverlayDocument[] =>
  (derivation ? derivation.own.rules : document.rules) ?? [];

/** Where the rule of an id was written. */
export function ruleSource(component: Component, id: string): RuleSource {
  const { derivation, document } = component;
  const nested = component.nested.find(({ name }) => id.startsWith(`${name}/`));
  if (nested) return { kind: 'nested', from: nested.component.id };
  const own: RuleSource = { kind: 'own', from: component.id };
  if (!derivation) return own;
  const index = (document.rules ?? []).findIndex(rule => rule.id === id);
  const { file } = originAt(derivation.origin, pointer('rules', index));
  const base = derivation.bases.find(each => each.file === file);
  if (!base) return own;
  return { kind: overlayOf(component, id) ? 'overlaid' : 'base', from: base.id };
}

/** A rule by the component that it was written in and its id there: the same for all that take it over or nest it. */
export function writtenAs(component: Component, id: string): string {
  const nested = component.nested.find(({ name }) => id.startsWith(`${name}/`));
  return nested
    ? writtenAs(nested.component, id.slice(nested.name.length + 1))
    : `${ruleSource(component, id).from} ${id}`;
}

/** What a derived component lays over its base's rule of an id. */
const overlayOf = (component: Component, id: string): OverlayDocument | undefined =>
  component.derivation && component.derivation.base.rules?.some(rule => rule.id === id)
    ? ownRules(component).find(rule => rule.id === id)
    : undefined;

/** Whether a rule's entry departs from the base's rule. */
export const isOverridden = (component: Component, id: string, part: string, property: string): boolean =>
  overlayOf(component, id)?.set?.[part]?.[property] !== undefined;
