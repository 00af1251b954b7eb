import type { Component, Decision, Rule, Setting } from '../../components/component';
import { ObjectMemo } from '../../json/object-memo';
import { slotsOf, type Slot, type SlotRule } from '../slots';
import { contains, disjoint } from '../../space/box';
import { NOWHERE, type Extent } from '../../space/extent';
import type { Space } from '../../space/space';
import { calcReferences } from '../../css/calc';
import { remembered } from '../answer-memory';
import { winsOnAllowed } from '../winning-rules';

/**
 * Two rules that both speak for a property, with different values, where nothing but their order decides: neither is the
 * more special case of the other, and no later rule has the last word.
 */
export interface Contest {
  readonly slot: Slot;
  readonly earlier: Rule;
  /** Has the last word. */
  readonly later: Rule;
  /** How many there are of those in `contestedWhere`. */
  readonly combinations: bigint;
}

const known = new ObjectMemo<readonly Contest[]>();

/** All contests of a component, by property and then in the order of the rules; decided ones included. */
export const contests = (component: Component): readonly Contest[] =>
  known.of([component.rules], () => findContests(component));

const findContests = (component: Component): Contest[] =>
  slotsOf(component).all.flatMap(slot =>
    ofSlots.of([slot, component.space], () => contestsOf(component, slot)),
  );

const ofSlots = new ObjectMemo<readonly Contest[]>();

function contestsOf(component: Component, slot: Slot): Contest[] {
  const inputs = slot.speakers.flatMap(({ rule, setting, direct }) => [
    rule.id,
    rule.extent ?? rule.region,
    setting.text,
    direct,
  ]);
  const found = remembered(component, `contests ${slot.name}`, inputs, () => slotContests(component, slot));
  // What is remembered names the rules of an earlier version, which may differ in other properties.
  return found.map(({ places: [earlier, later], combinations }) => ({
    slot,
    earlier: slot.speakers[earlier]!.rule,
    later: slot.speakers[later]!.rule,
    combinations,
  }));
}

interface FoundContest {
  /** Places of the two among the slot's speakers. */
  readonly places: readonly [number, number];
  readonly combinations: bigint;
}

function slotContests(component: Component, slot: Slot): FoundContest[] {
  const { space } = component;
  const heard = winsOnAllowed(component, slot);
  return slot.speakers.flatMap((later, j) => {
    if (heard[j] === NOWHERE) return [];
    return slot.speakers.slice(0, j).flatMap((earlier, i) => {
      // What a rule says again, of a side after the shorthand, it says of that side only once.
      if (slot.speakers[i + 1]!.rule === earlier.rule || !mayContest(earlier, later)) return [];
      const combinations = overlap(space, heard[j]!, earlier.rule);
      if (combinations === 0n || isNested(space, earlier.rule, later.rule)) return [];
      return [{ places: [i, j] as const, combinations }];
    });
  });
}

/**
 * Where two rules contest a property, as far as the limits allow. Made only when asked for, since it takes more to make than
 * to count.
 */
export function contestedWhere(component: Component, { earlier, later, slot }: Contest): Extent {
  const place = slot.speakers.findLastIndex(({ rule }) => rule === later);
  const { extents } = component.space;
  return extents.and(winsOnAllowed(component, slot)[place]!, component.space.spoken(earlier));
}

/**
 * Two shorthands contest the shorthand, not each of its sides again. What two rules of a nested component contest is told there:
 * in its parent they are never more at odds than by themselves.
 */
const mayContest = (a: SlotRule, b: SlotRule): boolean =>
  (a.direct || b.direct) &&
  saysOtherwise(a.setting, b.setting) &&
  !(a.rule.nested !== undefined && b.rule.nested !== undefined) &&
  !disjoint(a.rule.region, b.rule.region);

/** The same text means other things where what it refers to lies in another component. */
function saysOtherwise(a: Setting, b: Setting): boolean {
  if (a.text !== b.text || a.parametered !== b.parametered) return true;
  if (a.value.kind !== 'calc' || b.value.kind !== 'calc') return false;
  const [one, other] = [a.value, b.value].map(({ calc }) =>
    calcReferences(calc)
      .properties.map(({ part }) => part)
      .join(),
  );
  return one !== other;
}

const overlap = ({ extents }: Space, heard: Extent, { region, extent }: Rule): bigint =>
  extent === undefined ? extents.countIn(heard, region) : extents.count(extents.and(heard, extent));

/** Whether the allowed combinations of one rule's region all lie in the other's. */
function isNested(space: Space, a: Rule, b: Rule): boolean {
  const { extents } = space;
  if (a.extent === undefined && b.extent === undefined)
    if (contains(a.region, b.region) || contains(b.region, a.region)) return true;
  const [one, other] = [space.spoken(a), space.spoken(b)];
  return (
    extents.minus(extents.and(one, space.allowed), other) === NOWHERE ||
    extents.minus(extents.and(other, space.allowed), one) === NOWHERE
  );
}

/** The decision that settles a contest, if one has been recorded. */
export function decisionOn(component: Component, contest: Contest): Decision | undefined {
  return component.decisions.find(
    ({ earlier, later, properties }) =>
      earlier === contest.earlier.id &&
      later === contest.later.id &&
      (properties === null || properties.includes(contest.slot.name)),
  );
}

/** The contests that nobody has decided. */
export const openContests = (component: Component): Contest[] =>
  contests(component).filter(contest => !decisionOn(component, contest));
