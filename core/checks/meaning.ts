import { documentKind } from '../formats/document-kinds';
import { pointer } from '../formats/json';
import { inFile, ProblemList, type LocalProblem, type Problem } from '../formats/problem';
import { iconProblems } from '../emit/icon';
import { tokenNameProblems } from '../emit/token-names';
import type { Component } from '../rules/component';
import { compileProblems, type System } from '../rules/system';
import { cycleProblems } from './check-cycles';
import { valueProblems } from './check-values';

/** Everything that structure alone cannot tell. */
export function meaningProblems(system: System): Problem[] {
  const tokens = system.tokens.usual();
  return [
    ...system.tokens.problems(),
    ...tokenNameProblems(system),
    ...compileProblems(system),
    ...twinComponents(system),
    ...system.components.flatMap(component =>
      inFile(system.fileOf.get(component.id)!, [
        ...valueProblems(component, tokens),
        ...cycleProblems(component),
        ...sampleProblems(component, system),
      ]),
    ),
    ...[...system.icons].flatMap(([name, svg]) => inFile(`icons/${name}.svg`, iconProblems(svg))),
  ];
}

function twinComponents(system: System): Problem[] {
  const seen = new Set<string>();
  return [...system.documents].flatMap(([path, document]) => {
    if (documentKind(path)?.kind !== 'component') return [];
    const { id } = document as { id: string };
    const list = new ProblemList();
    if (seen.has(id)) list.error('/id', 'duplicate-id', `There is a component “${id}” already.`);
    seen.add(id);
    return inFile(path, list.problems);
  });
}

/** Icons that samples name but the system does not hold. */
function sampleProblems(component: Component, system: System): LocalProblem[] {
  const problems = new ProblemList();
  const iconKeys = component.anatomy.parts
    .filter(part => part.kind.kind === 'icon')
    .map(part => part.content);
  component.samples.forEach((sample, index) => {
    for (const [key, text] of Object.entries(sample.content)) {
      if (!iconKeys.includes(key)) continue;
      for (const name of typeof text === 'string' ? [text] : Object.values(text)) {
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
