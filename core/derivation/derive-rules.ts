import { settingsOfParts, type OverlayDocument, type RuleDocument } from '../documents/component-document';
import { translated } from '../documents/shape';
import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { RemainingNames } from './remaining-names';
import { member, membersOf, objectOf, originOf, traced, type Traced } from './origin';

/** The rules of a derived component. */
export interface DerivedRules {
  /** Those that say something. */
  readonly rules: readonly Traced<RuleDocument>[];
  /** The same with those of which nothing is left: others may stand behind them, here and in what is derived further. */
  readonly withSilent: readonly Traced<RuleDocument>[];
  /** Ids of those among the silent ones that hold nowhere: nothing can lie over them. */
  readonly nowhere: ReadonlySet<string>;
}

/**
 * The rules of a derived component: those of the base in their order, with what is laid over them, and its own, last or right
 * behind those that they name.
 */
export function deriveRules(
  base: DerivedRules,
  own: readonly Traced<OverlayDocument>[],
  names: RemainingNames,
  without: ReadonlySet<string>,
  problems: ProblemList,
): DerivedRules {
  const overlays = new Map<string, Traced<OverlayDocument>>();
  const others: Traced<RuleDocument>[] = [];
  const gone = new Map<string, string>();
  const nowhere = new Set<string>();
  const kept = base.withSilent.flatMap(rule => {
    const { id } = rule.value;
    if (without.has(id)) {
      gone.set(id, 'is left out here');
      return [];
    }
    const left = base.nowhere.has(id) ? null : remainingOf(rule, names);
    if (left) return left;
    gone.set(id, 'holds nowhere here');
    nowhere.add(id);
    return traced({ ...rule.value, when: {}, set: {} }, rule.origin);
  });
  const there = new Set(kept.flatMap(({ value }) => (gone.has(value.id) ? [] : value.id)));
  for (const rule of own) {
    const { id } = rule.value;
    if (overlays.has(id)) reportTwice(rule, problems);
    else if (there.has(id)) overlays.set(id, rule);
    else if (gone.has(id)) reportGone(rule, `The base's rule “${id}” ${gone.get(id)!}.`, problems);
    else if (rule.value.when === undefined) reportMissing(rule, [...there], problems);
    else others.push(ownRule(rule as Traced<OverlayDocument & RuleDocument>, problems));
  }
  const laid = kept.map(rule => {
    const overlay = overlays.get(rule.value.id);
    return overlay ? laidOver(rule, overlay, problems) : rule;
  });
  // A rule of which nothing is left says no more than one that is not there, but others can stand behind it.
  const before = new Set(base.rules);
  const silent = new Set(laid.filter(rule => !before.has(rule) && isSilent(rule)));
  const ordered = inOrder(laid, others, problems);
  return {
    rules: silent.size === 0 ? ordered : ordered.filter(rule => !silent.has(rule)),
    withSilent: ordered,
    nowhere,
  };
}

const isSilent = ({ value }: Traced<RuleDocument>): boolean => Object.keys(value.set).length === 0;

function reportTwice(rule: Traced<OverlayDocument>, problems: ProblemList): void {
  problems.error(originOf(rule.origin, 'id').pointer, 'duplicate-id', `“${rule.value.id}” is there already.`);
}

function reportGone(rule: Traced<OverlayDocument>, message: string, problems: ProblemList): void {
  problems.error(originOf(rule.origin, 'id').pointer, 'unknown-rule', message);
}

function reportMissing(rule: Traced<OverlayDocument>, ids: readonly string[], problems: ProblemList): void {
  const { id } = rule.value;
  problems.error(
    originOf(rule.origin, 'id').pointer,
    'unknown-rule',
    `The base has no rule “${id}” to lie over; a rule of its own needs a condition.`,
    nearest(id, ids),
  );
}

