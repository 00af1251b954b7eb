import { moments, StoppedPlay } from '../behaviour/play';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { WalkthroughDocument } from '../documents/behaviour-document';
import { pointer } from '../json/json';
import { ProblemList, type LocalProblem, type Problem } from '../json/problem';
import { isWrittenHere } from './written-here';
import { behaviourProblems } from './check-behaviour';

/**
 * Walkthroughs that stop, at an act on what is not there at that moment: each is played. It takes longer than other checks do, and no edit waits
 * for it. Only of components in which nothing is wrong otherwise.
 */
export function walkthroughProblems(system: System): Problem[] {
  return system.components.flatMap(component => {
    const isWrong = component.problems.some(({ severity }) => severity === 'error');
    if (isWrong || behaviourProblems(component).length > 0) return [];
    const file = system.fileOf.get(component.id)!;
    return stops(component, system)
      .filter(({ pointer: at }) => isWrittenHere(component, at))
      .map(problem => ({ ...problem, ...system.origin({ file, pointer: problem.pointer }) }));
  });
}

function stops(component: Component, system: System): readonly LocalProblem[] {
  const problems = new ProblemList();
  (component.document.walkthroughs ?? []).forEach((walkthrough, index) => {
    const stop = stopOf(component, system, walkthrough);
    if (stop)
      problems.warning(
        pointer('walkthroughs', index, 'acts', stop.place),
        'stopped-walkthrough',
        `The walkthrough stops here. ${stop.message}`,
      );
  });
  return problems.problems;
}

function stopOf(
  component: Component,
  system: System,
  { sample, set, acts }: WalkthroughDocument,
): StoppedPlay | null {
  const given = component.samples.find(({ id }) => id === sample) ?? component.samples[0];
  try {
    moments({ system, component, sample: given, acts, ...(set ? { set } : {}) });
    return null;
  } catch (error) {
    if (error instanceof StoppedPlay) return error;
    throw error;
  }
}
