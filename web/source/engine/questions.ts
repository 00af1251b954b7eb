import { transitions, type TransitionTable } from '@periwinkle/core/behaviour/transitions';
import { reach, type Reached } from '@periwinkle/core/behaviour/reach';
import type { Combination } from '@periwinkle/core/space/space';
import { meaningProblems } from '@periwinkle/core/checks/meaning-problems';
import { walkthroughProblems } from '@periwinkle/core/checks/walkthrough-problems';
import type { OutputFile } from '@periwinkle/core/output/outputs';
import { delivery } from '@periwinkle/core/runtime/delivery';
import { systemFolder } from '@periwinkle/core/output/system-folder';
import {
  plateGridInSteps,
  type Arrangement,
  type PlateGrid,
} from '@periwinkle/core/cascade/plates/plate-grid';
import { reachReport, type ReachReport } from './reach-report';
import {
  rulesReport,
  type Progress,
  type RulesReport,
} from '@periwinkle/core/cascade/questions/rules-report';
import { spaceReport, type SpaceReport } from '@periwinkle/core/cascade/questions/space-report';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { Problem } from '@periwinkle/core/json/problem';

/** The questions that are answered in the worker: what each takes and gives. All of it is plain data. */
export interface Questions {
  rules: { asks: { component: string }; answers: RulesReport | null };
  space: { asks: { component: string }; answers: SpaceReport | null };
  plate: { asks: { component: string; arrangement: Arrangement }; answers: PlateGrid | null };
  /** What is found in each document, by its path. */
  findings: { asks: Record<string, never>; answers: ReadonlyMap<string, readonly Problem[]> };
  /** What a token touches; `null` where there is none of that key. */
  reach: { asks: { token: string; most: number }; answers: ReachReport | null };
  /** From every situation of a component, what each act leads to. */
  passages: { asks: { component: string }; answers: TransitionTable | null };
  /** The shortest acts to one of a component's combinations. */
  way: { asks: { component: string; combination: Combination }; answers: Reached | null };
  outputs: { asks: Record<string, never>; answers: WrittenOutputs };
}

/** Everything that is handed over, as it stands in files. */
export interface WrittenOutputs {
  readonly files: readonly OutputFile[];
  readonly folder: readonly OutputFile[];
}

export type QuestionName = keyof Questions;

type Answering<Name extends QuestionName> = (
  system: System,
  asks: Questions[Name]['asks'],
) => Generator<Progress, Questions[Name]['answers']>;

/** Before it begins, a question may have been given up. */
const ONE_STEP: Progress = { done: 0, total: 1 };

/** One row per question. Each answers in steps, between which it can be stopped. */
export const ANSWERING: { readonly [Name in QuestionName]: Answering<Name> } = {
  *rules(system, { component: id }) {
    const component = componentNamed(system, id);
    return component ? yield* rulesReport(component, system) : null;
  },
  *space(system, { component: id }) {
    const component = componentNamed(system, id);
    return component ? yield* spaceReport(component) : null;
  },
  *plate(system, { component: id, arrangement }) {
    const component = componentNamed(system, id);
    return component ? yield* plateGridInSteps(component, arrangement) : null;
  },
  *findings(system) {
    yield ONE_STEP;
    const byFile = new Map<string, Problem[]>();
    for (const problem of [...meaningProblems(system), ...walkthroughProblems(system)])
      byFile.set(problem.file, [...(byFile.get(problem.file) ?? []), problem]);
    return byFile;
  },
  *reach(system, { token, most }) {
    yield ONE_STEP;
    return system.tokens.usual().byKey.has(token) ? reachReport(system, token, most) : null;
  },
  *passages(system, { component: id }) {
    const component = componentNamed(system, id);
    return component ? yield* transitions(system, component) : null;
  },
  *way(system, { component: id, combination }) {
    yield ONE_STEP;
    const component = componentNamed(system, id);
    if (!component) return null;
    const { space, samples } = component;
    const settled = space.settled(space.indices(combination)).combination;
    const target = settled.slice(0, space.axes.length).map(value => 1 << value);
    return reach({ system, component, sample: samples[0], target });
  },
  *outputs(system) {
    yield ONE_STEP;
    return { files: delivery(system), folder: systemFolder(system) };
  },
};
