import type { Component } from '../components/component';
import type { BehaviourDocument, CheckDocument, JudgingDocument } from '../documents/behaviour-document';
import {
  CannotRestructure,
  refuseName,
  theComponent,
  withWritten,
  writtenOf,
  type StructuralEdit,
} from './restructure';

/** Changes when a field complains, forgives and approves; in a derived component only what is named departs from its base. */
export const changeJudging =
  (id: string, change: JudgingDocument): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const own = ownBehaviour(component);
    return withBehaviour(system, component, { ...own, judging: { ...own.judging, ...change } });
  };

/** Puts a check in the place of the one of its id, the base's included, or adds it behind all others. */
export const putCheck =
  (id: string, check: CheckDocument): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const own = ownBehaviour(component);
    const checks = own.checks ?? [];
    const at = checks.findIndex(each => each.id === check.id);
    return withBehaviour(system, component, {
      ...own,
      checks: at < 0 ? [...checks, check] : checks.with(at, check),
    });
  };

/** Adds a check under an id that no other has. */
export const addCheck =
  (id: string, check: CheckDocument): StructuralEdit =>
  system => {
    const taken = (theComponent(system, id).document.behaviour?.checks ?? []).map(each => each.id);
    refuseName('a check', check.id, taken);
    return putCheck(id, check)(system);
  };

/** Takes a check of the component's own out; one that stands in the place of its base's gives that its word back. */
export const removeCheck =
  (id: string, check: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const own = ownBehaviour(component);
    const checks = own.checks ?? [];
    if (!checks.some(each => each.id === check))
      throw new CannotRestructure(
        `“${check}” is a check of the base; it can be changed here, not taken out.`,
      );
    return withBehaviour(system, component, { ...own, checks: checks.filter(each => each.id !== check) });
  };

const ownBehaviour = (component: Component): BehaviourDocument => writtenOf(component).behaviour ?? {};

const withBehaviour = (
  system: Parameters<StructuralEdit>[0],
  component: Component,
  behaviour: BehaviourDocument,
): ReturnType<StructuralEdit> =>
  withWritten(system, system.documents, component, { ...writtenOf(component), behaviour });
