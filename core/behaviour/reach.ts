import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { SampleDocument } from '../documents/component-document';
import { absentWhere } from '../cascade/winning-rules';
import type { Box } from '../space/box';
import { NOWHERE } from '../space/extent';
import { inBox, type Combination } from '../space/space';
import { candidateActs, pointerActs, type SearchAim } from './candidate-acts';
import { readAct, RefusedAct } from './acts';
import { seenAt, type PlayedField } from './rendered-field';
import type { FieldState } from './field-state';
import { performAct, type Seen } from './user-input';
import { firstFailing } from './validation';
import { beginning, play } from './play';
import { named } from './make-plan';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';
import { candidateValues, type CandidateValues } from './candidate-values';

/** A shortest way to some combination, or why there is none. */
export type Reached =
  | { readonly reachable: true; readonly acts: readonly string[]; readonly combination: Combination }
  | { readonly reachable: false; readonly because: string }
  /** Nothing was found, and something is not known that may lead there. */
  | { readonly reachable: 'unknown'; readonly because: string };

export interface ReachInput {
  readonly system: System;
  readonly component: Component;
  readonly sample: SampleDocument | undefined;
  /** Where one wants to get. */
  readonly target: Box;
}

/** So many ways of setting options are tried, those that set fewer first, */
const MOST_SETTINGS = 400;
/** and so many places are come to in each. */
const MOST_PLACES = 4000;

/**
 * The shortest acts, from rest, that lead into a region. Options are not walked through: those that the region, the limits around it, moves and
 * pressable parts depend on are set first, fewest first. Between them the machine is searched breadth first, and places count as the same that differ
 * only in values of one sort (empty, at an end, right, wrong by which check). What is found is played before it is told.
 */
export function reach(input: ReachInput): Reached {
  const { component, system, sample, target } = input;
  const { space } = component;
  const { extents } = space;
  if (space.allowedIn(target) === NOWHERE)
    return { reachable: false, because: 'The limits allow no such combination.' };
  const wanted = space.reachedFrom(target);
  const { field } = beginning({ system, component, sample });
  const search: Search = { ...input, field, values: candidateValues(field), isCut: false };
  let best: readonly string[] | null = null;
  const matters = optionsThatMatter(component, field.plan, target);
  const ways = settings(component, matters);
  search.isCut = ways.length === MOST_SETTINGS;
  for (const set of ways) {
    if (best && set.length >= best.length) break;
    // Options that are not set are at rest.
    const there = matters.reduce((left, axis) => {
      const value = set.find(each => each.axis === axis)?.value ?? space.axes[axis]!.rest;
      return extents.along(left, axis, value);
    }, wanted);
    if (there === NOWHERE) continue;
    const found = searched(search, set, best ? best.length - 1 : Infinity);
    if (found && (!best || found.length < best.length)) best = found;
  }
  if (!best) return notFound(search);
  const last = play({ system, component, sample, acts: best }).at(-1);
  const combination =
    last?.combination ??
    space.written(combinationAt(field.plan, beginning({ system, component, sample }).state));
  return { reachable: true, acts: best, combination };
}

/** One question, with what is worked out once for it. */
interface Search extends ReachInput {
  readonly field: PlayedField;
  readonly values: CandidateValues;
  /** Whether something was left untried for its length. */
  isCut: boolean;
}

interface Setting {
  readonly axis: number;
  readonly value: number;
  readonly text: string;
}

/** Ways to set the options that matter, those that set fewer first. */
function settings({ space }: Component, matters: readonly number[]): Setting[][] {
  let found: Setting[][] = [[]];
  for (const axis of matters) {
    const { id, values, rest } = space.axes[axis]!;
    const others = values.flatMap(({ id: value }, place) =>
      place === rest ? [] : [{ axis, value: place, text: `app ${id}=${value}` }],
    );
    found = found.flatMap(set => [set, ...others.map(other => [...set, other])]);
    found = found.sort((one, other) => one.length - other.length).slice(0, MOST_SETTINGS);
  }
  return found;
}

function optionsThatMatter(component: Component, plan: Plan, target: Box): number[] {
  const { space } = component;
  const { extents, full } = space;
  const pressed = Object.entries(plan.targets).flatMap(([name, { kind }]) => (kind === 'none' ? [] : [name]));
  const depending = [
    space.reachedFrom(target),
    ...plan.moves.map(({ when }) => extents.of(when)),
    ...pressed.map(name => absentWhere(component, component.anatomy.byName.get(name))),
  ];
  const axes = new Set(depending.flatMap(extent => [...extents.support(extent)]));
  target.forEach((mask, axis) => mask !== full[axis] && axes.add(axis));
  return [...axes].filter(axis => space.axes[axis]?.kind === 'option').sort((one, other) => one - other);
}

