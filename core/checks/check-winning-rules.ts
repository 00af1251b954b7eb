import { TangledRules } from '../cascade/winning-rules';
import type { Component } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import { ProblemList, type LocalProblem } from '../json/problem';
import { cycleProblems } from './check-cycles';
import { expansionProblems } from './check-expansion';
import { deadRuleProblems, silencedProblems } from './check-idle-rules';
import { reachingInProblems } from './check-reaching-in';
import { settingPointer } from './check-values';

const found = new ObjectMemo<readonly LocalProblem[]>();

/** What follows from where which rule wins. */
export const winningRuleProblems = (component: Component): readonly LocalProblem[] =>
  found.of([component.rules, component.anatomy, component.space], () => {
    try {
      return [
        ...referenceProblems(component),
        ...reachingInProblems(component),
        ...deadRuleProblems(component),
        ...silencedProblems(component),
      ];
    } catch (error) {
      if (!(error instanceof TangledRules)) throw error;
      const list = new ProblemList();
      const { speakers } = error.slot;
      const { rule, setting } = speakers.find(each => each.rule.nested === undefined) ?? speakers[0]!;
      list.error(settingPointer(rule, setting), TANGLED, error.message);
      return list.problems;
    }
  });

const TANGLED = 'tangled-rules';

/** Whether it cannot be said of a property where which rule wins. */
export const isTangled = (component: Component): boolean =>
  winningRuleProblems(component).some(({ code }) => code === TANGLED);

/** How far references lead is told once none goes round in a circle. */
function referenceProblems(component: Component): LocalProblem[] {
  const circles = cycleProblems(component);
  return circles.length > 0 ? circles : expansionProblems(component);
}
