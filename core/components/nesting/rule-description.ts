import type { Component, Rule } from '../component';
import { conditionWords } from '../../space/condition';

/** A rule's condition in words; of a nested rule, its own condition in its component: `less: pointed at`. */
export function ruleWords(component: Component, rule: Rule): string {
  if (rule.nested === undefined) return conditionWords(rule.region, component.space.axes);
  const { name, component: nested } = component.nested.find(each => each.name === rule.nested)!;
  const own = nested.rules.find(each => `${name}/${each.id}` === rule.id)!;
  return `${name}: ${ruleWords(nested, own)}`;
}
