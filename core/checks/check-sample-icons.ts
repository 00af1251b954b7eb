import type { Component } from '../components/component';
import type { System } from '../components/system';
import { pointer } from '../json/json';
import { ProblemList, type LocalProblem } from '../json/problem';

/** Icons that samples name but the system does not hold. */
export function sampleIconProblems(component: Component, system: System): LocalProblem[] {
  const problems = new ProblemList();
  const iconKeys = component.anatomy.parts
    .filter(part => part.kind.kind === 'icon')
    .map(part => part.content);
  component.samples.forEach((sample, index) => {
    for (const [key, text] of Object.entries(sample.content)) {
      if (!iconKeys.includes(key)) continue;
      if (Array.isArray(text)) continue;
      for (const name of typeof text === 'string' ? [text] : Object.values(text as Record<string, string>)) {
        if (system.icons.has(name)) continue;
        problems.error(
          pointer('samples', index, 'content', key),
          'unknown-icon',
          `There is no icon “${name}”.`,
        );
      }
    }
  });
  return problems.problems;
}
