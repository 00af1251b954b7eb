import { readAct, RefusedAct, type Act } from '../behaviour/acts';
import { CHECK_KINDS } from '../behaviour/check-kinds';
import { readDeed } from '../behaviour/custom-transitions';
import { named, partNamed, planOf } from '../behaviour/make-plan';
import { BUTTON_ROLES, ROLES } from '../behaviour/plan-data';
import { CODE_CHARACTERS } from '../behaviour/kinds/code';
import { BEHAVIOUR_KINDS } from '../behaviour/kinds/value-kinds';
import { announcedParts } from '../render/accessibility';
import type { Component } from '../components/component';
import type {
  BehaviourDocument,
  CheckDocument,
  MoveDocument,
  ValueDocument,
  WalkthroughDocument,
} from '../documents/behaviour-document';
import { pointer } from '../json/json';
import { brief, oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { readCondition } from '../space/condition';
import { patternFault } from './pattern-fault';

/** What structure alone cannot tell of a component's behaviour and its walkthroughs. */
export function behaviourProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  const { behaviour, walkthroughs = [] } = component.document;
  if (behaviour) checkBehaviour(component, behaviour, problems);
  walkthroughs.forEach((walkthrough, index) =>
    checkWalkthrough(component, walkthrough, pointer('walkthroughs', index), problems),
  );
  return problems.problems;
}

function checkBehaviour(component: Component, behaviour: BehaviourDocument, problems: ProblemList): void {
  const { value, parts = {}, checks = [] } = behaviour;
  const kinds = Object.keys(BEHAVIOUR_KINDS);
  if (value && !Object.hasOwn(BEHAVIOUR_KINDS, value.kind))
    problems.error(
      '/behaviour/value/kind',
      'unknown-value-kind',
      `“${brief(value.kind)}” is no kind of value; there is ${oneOf(kinds, 12)}.`,
      nearest(value.kind, kinds),
      value.kind,
    );
  if (typeof value?.least === 'number' && typeof value.most === 'number' && value.least > value.most)
    problems.error(
      '/behaviour/value/least',
      'no-value',
      `Nothing lies between ${value.least} and ${value.most}.`,
    );
  if (value?.of !== undefined && !CODE_CHARACTERS.includes(value.of))
    problems.error(
      '/behaviour/value/of',
      'unknown-characters',
      `A code is not of “${brief(value.of)}”; there is ${oneOf(CODE_CHARACTERS)}.`,
      nearest(value.of, CODE_CHARACTERS),
      value.of,
    );
  for (const [role, name] of Object.entries(parts)) checkPart(component, role, name, problems);
  (behaviour.moves ?? []).forEach((move, index) =>
    checkMove(component, move, `/behaviour${pointer('moves', index)}`, problems),
  );
  // Where no text comes and goes with it, what a check says is shown nowhere.
  const isJudged = component.space.axisIndex('validity') >= 0 && component.anatomy.control !== null;
  if (checks.length > 0 && isJudged && announcedParts(component).size === 0)
    problems.warning(
      '/behaviour/checks',
      'unseen-message',
      'Nobody will see what these checks say: no text of this field comes and goes with “validity”.',
    );
  checkUndoing(component, behaviour.moves ?? [], problems);
  const seen = new Set<string>();
  checks.forEach((check, index) => {
    const at = `/behaviour${pointer('checks', index)}`;
    if (seen.has(check.id))
      problems.error(`${at}/id`, 'duplicate-id', `There is a check “${check.id}” already.`);
    seen.add(check.id);
    checkCheck(check, value, at, problems);
  });
}

function checkPart(component: Component, role: string, name: string, problems: ProblemList): void {
  const at = `/behaviour/parts${pointer(role)}`;
  if (!ROLES.some(each => each === role)) {
    problems.error(
      at,
      'unknown-role',
      `“${brief(role)}” is nothing that a part does here; there is ${oneOf(ROLES)}.`,
      nearest(role, ROLES),
      role,
    );
    return;
  }
  const names = [...component.anatomy.byName.keys(), ...component.nested.map(each => each.name)];
  const part = partNamed(component, name);
  if (!part)
    problems.error(at, 'unknown-part', `There is no part “${brief(name)}”.`, nearest(name, names), name);
  else if (
    BUTTON_ROLES.some(each => each === role) &&
    planOf(component).targets[part.name]?.kind !== 'button'
  )
    problems.error(at, 'wrong-part', `“${name}” is no button, so it cannot be pressed by itself.`);
}

