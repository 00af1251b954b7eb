import type { Component, Rule, Setting } from '../../components/component';
import { ownText } from '../standalone-text';
import type { Slot } from '../slots';
import type { System } from '../../components/system';
import type { Box } from '../../space/box';
import { ruleWords } from '../../components/nesting/rule-description';
import { conditionWords } from '../../space/condition';
import { contestedWhere, contests, decisionOn, type Contest } from './contests';
import { deadRules } from './dead-rules';
import { distinctLooksInSteps, type DistinctLooks } from './distinct-looks';
import { sameLookingAlong } from './same-looking';

/** A region as boxes, in words, and how many combinations it has. */
interface ReportedRegion {
  readonly regions: readonly Box[];
  readonly words: readonly string[];
  readonly combinations: bigint;
}

/** One property that two rules contest. */
export interface ReportedContest extends ReportedRegion {
  /** `part.property`, to be read. */
  readonly slot: string;
  readonly part: string;
  readonly property: string;
  readonly earlierText: string;
  readonly laterText: string;
  /** The same as a rule for this property alone would write it; `null` where a composite token cannot be taken apart. */
  readonly earlierOwn: string | null;
  readonly laterOwn: string | null;
  /** Place of the decision that settles it, or `null`. */
  readonly decision: number | null;
}

/** All that two rules contest. */
export interface ContestedPair {
  readonly earlier: string;
  readonly later: string;
  readonly earlierWords: string;
  readonly laterWords: string;
  readonly contests: readonly ReportedContest[];
}

export interface ReportedDead {
  readonly rule: string;
  readonly words: string;
  /** `part.property`; `null` for the whole rule. */
  readonly property: string | null;
  readonly because: 'silent' | 'never' | 'covered';
  readonly by: readonly string[];
  /** Reasons of the limits that keep it from holding. */
  readonly limits: readonly string[];
}

/** Two values of an axis between which nothing changes, wherever both can be. */
export interface ReportedAlike {
  readonly axis: string;
  readonly values: readonly [string, string];
}

/** What is to be said about a component's rules, as plain data. */
export interface RulesReport {
  readonly rules: number;
  readonly combinations: bigint;
  readonly pairs: readonly ContestedPair[];
  readonly dead: readonly ReportedDead[];
  readonly alike: readonly ReportedAlike[];
  readonly looks: DistinctLooks;
}

/** How far a report has come. */
export interface Progress {
  readonly done: number;
  readonly total: number;
}

/** Makes the report in steps, so that whoever asks can stop in between. */
export function* rulesReport(component: Component, system: System): Generator<Progress, RulesReport> {
  const found = contests(component);
  const total = found.length + component.space.axes.length + 1;
  let done = 0;
  const pairs = new Map<string, ContestedPair & { contests: ReportedContest[] }>();
  for (const contest of found) {
    yield { done: done++, total };
    const key = `${contest.earlier.id} ${contest.later.id}`;
    if (!pairs.has(key)) pairs.set(key, pairOf(component, contest));
    pairs.get(key)!.contests.push(reported(component, system, contest));
  }
  const alike: ReportedAlike[] = [];
  for (const [axis, { title, values }] of component.space.axes.entries()) {
    yield { done: done++, total };
    for (const each of sameLookingAlong(component, system, axis, 'everywhere'))
      alike.push({
        axis: title,
        values: each.values.map(value => values[value]!.title) as [string, string],
      });
  }
  const looks = distinctLooksInSteps(component, system);
  let step = looks.next();
  for (; !step.done; step = looks.next()) yield { done, total };
  return {
    rules: component.rules.length,
    combinations: component.space.count(),
    pairs: [...pairs.values()],
    dead: deadRules(component).map(({ rule, property, because, by, limits }) => ({
      rule: rule.id,
      words: ruleWords(component, rule),
      property,
      because,
      by: by.map(each => each.id),
      limits: limits.map(limit => limit.because).filter(text => text !== ''),
    })),
    alike,
    looks: step.value,
  };
}

function pairOf(component: Component, { earlier, later }: Contest) {
  return {
    earlier: earlier.id,
    later: later.id,
    earlierWords: ruleWords(component, earlier),
    laterWords: ruleWords(component, later),
    contests: [] as ReportedContest[],
  };
}

function reported(component: Component, system: System, contest: Contest): ReportedContest {
  const { space } = component;
  const regions = space.readable(contestedWhere(component, contest));
  const earlier = lastSetting(contest.slot, contest.earlier);
  const later = lastSetting(contest.slot, contest.later);
  return {
    slot: contest.slot.name,
    part: contest.slot.part.name,
    property: contest.slot.property.name,
    earlierText: earlier.text,
    laterText: later.text,
    earlierOwn: ownText(system, earlier),
    laterOwn: ownText(system, later),
    regions,
    words: regions.map(region => conditionWords(region, space.axes)),
    combinations: contest.combinations,
    decision: decisionOn(component, contest)?.index ?? null,
  };
}

/** What a rule says of a slot in the end. */
const lastSetting = (slot: Slot, rule: Rule): Setting =>
  slot.speakers.findLast(speaker => speaker.rule === rule)!.setting;
