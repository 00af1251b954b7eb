import type { ComponentDocument, RuleDocument } from '../formats/component-document';
import { pointer } from '../formats/json';
import type { PatchOperation } from '../formats/patch';
import type { Box } from '../space/box';
import { bits } from '../space/box';
import { writeCondition } from '../space/condition';
import { kebab } from '../space/axis';
import type { Component } from '../components/component';

/** Where a value is written: into a rule, or into a new rule for a region. */
export type SettingTarget = { readonly rule: string } | { readonly region: Box };

/**
 * The patch that sets a property in a rule, or takes it out again (`text` null). Gives no operation when nothing would
 * change. A rule that is left without any setting stays: its condition is work of its own.
 */
export function settingPatch(
  component: Component,
  target: SettingTarget,
  part: string,
  property: string,
  text: string | null,
): PatchOperation[] {
  const { document } = component;
  if ('region' in target) return text === null ? [] : newRule(component, target.region, part, property, text);
  const index = (document.rules ?? []).findIndex(rule => rule.id === target.rule);
  const rule = document.rules?.[index];
  if (!rule) return [];
  const place = pointer('rules', index, 'set', part);
  const properties = Object.hasOwn(rule.set, part) ? rule.set[part]! : null;
  if (text === null)
    return properties && Object.hasOwn(properties, property) ? removal(properties, place, property) : [];
  if (!properties) return [{ op: 'add', path: place, value: { [property]: text } }];
  if (properties[property] === text) return [];
  return [
    {
      op: Object.hasOwn(properties, property) ? 'replace' : 'add',
      path: place + pointer(property),
      value: text,
    },
  ];
}

function removal(properties: object, place: string, property: string): PatchOperation[] {
  return Object.keys(properties).length === 1
    ? [{ op: 'remove', path: place }]
    : [{ op: 'remove', path: place + pointer(property) }];
}

/** A new rule goes last, where it has the last word. */
function newRule(
  component: Component,
  region: Box,
  part: string,
  property: string,
  text: string,
): PatchOperation[] {
  const value: RuleDocument = {
    id: freshRuleId(component, region),
    when: writeCondition(region, component.space.axes),
    set: { [part]: { [property]: text } },
  };
  if (component.document.rules === undefined) return [{ op: 'add', path: '/rules', value: [value] }];
  return [{ op: 'add', path: '/rules/-', value }];
}

/** An id that says what the condition says: `over-large`, with a number when that is taken. */
export function freshRuleId(
  component: Component,
  region: Box,
  taken: ReadonlySet<string> = new Set((component.document.rules ?? []).map(rule => rule.id)),
): string {
  const { axes, full } = component.space;
  const words = axes.flatMap((axis, index) => {
    if (region[index] === full[index]) return [];
    const values = bits(region[index]!).map(value => axis.values[value]!.id);
    return axis.ladder ? values.slice(0, 1) : values;
  });
  const base = kebab(words.join('-')).slice(0, 48) || 'always';
  let id = base;
  for (let number = 2; taken.has(id); number++) id = `${base}-${number}`;
  return id;
}

/** The patch that moves a rule to another place in the order. */
export function moveRulePatch(document: ComponentDocument, from: number, to: number): PatchOperation[] {
  if (from === to || !document.rules?.[from] || to < 0 || to >= document.rules.length) return [];
  return [{ op: 'move', from: pointer('rules', from), path: pointer('rules', to) }];
}
