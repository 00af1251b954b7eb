import type { DecisionDocument, RuleDocument } from '../formats/component-document';
import { pointer } from '../formats/json';
import type { PatchOperation } from '../formats/patch';
import type { Box } from '../space/box';
import { writeCondition } from '../space/condition';
import type { Component } from '../components/component';
import { freshRuleId } from './edit-rules';

/** Records that the order of two rules is meant. */
export function decisionPatch(component: Component, decision: DecisionDocument): PatchOperation[] {
  return component.document.decisions === undefined
    ? [{ op: 'add', path: '/decisions', value: [decision] }]
    : [{ op: 'add', path: '/decisions/-', value: decision }];
}

/** Takes a decision back. */
export function withoutDecisionPatch(component: Component, place: number): PatchOperation[] {
  const decisions = component.document.decisions ?? [];
  if (place >= decisions.length) return [];
  return decisions.length === 1
    ? [{ op: 'remove', path: '/decisions' }]
    : [{ op: 'remove', path: pointer('decisions', place) }];
}

/** A region that two rules contest, and what shall hold there. */
export interface CommonRule {
  readonly region: Box;
  readonly values: readonly { readonly part: string; readonly property: string; readonly text: string }[];
}

/**
 * Rules of their own for regions that two others contest. They come right after the later of the two, so that whatever has
 * the last word over that one keeps it.
 */
export function commonRulesPatch(
  component: Component,
  later: string,
  rules: readonly CommonRule[],
): PatchOperation[] {
  const index = (component.document.rules ?? []).findIndex(rule => rule.id === later);
  if (index < 0) return [];
  const taken = new Set((component.document.rules ?? []).map(rule => rule.id));
  return rules.map(({ region, values }, place) => {
    const id = freshRuleId(component, region, taken);
    taken.add(id);
    const set: Record<string, Record<string, string>> = {};
    for (const { part, property, text } of values) (set[part] ??= {})[property] = text;
    const rule: RuleDocument = { id, when: writeCondition(region, component.space.axes), set };
    return { op: 'add', path: pointer('rules', index + 1 + place), value: rule };
  });
}
