import type { Component } from '../components/component';
import type { System } from '../components/system';
import { ObjectMemo } from '../json/object-memo';
import type { LocalProblem, Problem } from '../json/problem';
import { COMPONENT_CHECKS, SYSTEM_CHECKS, type ComponentCheck } from './checks';
import { atOrigins } from './problem-origins';
import { isWrittenHere } from './written-here';

/** Everything that structure alone cannot tell, where it was written. What was found of a part that has not changed since is not looked for again. */
export function meaningProblems(system: System): Problem[] {
  const ofComponents = new Map(
    system.components.map(component => [
      component,
      COMPONENT_CHECKS.flatMap(check => foundBy(check, component, system)),
    ]),
  );
  const others = SYSTEM_CHECKS.flatMap(check => check(system));
  return [
    ...others.map(problem => ({ ...problem, ...system.origin(problem) })),
    ...system.expansionProblems,
    ...atOrigins(system, ofComponents),
  ];
}

const known = new Map<ComponentCheck, ObjectMemo<readonly LocalProblem[]>>();

function foundBy(row: ComponentCheck, component: Component, system: System): readonly LocalProblem[] {
  const found = row.inputs
    ? memoOf(row).of(row.inputs(component), () => row.check(component, system))
    : row.check(component, system);
  // What one component is not asked for is not forgotten of another that shares these inputs.
  return row.isOwn ? found.filter(({ pointer }) => isWrittenHere(component, pointer)) : found;
}

function memoOf(row: ComponentCheck): ObjectMemo<readonly LocalProblem[]> {
  let memo = known.get(row);
  if (!memo) known.set(row, (memo = new ObjectMemo()));
  return memo;
}
