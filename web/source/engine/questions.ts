import { plateGridInSteps, type Arrangement, type PlateGrid } from '@periwinkle/core/plates/plate-grid';
import { rulesReport, type Progress, type RulesReport } from '@periwinkle/core/questions/rules-report';
import { componentNamed, type System } from '@periwinkle/core/components/system';

/** The questions that are answered in the worker: what each takes and gives. All of it is plain data. */
export interface Questions {
  rules: { asks: { component: string }; answers: RulesReport | null };
  plate: { asks: { component: string; arrangement: Arrangement }; answers: PlateGrid | null };
}

export type QuestionName = keyof Questions;

type Answering<Name extends QuestionName> = (
  system: System,
  asks: Questions[Name]['asks'],
) => Generator<Progress, Questions[Name]['answers']>;

/** One row per question. Each answers in steps, between which it can be stopped. */
export const ANSWERING: { readonly [Name in QuestionName]: Answering<Name> } = {
  *rules(system, { component: id }) {
    const component = componentNamed(system, id);
    return component ? yield* rulesReport(component, system) : null;
  },
  *plate(system, { component: id, arrangement }) {
    const component = componentNamed(system, id);
    return component ? yield* plateGridInSteps(component, arrangement) : null;
  },
};