function checkCheck(
  check: CheckDocument,
  value: ValueDocument | undefined,
  at: string,
  problems: ProblemList,
): void {
  if (!CHECK_KINDS.includes(check.kind)) {
    problems.error(
      `${at}/kind`,
      'unknown-check',
      `“${brief(check.kind)}” is no kind of check; there is ${oneOf(CHECK_KINDS, 12)}.`,
      nearest(check.kind, CHECK_KINDS),
      check.kind,
    );
    return;
  }
  const { kind, least, most, length, ask, pattern, equals } = check;
  const missing = {
    pattern: pattern === undefined,
    least: least === undefined && value?.least === undefined,
    most: most === undefined && value?.most === undefined,
    length: length === undefined && value?.length === undefined && value?.most === undefined,
    ask: ask === undefined,
    equals: equals === undefined,
  };
  if (Object.hasOwn(missing, kind) && missing[kind as keyof typeof missing])
    problems.error(at, 'missing-member', `A check of the kind “${kind}” says its ${kind}.`);
  if (typeof length === 'object' && (length.least ?? 0) > (length.most ?? Infinity))
    problems.error(`${at}/length`, 'no-value', `Nothing is as long as that.`);
  const fault = pattern === undefined ? null : patternFault(pattern);
  if (fault !== null) problems.error(`${at}/pattern`, 'wrong-pattern', fault);
}

function checkMove(component: Component, move: MoveDocument, at: string, problems: ProblemList): void {
  const { space } = component;
  checkAct(component, move.on, `${at}/on`, problems);
  readCondition(move.when ?? {}, space.axes, `${at}/when`, problems);
  move.do.forEach((text, index) => {
    const here = at + pointer('do', index);
    try {
      const deed = readDeed(text);
      if (deed.kind === 'focus' && !partNamed(component, deed.part))
        problems.error(here, 'unknown-part', `There is no part “${brief(deed.part)}”.`);
      if (deed.kind === 'set') checkGiven(component, { [deed.axis]: deed.value }, () => here, problems);
    } catch (error) {
      if (!(error instanceof RefusedAct)) throw error;
      problems.error(here, 'wrong-act', error.message);
    }
  });
}

/** Moves of one act that set one axis to several values: whatever is done is undone at once. */
function checkUndoing({ space }: Component, moves: readonly MoveDocument[], problems: ProblemList): void {
  const deeds = moves.flatMap((move, index) => {
    const when = readCondition(move.when ?? {}, space.axes, '', new ProblemList());
    return move.do.flatMap((text, place) => {
      const [, axis, value] = /^set ([^=\s]+)=(\S+)$/.exec(text) ?? [];
      return when && axis !== undefined ? [{ move, when, axis, value, at: pointer(index, 'do', place) }] : [];
    });
  });
  deeds.forEach((later, place) => {
    const undone = deeds
      .slice(0, place)
      .find(
        ({ move, when, axis, value }) =>
          move.on === later.move.on &&
          axis === later.axis &&
          value !== later.value &&
          when.every((mask, index) => (mask & later.when[index]!) !== 0),
      );
    if (undone)
      problems.error(
        `/behaviour/moves${later.at}`,
        'undone-move',
        `This undoes what “${undone.move.id}” does at the same act: ${undone.axis} is ${brief(undone.value!)} and then ${brief(later.value!)}.`,
      );
  });
}

/** Values that are set, each told at a place of its own. */
export function checkGiven(
  { space }: Component,
  given: Readonly<Record<string, string>>,
  at: (axis: string) => string,
  problems: ProblemList,
): void {
  for (const [id, value] of Object.entries(given)) {
    const axis = space.axes.find(each => each.id === id);
    if (!axis) {
      const ids = space.axes.map(each => each.id);
      problems.error(at(id), 'unknown-axis', `There is no axis “${brief(id)}” here.`, nearest(id, ids), id);
    } else if (!axis.indexOf.has(value))
      problems.error(
        at(id),
        'unknown-value',
        `“${brief(value)}” is no value of ${id}.`,
        nearest(value, [...axis.indexOf.keys()]),
        value,
      );
  }
}

/** An act as it is written, on a part that there is. */
function checkAct(component: Component, text: string, at: string, problems: ProblemList): void {
  try {
    const act = readAct(text);
    const name = 'part' in act ? act.part : null;
    if (
      name === null ||
      partNamed(component, name) ||
      component.anatomy.byName.has(fullName(component, act) ?? name)
    )
      return;
    const names = [...component.anatomy.byName.keys()];
    problems.error(at, 'unknown-part', `There is no part “${brief(name)}”.`, nearest(name, names), name);
  } catch (error) {
    if (!(error instanceof RefusedAct)) throw error;
    problems.error(at, 'wrong-act', error.message);
  }
}

const fullName = (component: Component, act: Act): string | null => {
  const full = named(component, act);
  return 'part' in full ? full.part : null;
};

function checkWalkthrough(
  component: Component,
  { sample, set: given = {}, acts }: WalkthroughDocument,
  at: string,
  problems: ProblemList,
): void {
  checkSample(component, sample, `${at}/sample`, problems);
  checkGiven(component, given, id => `${at}/set${pointer(id)}`, problems);
  acts.forEach((text, index) => checkAct(component, text, `${at}${pointer('acts', index)}`, problems));
}

export function checkSample(
  component: Component,
  sample: string | undefined,
  at: string,
  problems: ProblemList,
): void {
  const samples = component.samples.map(({ id }) => id);
  if (sample !== undefined && !samples.includes(sample))
    problems.error(
      at,
      'unknown-sample',
      `There is no sample “${brief(sample)}”.`,
      nearest(sample, samples),
      sample,
    );
}
