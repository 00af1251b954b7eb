import type { Component } from '../../components/component';
import { ruleSource } from '../../components/rule-source';
import type { System } from '../../components/system';
import { originAt } from '../../derivation/origin';
import { pointer } from '../../json/json';

/** Of how many things of a kind how many were written for the component that has them. */
export interface Share {
  readonly all: number;
  readonly own: number;
}

/** What of components is their own, and what is inherited from a base or nested from others. */
export interface Reuse {
  readonly parts: Share;
  readonly rules: Share;
  readonly axes: Share;
}

/**
 * Counts parts, rules and axes, those of nested components included, and which of them stand in the component's own document. A rule
 * that something is laid over counts as inherited as long as most of what it says is.
 */
export function reuseOf(component: Component, file: string): Reuse {
  const { anatomy, rules, space, derivation } = component;
  const isOwn = (at: string): boolean => !derivation || originAt(derivation.origin, at).file === file;
  const share = <Thing>(all: readonly Thing[], own: (thing: Thing) => boolean): Share => ({
    all: all.length,
    own: all.filter(own).length,
  });
  return {
    parts: share(anatomy.parts, part => part.nested === null && isOwn(part.pointer)),
    rules: share(rules, ({ id }) => isOwnRule(component, id)),
    axes: share(space.everyAxis, ({ id }) => {
      if (id.includes('/')) return false;
      const index = (component.document.axes ?? []).findIndex(axis => axis.id === id);
      return index < 0 || isOwn(pointer('axes', index));
    }),
  };
}

function isOwnRule(component: Component, id: string): boolean {
  const { kind } = ruleSource(component, id);
  if (kind !== 'overlaid') return kind === 'own';
  const entries = (set: object | undefined): number =>
    Object.values(set ?? {}).reduce<number>((sum, each) => sum + Object.keys(each as object).length, 0);
  const laid = component.derivation!.own.rules?.find(rule => rule.id === id);
  const whole = component.document.rules?.find(rule => rule.id === id);
  return entries(laid?.set) * 2 > entries(whole?.set);
}

/** The same of all components of a system together. */
export function reuse({ components, fileOf }: System): Reuse {
  const each = components.map(component => reuseOf(component, fileOf.get(component.id)!));
  const sum = (kind: keyof Reuse): Share => ({
    all: each.reduce((total, one) => total + one[kind].all, 0),
    own: each.reduce((total, one) => total + one[kind].own, 0),
  });
  return { parts: sum('parts'), rules: sum('rules'), axes: sum('axes') };
}
