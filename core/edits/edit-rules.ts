import type { OverlayDocument, RuleDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { PatchOperation } from '../patch/operations';
import { type Box, bits } from '../space/box';
import { writeCondition } from '../space/condition';
import { kebab } from '../space/axis';
import type { Component } from '../components/component';
import { ownRules, ruleSource } from '../components/rule-source';

/** Where a value is written: into a rule, or into a new rule for a region. */
export type SettingTarget = { readonly rule: string } | { readonly region: Box };

/**
 * The patch that sets a property in a rule, or takes it out again (`text` null). Gives no operation when nothing would
 * change. A rule that is left without any setting stays: its condition is work of its own. What is said of a base's rule is
 * laid over it in the component's own document; taken out again, the base's word holds.
 */
export function settingPatch(
  component: Component,
  target: SettingTarget,
  part: string,
  property: string,
  text: string | null,
): PatchOperation[] {
  if ('region' in target) return text === null ? [] : newRule(component, target.region, part, property, text);
  const rule = component.document.rules?.find(each => each.id === target.rule);
  return rule ? settingIn(component, rule, nameIn(component, rule, part), property, text) : [];
}

/** The name under which a rule speaks of a part; the root of a nested component has two. */
function nameIn({ anatomy }: Component, rule: RuleDocument, part: string): string {
  const found = anatomy.byName.get(part);
  const isSame = (name: string): boolean => found !== undefined && anatomy.byName.get(name) === found;
  return Object.hasOwn(rule.set, part) ? part : (Object.keys(rule.set).find(isSame) ?? part);
}

function settingIn(
  component: Component,
  rule: RuleDocument,
  part: string,
  property: string,
  text: string | null,
): PatchOperation[] {
  const target = { rule: rule.id };
  if (text === (rule.set[part]?.[property] ?? null)) return [];
  const own = ownRules(component).findIndex(each => each.id === target.rule);
  if (own < 0) return added(component, { id: target.rule, set: { [part]: { [property]: text } } });
  const set = ownRules(component)[own]!.set ?? {};
  const properties = Object.hasOwn(set, part) ? set[part]! : null;
  const isSaid = properties !== null && Object.hasOwn(properties, property);
  if (text === null && isSaid) return removal(component, own, part, property);
  if (text === null && ruleSource(component, target.rule).kind === 'own') return [];
  const place = pointer('rules', own, 'set', part);
  if (ownRules(component)[own]!.set === undefined)
    return [{ op: 'add', path: pointer('rules', own, 'set'), value: { [part]: { [property]: text } } }];
  if (!properties) return [{ op: 'add', path: place, value: { [property]: text } }];
  return [{ op: isSaid ? 'replace' : 'add', path: place + pointer(property), value: text }];
}

/** Takes out an entry, with the part's own object or the whole overlay where nothing else is in it. */
function removal(component: Component, own: number, part: string, property: string): PatchOperation[] {
  const rule = ownRules(component)[own]!;
  const place = pointer('rules', own, 'set', part);
  if (Object.keys(rule.set![part]!).length > 1) return [{ op: 'remove', path: place + pointer(property) }];
  const isOverlay = ruleSource(component, rule.id).kind === 'overlaid';
  return isOverlay && Object.keys(rule.set!).length === 1 && rule.note === undefined
    ? [{ op: 'remove', path: pointer('rules', own) }]
    : [{ op: 'remove', path: place }];
}

/** Puts a rule behind the others of the component's own document. */
const added = (component: Component, rule: OverlayDocument): PatchOperation[] =>
  (component.derivation?.own ?? component.document).rules === undefined
    ? [{ op: 'add', path: '/rules', value: [rule] }]
    : [{ op: 'add', path: '/rules/-', value: rule }];

/** A new rule goes last, where it has the last word. */
const newRule = (
  component: Component,
  region: Box,
  part: string,
  property: string,
  text: string,
): PatchOperation[] =>
  added(component, {
    id: freshRuleId(component, region),
    when: writeCondition(region, component.space.axes),
    set: { [part]: { [property]: text } },
  });

/**
 * The patch that takes a rule out: its own, or what is laid over a base's rule, which then holds as it is; a base's rule is
 * named among what the component leaves out.
 */
export function removeRulePatch(component: Component, id: string): PatchOperation[] {
  const own = ownRules(component).findIndex(rule => rule.id === id);
  if (own >= 0) return [{ op: 'remove', path: pointer('rules', own) }];
  const { derivation } = component;
  if (!derivation || !component.document.rules?.some(rule => rule.id === id)) return [];
  const { without } = derivation.own;
  if (!without) return [{ op: 'add', path: '/without', value: { rules: [id] } }];
  if (!without.rules) return [{ op: 'add', path: '/without/rules', value: [id] }];
  return [{ op: 'add', path: '/without/rules/-', value: id }];
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

/**
 * The patch that moves a rule one place earlier or later in the order; none where it stands first or last already, or where
 * it belongs to a base, whose order holds here too.
 */
export function moveRulePatch(component: Component, id: string, by: -1 | 1): PatchOperation[] {
  const rules = component.document.rules ?? [];
  const from = rules.findIndex(rule => rule.id === id);
  const other = rules[from + by];
  if (from < 0 || !other || ruleSource(component, id).kind !== 'own') return [];
  if (!component.derivation)
    return [{ op: 'move', from: pointer('rules', from), path: pointer('rules', from + by) }];
  const ahead = by > 0 ? other : rules[from - 2];
  // Before the first rule of a base nothing can stand.
  return ahead ? behind(component, id, ahead.id) : [];
}

/** Has a derived component's own rule stand right behind another. */
function behind(component: Component, id: string, ahead: string): PatchOperation[] {
  const own = ownRules(component);
  const from = own.findIndex(rule => rule.id === id);
  const moved = own[from]!;
  const place = placeBehind(component, ahead);
  const { after: _, ...plain } = moved;
  const rule = place.after === undefined ? plain : { ...plain, after: place.after };
  return [
    { op: 'remove', path: pointer('rules', from) },
    { op: 'add', path: pointer('rules', place.index > from ? place.index - 1 : place.index), value: rule },
  ];
}

/**
 * Where in a component's own list a rule must stand, and which it must name, so as to come right behind another: behind a base's
 * rule it names that and comes before all that name it too; behind one of its own it does as that does.
 */
export function placeBehind(
  component: Component,
  ahead: string,
): { readonly index: number; readonly after: string | undefined } {
  const own = ownRules(component);
  const at = own.findIndex(rule => rule.id === ahead);
  if (ruleSource(component, ahead).kind === 'own') return { index: at + 1, after: own[at]?.after };
  const first = own.findIndex(rule => rule.after === ahead);
  return { index: first < 0 ? own.length : first, after: ahead };
}
