import type { Component } from '../components/component';
import { ProblemList, type LocalProblem } from '../json/problem';
import { componentAt } from '../components/nesting/nested-names';
import { winningSources } from '../cascade/winning-rules';
import { calcReferences } from '../css/calc';
import { settingPointer } from './check-values';

/**
 * References into nested components: what they lead to must follow from the component's own combination, so neither from a state
 * that a nested component keeps to itself nor from one of several copies.
 */
export function reachingInProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  if (component.nested.length === 0) return [];
  const { anatomy } = component;
  for (const rule of component.rules) {
    if (rule.nested !== undefined) continue;
    for (const setting of rule.written) {
      if (setting.value.kind !== 'calc') continue;
      const at = settingPointer(rule, setting);
      for (const { part: name, property } of calcReferences(setting.value.calc).properties) {
        const way = anatomy.byName.get(name)?.nested;
        if (!way) continue;
        const repeated = repeatedOn(component, way);
        if (repeated !== null) {
          problems.error(
            at,
            'many-referred',
            `@${name}.${property} lies in “${repeated}”, of which there may be several; a calculation needs one.`,
          );
          continue;
        }
        const free = freeAxis(component, name, property);
        if (free !== null)
          problems.error(
            at,
            'free-reference',
            `@${name}.${property} depends on ${free}, which “${way}” keeps to itself; only what follows from this component can be referred to.`,
          );
      }
    }
  }
  return problems.problems;
}

/** The first repeated component on the way to a nested one. */
function repeatedOn(component: Component, way: string): string | null {
  const steps = way.split('/');
  let { nested } = component;
  for (const [index, step] of steps.entries()) {
    const found = nested.find(each => each.name === step);
    if (!found) return null;
    if (found.repeat !== null) return steps.slice(0, index + 1).join('/');
    nested = componentAt(nested, step).nested;
  }
  return null;
}

/** An inner axis on which it depends what a property comes to. */
function freeAxis(component: Component, part: string, property: string): string | null {
  const { space } = component;
  for (const { where } of winningSources(component, part, property))
    for (const axis of space.extents.support(where))
      if (axis >= space.axes.length) return space.everyAxis[axis]!.id;
  return null;
}
