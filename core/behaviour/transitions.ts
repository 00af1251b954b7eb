import type { Component } from '../components/component';
import type { System } from '../components/system';
import { pressArea } from '../render/press-area';
import { readAct, RefusedAct } from './acts';
import { seenAt, type PlayedField } from './rendered-field';
import type { FieldState } from './field-state';
import { performAct } from './user-input';
import { firstFailing } from './validation';
import { beginning, moments } from './play';
import { named } from './make-plan';
import { reach } from './reach';
import { situationAt } from './situation-at';
import { combinationAt } from './derived-states';
import { candidateValues } from './candidate-values';

/** What comes of an act in a situation. */
export interface Transition {
  /** What decides between several outcomes: whether what is entered is right. */
  readonly where: 'right' | 'wrong' | null;
  /** Acts one after the other, as they are written. */
  readonly acts: readonly string[];
  /** Id of the situation it leads to; `null` where that has no name. */
  readonly to: string | null;
  /** Whether it stays where it is. */
  readonly stays: boolean;
  readonly effects: readonly string[];
}

/** A situation, and how one gets there. */
export interface TransitionRow {
  readonly situation: string;
  /** The shortest acts from rest; `null` where nothing leads there. */
  readonly way: readonly string[] | null;
  readonly because: string | null;
  /** Whether nothing leads there for certain. */
  readonly isNever: boolean;
  /** Where the way goes through the table, act by act: from which situation, in which column. */
  readonly steps: readonly { readonly situation: string; readonly column: number }[];
  /** By column. */
  readonly cells: readonly (readonly Transition[])[];
}

export interface TransitionTable {
  readonly columns: readonly string[];
  readonly rows: readonly TransitionRow[];
  /** Situations out of which no column leads. */
  readonly shut: readonly string[];
}

/** What a person does, column by column; each in one or more ways. */
interface Column {
  readonly title: string;
  readonly ways: readonly { readonly where: Transition['where']; readonly acts: readonly string[] }[];
}

/** From every situation, what each act leads to: worked out by the machine, in steps between which it can be stopped. */
export function* transitions(
  system: System,
  component: Component,
): Generator<{ readonly done: number; readonly total: number }, TransitionTable> {
  const [sample] = component.samples;
  const { field, state: start } = beginning({ system, component, sample });
  const columns = columnsOf(field);
  const rows: TransitionRow[] = [];
  for (const { id, region, when } of component.situations) {
    yield { done: rows.length, total: component.situations.length };
    // As plates draw it, with all else at rest; else wherever it comes about.
    const { space } = component;
    const drawn = space
      .settled(space.indices(when))
      .combination.slice(0, space.axes.length)
      .map(value => 1 << value);
    const exact = reach({ system, component, sample, target: drawn });
    const found = exact.reachable === true ? exact : reach({ system, component, sample, target: region });
    const played = found.reachable === true ? moments({ system, component, sample, acts: found.acts }) : null;
    const state = played && (played.at(-1)?.state ?? start);
    rows.push({
      situation: id,
      way: found.reachable === true ? found.acts : null,
      because: found.reachable === true ? null : found.because,
      isNever: found.reachable === false,
      steps: (played ?? []).flatMap(({ played: { act: done } }, place) => {
        const from = played![place - 1]?.state ?? start;
        const situation = situationAt(component, combinationAt(field.plan, from))?.id;
        const column = columns.findIndex(({ ways }) => ways.some(({ acts }) => isAlike(acts.at(-1)!, done)));
        return situation === undefined || column < 0 ? [] : [{ situation, column }];
      }),
      cells: columns.map(({ ways }) =>
        state ? ways.flatMap(way => passage(field, state, id, way) ?? []) : [],
      ),
    });
  }
  return {
    columns: columns.map(({ title }) => title),
    rows: rows.map(row => ({ ...row, cells: row.cells.map(merged) })),
    shut: rows
      .filter(({ way, cells }) => way && cells.flat().every(({ stays }) => stays))
      .map(({ situation }) => situation),
  };
}

