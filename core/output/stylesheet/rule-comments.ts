import type { Component, Rule } from '../../components/component';
import { ruleWords } from '../../components/nesting/rule-description';

/** Some rules as a comment tells them: the condition of each in words, its id, its note. */
export function rulesInWords(component: Component, rules: readonly Rule[]): string[] {
  const told = new Set(rules);
  return component.rules
    .filter(rule => told.has(rule))
    .map(rule => {
      const words = ruleWords(component, rule);
      const condition = words.charAt(0).toUpperCase() + words.slice(1);
      return `${condition} (${rule.id}).${rule.note === '' ? '' : ` ${rule.note}`}`;
    });
}
