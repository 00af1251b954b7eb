import { ProblemList, type LocalProblem } from '../formats/problem';
import { calcReferences } from '../rules/calc';
import type { Component } from '../rules/component';
import { shorthandOf } from '../rules/property-registry';
import { disjoint, intersect, type Box } from '../space/box';
import { settingPointer } from './check-values';

interface Edge {
  readonly to: string;
  readonly region: Box;
  readonly at: string;
}

/**
 * Finds `@part.property` references that come back to where they began. Each reference holds in its rule's region, so a
 * circle is one only where all its regions meet: two rules that can never speak together make none.
 */
export function cycleProblems(component: Component): LocalProblem[] {
  const edges = new Map<string, Edge[]>();
  for (const rule of component.rules) {
    for (const setting of rule.settings) {
      if (setting.value.kind !== 'calc') continue;
      for (const name of [setting.property.name, ...setting.property.longhands]) {
        const from = `${setting.part}.${name}`;
        const found = calcReferences(setting.value.calc).properties.flatMap(({ part, property }) =>
          [property, shorthandOf(property)]
            .filter(target => target !== undefined)
            .map(target => `${part}.${target}`),
        );
        const at = settingPointer(rule, setting);
        edges.set(from, [...(edges.get(from) ?? []), ...found.map(to => ({ to, region: rule.region, at }))]);
      }
    }
  }
  const problems = new ProblemList();
  const reported = new Set<string>();
  const walk = (start: string, here: string, region: Box, path: readonly string[], at: string): void => {
    for (const edge of edges.get(here) ?? []) {
      if (disjoint(edge.region, region)) continue;
      if (edge.to === start) {
        const circle = [...path, start];
        const key = [...path].sort().join();
        if (!reported.has(key)) {
          reported.add(key);
          problems.error(
            at || edge.at,
            'reference-cycle',
            `These properties refer to each other: ${circle.map(name => `@${name}`).join(' → ')}.`,
          );
        }
      } else if (!path.includes(edge.to) && path.length < 12) {
        walk(start, edge.to, intersect(edge.region, region), [...path, edge.to], at || edge.at);
      }
    }
  };
  for (const start of edges.keys()) walk(start, start, component.space.full, [start], '');
  return problems.problems;
}