/** Whether two acts stand in one column: whatever is typed does. */
const isAlike = (one: string, other: string): boolean =>
  one === other || (one.startsWith('type ') && other.startsWith('type '));

/** Acts that there are for a field, with a right and a wrong text where it has them. */
function columnsOf(field: PlayedField): Column[] {
  const { plan, component } = field;
  const area = plan.control && (pressArea(component)?.name ?? plan.control.part);
  const { texts } = candidateValues(field);
  const { state } = beginning(field);
  const isWrong = (text: string): boolean => {
    const value =
      plan.kind.read?.(text, { document: plan.value, locale: 'en', hours: null, isHalfApart: false }, '') ??
      text;
    const found = firstFailing(plan, { ...state, value });
    return found !== null && !found.isOpen;
  };
  const right = texts.find(text => !isWrong(text));
  const wrong = texts.find(isWrong);
  const one = (title: string, acts: readonly string[]): Column => ({ title, ways: [{ where: null, acts }] });
  const typed = (text: string | undefined, where: 'right' | 'wrong'): Column['ways'] =>
    text === undefined ? [] : [{ where, acts: ['key Control+a', `type ${text}`] }];
  return [
    ...(area ? [one('point', [`point ${area}`]), one('press', [`press ${area}`])] : []),
    ...(plan.kind.takesText
      ? [
          { title: 'type', ways: [...typed(wrong, 'wrong'), ...typed(right, 'right')] },
          one('erase all', ['key Control+a', 'key Backspace']),
        ]
      : []),
    ...(plan.kind.list ? [one('choose', ['press entry:1'])] : []),
    ...Object.entries(plan.roles).flatMap(([role, part]) =>
      role === 'list' || role === 'entry' ? [] : [one(role, [`press ${part}`])],
    ),
    one('leave', ['leave']),
    one('send', ['send']),
    ...plan.checks.flatMap(({ ask }) =>
      ask
        ? [
            {
              title: `answer ${ask}`,
              ways: [
                { where: 'right' as const, acts: [`answer ${ask} accepted`] },
                { where: 'wrong' as const, acts: [`answer ${ask} rejected`] },
              ],
            },
          ]
        : [],
    ),
  ];
}

/** What acts come to in a state; `null` where a browser would refuse one. */
function passage(
  field: PlayedField,
  from: FieldState,
  situation: string,
  { where, acts }: Column['ways'][number],
): Transition | null {
  const { component, plan } = field;
  let state = from;
  const effects: string[] = [];
  try {
    for (const text of acts) {
      const what = named(component, readAct(text));
      if (what.kind === 'answer' && state.asking === null) return null;
      const step = performAct(plan, state, what, at => seenAt(field, at));
      effects.push(
        ...step.effects.flatMap(({ kind }) => (kind === 'send' ? 'sent' : kind === 'ask' ? 'asks' : [])),
      );
      state = step.state;
    }
  } catch (error) {
    if (error instanceof RefusedAct) return null;
    throw error;
  }
  const before = combinationAt(plan, from);
  const after = combinationAt(plan, state);
  const to = situationAt(component, after)?.id ?? null;
  const stays = to === situation || before.join() === after.join();
  // What changes nothing at all is no passage.
  if (stays && effects.length === 0 && state.value === from.value && before.join() === after.join())
    return null;
  return { where, acts, to, stays, effects };
}

/** Two outcomes that are one are told as one. */
function merged(cell: readonly Transition[]): readonly Transition[] {
  const [first, ...others] = cell;
  const isOne =
    first &&
    others.every(
      each =>
        each.to === first.to && each.stays === first.stays && each.effects.join() === first.effects.join(),
    );
  return first && isOne && others.length > 0 ? [{ ...first, where: null }] : cell;
}
