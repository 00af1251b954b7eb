import type { Part } from '../components/anatomy/part';
import { COMPARING } from './comparing-checks';
import type { Component } from '../components/component';
import { choicesOf } from '../components/nesting/entries';
import { clockAxis, isHalfApart } from '../components/content/value-text';
import { pressArea } from '../render/press-area';
import type { BehaviourDocument, JudgingDocument, MoveDocument } from '../documents/behaviour-document';
import { ProblemList } from '../json/problem';
import { readCondition } from '../space/condition';
import { readAct, RefusedAct, type Act } from './acts';
import { BEHAVIOUR_KINDS } from './kinds/value-kinds';
import { readDeed } from './custom-transitions';
import { REPEATING, ROLES, type PlanMove, type PartRole, type Target } from './plan-data';
import type { Plan } from './plan';

/** The usual judging: complain late, forgive early. */
const JUDGING: Required<JudgingDocument> = { complain: 'leaving', forgive: 'typing', approve: false };

/** What the machine must know of a component. Components that say nothing of behaviour hold text. */
export function planOf(component: Component): Plan {
  const { anatomy, space } = component;
  const behaviour: BehaviourDocument = component.document.behaviour ?? {};
  const { control } = anatomy;
  const roles = rolesOf(component);
  const targets = Object.fromEntries(targetsOf(component, roles.entry));
  const buttons = Object.values(targets).flatMap(target => (target.kind === 'button' ? [target.part] : []));
  const stops = anatomy.parts.flatMap(({ name }) =>
    name === control?.name || (buttons.includes(name) && isStop(roles, name)) ? [name] : [],
  );
  const value = behaviour.value ?? { kind: 'text' };
  return {
    value,
    kind: BEHAVIOUR_KINDS[value.kind] ?? BEHAVIOUR_KINDS['text']!,
    comparing: COMPARING,
    control: control && {
      part: control.name,
      element: control.element,
      ...(control.element === 'input' && control.type ? { type: control.type } : {}),
    },
    targets,
    roles,
    stops,
    checks: behaviour.checks ?? [],
    judging: { ...JUDGING, ...behaviour.judging },
    moves: (behaviour.moves ?? []).flatMap(move => planMove(component, move) ?? []),
    axes: space.axes.map(({ id, kind, values, rest }) => ({
      id,
      kind,
      values: values.map(each => each.id),
      rest,
    })),
    limits: space.limits,
    clock: clockAxis(space.axes),
    isHalfApart: isHalfApart(component.document),
  };
}

/** The parts that a kind of value needs: those that are named; a list of choices is found by itself. */
function rolesOf(component: Component): Plan['roles'] {
  const named = Object.entries(component.document.behaviour?.parts ?? {}).flatMap(([role, name]) => {
    const part = partNamed(component, name);
    const own = part && (buttonAround(component, part)?.name ?? part.name);
    return own !== undefined && ROLES.some(each => each === role) ? [[role, own]] : [];
  });
  const choices = choicesOf(component);
  const found = choices && {
    list: choices.list,
    entry: [choices.way, choices.entry.name, choices.entry.component.anatomy.root.name]
      .filter(Boolean)
      .join('/'),
  };
  return { ...found, ...Object.fromEntries(named) };
}

/** A move as the machine does it; one that cannot be read is told by the checks, and does nothing. */
function planMove(component: Component, move: MoveDocument): PlanMove | null {
  try {
    const when = readCondition(move.when ?? {}, component.space.axes, '', new ProblemList());
    return (
      when && {
        id: move.id,
        on: named(component, readAct(move.on)),
        written: move.on,
        when,
        deeds: move.do.map(readDeed),
      }
    );
  } catch (error) {
    if (error instanceof RefusedAct) return null;
    throw error;
  }
}

/** An act with the part's full name: it may call a nested component by the part that uses it. */
export function named(component: Component, what: Act): Act {
  if (!('part' in what) || what.part === null) return what;
  const part = partNamed(component, what.part)?.name ?? what.part;
  // The entries of a list may be called so, whatever their part is called.
  const isEntry = part === 'entry' && what.entry !== null;
  return { ...what, part: isEntry ? (rolesOf(component).entry ?? part) : part };
}

/** Tab passes by what only repeats what keys do in the control (ARIA Authoring Practices, spinbutton). */
const isStop = (roles: Plan['roles'], part: string): boolean =>
  !REPEATING.some((role: PartRole) => roles[role] === part);

/** A part by the name under which acts and documents know it: a nested component's by that of the part that uses it. */
export function partNamed({ anatomy, nested }: Component, name: string): Part | undefined {
  const own = anatomy.byName.get(name);
  if (own) return own;
  const root = nested.find(each => each.name === name)?.component.anatomy.root.name;
  return root === undefined ? undefined : anatomy.byName.get(`${name}/${root}`);
}

function* targetsOf(component: Component, entry: string | undefined): Generator<[string, Target]> {
  const { anatomy } = component;
  const area = pressArea(component);
  const inArea = new Set(area ? partsIn(area) : []);
  for (const part of anatomy.parts) {
    const button = buttonAround(component, part);
    const { name } = part;
    if (
      entry !== undefined &&
      (name === entry || name.startsWith(`${entry.slice(0, entry.lastIndexOf('/'))}/`))
    )
      yield [name, { kind: 'entry' }];
    else if (button) yield [name, { kind: 'button', part: button.name, isInFrame: inArea.has(part) }];
    else if (part === anatomy.control || inArea.has(part) || (anatomy.control && isLabel(component, part)))
      yield [name, { kind: 'control' }];
    else yield [name, { kind: 'none' }];
  }
}

const partsIn = (part: Part): Part[] => [part, ...part.children.flatMap(partsIn)];

/** A press on a label, or on what lies in it, lands on what it labels. */
const isLabel = ({ anatomy }: Component, part: Part): boolean => {
  for (let here: Part | undefined = part; here; here = anatomy.outer(here))
    if (here.kind.kind === 'label') return true;
  return false;
};

/** The button that a press on a part lands on: an action, or that of the nested component in which the part lies. */
function buttonAround({ anatomy }: Component, part: Part): Part | null {
  if (part.kind.kind === 'action') return part;
  if (part.nested === null) return null;
  const within = anatomy.parts.filter(each => each.nested === part.nested);
  return within.find(each => each.kind.kind === 'action') ?? null;
}