interface SearchNode {
  readonly state: FieldState;
  readonly before: SearchNode | null;
  readonly did: string | null;
  readonly depth: number;
}

/** Breadth first from rest with some options set; `null` where nothing leads into the region within `most` acts. */
function searched(search: Search, set: readonly Setting[], most: number): string[] | null {
  const { field, target, system, component, sample, values } = search;
  const { plan } = field;
  const wanted = searchAim(component, target);
  const read = (acts: readonly string[]) =>
    acts.map(text => ({ text, what: named(component, readAct(text)) }));
  const tries = read(candidateActs(field, values, wanted));
  // Where the pointer is matters to nothing but itself: it is brought there at the end.
  const ends = read(pointerActs(field, wanted));
  const memory = new Memory(field);
  let { state } = beginning({ system, component, sample });
  for (const { text } of set) state = performAct(plan, state, readAct(text), memory.look).state;
  const prefix = set.map(({ text }) => text);
  const known = new Set([memory.sortOf(state)]);
  const queue: SearchNode[] = [{ state, before: null, did: null, depth: set.length }];
  const isThere = (at: FieldState): boolean => inBox(target, memory.combination(at));
  let best: string[] | null = null;
  for (let at = 0; at < queue.length && at < MOST_PLACES; at++) {
    const place = queue[at]!;
    const longest = Math.min(most, best ? best.length - 1 : Infinity);
    if (place.depth > longest) break;
    if (isThere(place.state)) {
      const found = [...prefix, ...wayTo(place)];
      if (arrives(field, found, target)) return found;
    }
    if (place.depth >= longest) continue;
    for (const { text, what } of ends) {
      const next = tried(plan, place.state, what, memory.look);
      const found = next && isThere(next) ? [...prefix, ...wayTo(place), text] : null;
      if (found && (!best || found.length < best.length) && arrives(field, found, target)) best = found;
    }
    for (const { text, what } of tries) {
      const next = tried(plan, place.state, what, memory.look);
      if (!next) continue;
      const sort = memory.sortOf(next);
      if (known.has(sort)) continue;
      known.add(sort);
      queue.push({ state: next, before: place, did: text, depth: place.depth + 1 });
    }
  }
  search.isCut ||= !best && queue.length > MOST_PLACES;
  return best;
}

export function searchAim({ space }: Component, target: Box): SearchAim {
  const masked = (id: string, asks: (mask: number, axis: number) => boolean): boolean => {
    const axis = space.axes.findIndex(each => each.id === id);
    return axis >= 0 && asks(target[axis]!, axis);
  };
  return {
    isNamed: id => masked(id, (mask, axis) => mask !== space.full[axis]),
    isMoved: id => masked(id, (mask, axis) => !((mask >> space.axes[axis]!.rest) & 1)),
    takes: (id, value) =>
      masked(id, (mask, axis) => ((mask >> space.axes[axis]!.indexOf.get(value)!) & 1) === 1),
  };
}

const wayTo = ({ before, did }: SearchNode): string[] => (before ? [...wayTo(before), did!] : []);

function tried(
  plan: Plan,
  state: FieldState,
  what: ReturnType<typeof readAct>,
  look: (state: FieldState) => Seen,
): FieldState | null {
  if (what.kind === 'answer' && !state.asking) return null;
  try {
    return performAct(plan, state, what, look).state;
  } catch (error) {
    if (error instanceof RefusedAct) return null;
    throw error;
  }
}

function arrives({ system, component, sample }: PlayedField, acts: readonly string[], target: Box): boolean {
  if (acts.length === 0) return true;
  const last = play({ system, component, sample, acts }).at(-1)!;
  const { space } = component;
  return inBox(target, space.indices(last.combination));
}

/** What a search asks of many states, worked out once for each way that matters. */
class Memory {
  private readonly seen = new Map<string, Seen>();
  private readonly combinations = new WeakMap<FieldState, readonly number[]>();
  private readonly failings = new Map<string, string>();

  constructor(private readonly field: PlayedField) {}

  combination(state: FieldState): readonly number[] {
    let found = this.combinations.get(state);
    if (!found) this.combinations.set(state, (found = combinationAt(this.field.plan, state)));
    return found;
  }

  readonly look = (state: FieldState): Seen => {
    const { complaint, isOpen, value } = state;
    const key = `${this.combination(state).join()} ${complaint !== null} ${isOpen} ${value === ''}`;
    let seen = this.seen.get(key);
    if (!seen) this.seen.set(key, (seen = seenAt(this.field, state)));
    return seen;
  };