/** A rule of its own; nothing is to be taken out of it. */
function ownRule(rule: Traced<OverlayDocument & RuleDocument>, problems: ProblemList): Traced<RuleDocument> {
  let clean = true;
  const set = Object.entries(rule.value.set ?? {}).map(([part, properties]) => {
    const values = Object.entries(properties).filter(([property, value]) => {
      if (value !== null) return true;
      clean = false;
      const at = rule.origin.pointer + pointer('set', part, property);
      problems.error(
        at,
        'wrong-type',
        'Only of a rule of the base can an entry be taken out; this must be text.',
      );
      return false;
    });
    return [part, Object.fromEntries(values)] as const;
  });
  return clean && rule.value.set !== undefined
    ? rule
    : traced({ ...rule.value, set: Object.fromEntries(set) as RuleDocument['set'] }, rule.origin);
}

/** A base's rule without what was taken away; `null` where it holds nowhere. */
function remainingOf(rule: Traced<RuleDocument>, names: RemainingNames): Traced<RuleDocument> | null {
  const { value } = rule;
  const left = names.once(value, () => {
    const when = names.condition(value.when);
    if (!when) return null;
    const set = (translated(settingsOfParts, value.set, { names }) ?? {}) as RuleDocument['set'];
    return when === value.when && set === value.set ? value : { ...value, when, set };
  });
  return left === value ? rule : left && traced(left, rule.origin);
}

/** A rule of the base with another over it: entries are added or replaced one by one, `null` takes one out. */
function laidOver(
  rule: Traced<RuleDocument>,
  overlay: Traced<OverlayDocument>,
  problems: ProblemList,
): Traced<RuleDocument> {
  for (const key of ['when', 'after'] as const) {
    if (overlay.value[key] === undefined) continue;
    problems.error(
      originOf(overlay.origin, key).pointer,
      'fixed-member',
      `“${rule.value.id}” lies over the base's rule in its place, under its condition; give a rule of its own another id.`,
    );
  }
  const set = membersOf(member(rule, 'set')!);
  for (const [part, properties] of Object.entries(
    membersOf(member(overlay, 'set') ?? traced({}, overlay.origin)),
  )) {
    const before = set[part] ? membersOf(set[part] as Traced<object>) : {};
    for (const [property, entry] of Object.entries(membersOf(properties as Traced<object>))) {
      if (entry.value !== null) before[property] = entry;
      else if (before[property]) delete before[property];
      else
        problems.error(
          entry.origin.pointer,
          'unknown-entry',
          `The base's rule “${rule.value.id}” says nothing of ${part}.${property} that could be taken out.`,
          undefined,
          property,
        );
    }
    if (Object.keys(before).length === 0) delete set[part];
    else set[part] = objectOf(before, (set[part] ?? properties).origin);
  }
  const note = member(overlay, 'note');
  return objectOf<RuleDocument>(
    { ...membersOf(rule), set: objectOf(set, originOf(rule.origin, 'set')), ...(note ? { note } : {}) },
    rule.origin,
  );
}

/** Rules in their order: each one that names another right behind it, several in the order in which they are written. */
function inOrder(
  kept: readonly Traced<RuleDocument>[],
  others: readonly Traced<RuleDocument>[],
  problems: ProblemList,
): Traced<RuleDocument>[] {
  const followers = new Map<string, Traced<RuleDocument>[]>();
  const last: Traced<RuleDocument>[] = [];
  for (const rule of others) {
    const { after } = rule.value;
    // What a nested component says is not known here; the rule is put behind it when that is.
    if (after === undefined || after.includes('/')) last.push(rule);
    else followers.set(after, [...(followers.get(after) ?? []), rule]);
  }
  const placed: Traced<RuleDocument>[] = [];
  const place = (rule: Traced<RuleDocument>): void => {
    placed.push(rule);
    const behind = followers.get(rule.value.id) ?? [];
    followers.delete(rule.value.id);
    behind.forEach(place);
  };
  [...kept, ...last].forEach(place);
  const ids = [...kept, ...others].map(({ value }) => value.id);
  for (const rule of others) {
    if (placed.includes(rule)) continue;
    const after = rule.value.after!;
    problems.error(
      originOf(rule.origin, 'after').pointer,
      'unknown-rule',
      ids.includes(after)
        ? `“${rule.value.id}” and “${after}” would each stand behind the other.`
        : `There is no rule “${after}” to stand behind.`,
      nearest(after, ids),
    );
    placed.push(rule);
  }
  return placed;
}
