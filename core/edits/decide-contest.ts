import type { DecisionDocument, RuleDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { PatchOperation } from '../patch/operations';
import type { Box } from '../space/box';
import { writeCondition } from '../space/condition';
import type { Component } from '../components/component';
import { ownRules } from '../components/rule-source';
import { freshRuleId, placeBehind } from './edit-rules';

/** The decisions that stand in a component's own document. */
const ownDecisions = ({ document, derivation }: Component): readonly DecisionDocument[] | undefined =>
  derivation ? derivation.own.decisions : document.decisions;

/** Records that the order of two rules is meant. */
export function decisionPatch(component: Component, decision: DecisionDocument): PatchOperation[] {
  return ownDecisions(component) === undefined
    ? [{ op: 'add', path: '/decisions', value: [decision] }]
    : [{ op: 'add', path: '/decisions/-', value: decision }];
}

/** Takes a decision back, by its place among all; one of a base is the base's to take back. */
export function withoutDecisionPatch(component: Component, place: number): PatchOperation[] {
  const decisions = ownDecisions(component) ?? [];
  const own = decisions.indexOf((component.document.decisions ?? [])[place]!);
  if (own < 0) return [];
  return decisions.length === 1
    ? [{ op: 'remove', path: '/decisions' }]
    : [{ op: 'remove', path: pointer('decisions', own) }];
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
  if (!component.document.rules?.some(rule => rule.id === later)) return [];
  const { index, after } = placeBehind(component, later);
  const list: PatchOperation[] =
    ownRules(component).length > 0 ? [] : [{ op: 'add', path: '/rules', value: [] }];
  const taken = new Set((component.document.rules ?? []).map(rule => rule.id));
  const own = rules.map(({ region, values }, place): PatchOperation => {
    const id = freshRuleId(component, region, taken);
    taken.add(id);
    const set: Record<string, Record<string, string>> = {};
    for (const { part, property, text } of values) (set[part] ??= {})[property] = text;
    const when = writeCondition(region, component.space.axes);
    const rule: RuleDocument = { id, when, ...(after === undefined ? {} : { after }), set };
    return { op: 'add', path: pointer('rules', index + place), value: rule };
  });
  return [...list, ...own];
}