  /** Of which sort a value is: empty, right, or wrong by a check. */
  private valueSort(state: FieldState): string {
    const { plan } = this.field;
    const { value, set, answers, others } = state;
    const key = JSON.stringify([value, set['requirement'], answers, others]);
    let sort = this.failings.get(key);
    if (sort === undefined) {
      const failing = firstFailing(plan, state);
      sort = plan.kind.isEmpty(value) ? 'empty' : failing ? `${failing.check.id} ${failing.isOpen}` : 'right';
      this.failings.set(key, sort);
    }
    return sort;
  }

  /** What tells places apart: all that the machine goes by, but of values only their sort, and nothing of the pointer. */
  sortOf(state: FieldState): string {
    const { plan } = this.field;
    const { text, selection } = state;
    const pointer = plan.axes.findIndex(({ id }) => id === 'pointer');
    const [from, to] = selection;
    const selected = from === 0 && to === text.length ? 'all' : from === text.length ? 'end' : 'within';
    return JSON.stringify([
      this.combination(state).filter((_, axis) => axis !== pointer),
      this.valueSort(state),
      selected,
      state.focus,
      state.complaint,
      state.isApproved,
      state.asking?.check ?? null,
      state.isSending,
      state.answers,
      state.isRevealed,
      state.isOpen,
      state.active === null,
      state.set,
      state.others,
    ]);
  }
}

/** Nothing leads there: why, where that is certain, else what is not known. */
function notFound(search: Search): Reached {
  const because = doubt(search);
  return because === null ? { reachable: false, because: why(search) } : { reachable: 'unknown', because };
}

/** States that follow from the value, so that they depend on which values are known. */
const BY_VALUE: readonly string[] = ['validity', 'availability', 'content', 'range', 'selection'];
/** Kinds of check of which one cannot say beforehand where in a range they fail. */
const ANYWHERE: readonly string[] = ['pattern', 'length', 'equals'];

/** What is not known that may lead there all the same; `null` where nothing does for certain. */
function doubt({ field: { plan }, component, target, values, isCut }: Search): string | null {
  if (isCut) return 'there are more ways than were tried';
  const { isNamed, isMoved, takes } = searchAim(component, target);
  const { noneRight, noneWrong } = values;
  const isBusy = isMoved('availability') && takes('availability', 'busy');
  const needsRight = (isMoved('validity') && takes('validity', 'valid') && plan.judging.approve) || isBusy;
  if (needsRight && noneRight !== null) return noneRight;
  if (isMoved('validity') && takes('validity', 'invalid') && noneWrong !== null) return noneWrong;
  const isAnywhere = plan.checks.some(({ kind }) => ANYWHERE.includes(kind));
  if (isAnywhere && isNamed('validity') && isNamed('range'))
    return `no value is known that is both ${wordsOf(component, target)}`;
  // Moves that wait for what follows from the value may lead anywhere.
  const follows = component.space.axes.flatMap(({ id }, axis) => (BY_VALUE.includes(id) ? [axis] : []));
  const isWaitedFor = plan.moves.some(({ when }) =>
    follows.some(axis => when[axis] !== component.space.full[axis]),
  );
  return isWaitedFor ? (noneRight ?? noneWrong) : null;
}

/** Why nothing leads there: the first value that never comes about, or that they never do so together. */
function why(search: Search): string {
  const { component, target, field } = search;
  const { space } = component;
  const named = target.flatMap((mask, axis) => (mask === space.full[axis] ? [] : [axis]));
  for (const axis of named.length > 1 ? named : []) {
    const alone = space.full.map((full, each) => (each === axis ? target[axis]! : full));
    const matters = optionsThatMatter(component, field.plan, alone);
    const reaches = settings(component, matters).some(set =>
      searched({ ...search, target: alone }, set, Infinity),
    );
    if (!reaches)
      return `Nothing that a person or the application does leads to ${wordsOf(component, alone)}.`;
  }
  return named.length > 1
    ? `Each comes about by itself, but never ${wordsOf(component, target)} together.`
    : `Nothing that a person or the application does leads to ${wordsOf(component, target)}.`;
}

/** A region in words; what is at rest in it is left out where something is not. */
function wordsOf({ space }: Component, box: Box): string {
  const words = box.flatMap((mask, axis) => {
    if (mask === space.full[axis]) return [];
    const { id, values, rest } = space.axes[axis]!;
    const some = values.filter((_, value) => (mask >> value) & 1).map(value => value.id);
    return [{ text: `${id}=${some.join(' or ')}`, isAtRest: mask === 1 << rest }];
  });
  const moved = words.filter(({ isAtRest }) => !isAtRest);
  return (moved.length > 0 ? moved : words).map(({ text }) => text).join(', ');
}
