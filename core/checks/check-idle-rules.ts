import { deadRules } from '../cascade/questions/dead-rules';
import { silencedStates } from '../cascade/questions/silenced-states';
import type { Component } from '../components/component';
import { pointer } from '../json/json';
import { oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { settingPointer } from './check-values';

/** Rules that say something nobody will ever see. */
export function deadRuleProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  for (const { rule, property, because, by, limits } of deadRules(component)) {
    if (property !== null || because === 'silent') continue;
    const others = oneOf(by.map(each => `“${each.id}”`)).replace(/ or (?=“[^“]*$)/, ' and ');
    const reason = limits.map(limit => limit.because).find(text => text !== '');
    problems.warning(
      pointer('rules', rule.index),
      'dead-rule',
      because === 'covered'
        ? `This rule never has the last word: ${others} always ${by.length === 1 ? 'speaks' : 'speak'} after it.`
        : `The limits never let this rule's condition hold${reason ? `: ${reason}` : '.'}`,
    );
  }
  return problems.problems;
}

/** Rules that take away what a nested component shows of its own states. */
export function silencedProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  for (const { slot, state, by } of silencedStates(component)) {
    const first = slot.speakers.find(({ rule }) => rule.nested !== undefined)!.rule.id;
    problems.warning(
      settingPointer(by.rule, by.setting),
      'silenced-state',
      `“${by.rule.id}” covers “${state.id}” wherever that speaks: ${slot.name} no longer answers. Right behind “${first}” it would leave that its word.`,
      `"after": "${first}"`,
    );
  }
  return problems.problems;
}
