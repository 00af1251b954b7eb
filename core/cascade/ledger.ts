import type { Component, Rule, Setting } from '../components/component';
import { isOverridden, ruleSource, type RuleSource } from '../components/rule-source';
import { takenApart } from '../components/read-rules';
import { ruleWords } from '../components/nesting/rule-description';
import { equal, type Box } from '../space/box';
import { conditionWords } from '../space/condition';
import type { Combination } from '../space/space';
import { leavesOf, propertyNamed } from '../css/property-registry';
import { saidAtOnce } from '../css/value-syntax';
import type { ValueContext } from '../css/value-context';
import type { Outcome, Outcomes } from './outcome';
import { resolverFor } from './resolve';
import { slotsOf, type Slot } from './slots';
import { MatchingRules, type RuleBits } from './matching-rules';

/** A rule that speaks for the selection, or the column of the scope that no rule has yet. */
export interface LedgerColumn {
  /** `null`: a rule that writing here would make. */
  readonly rule: Rule | null;
  readonly words: string;
  /** Whether an edit goes here. */
  readonly isScope: boolean;
  /** Where the rule was written; in a component that is derived from none, always its own. */
  readonly source: RuleSource;
}

export interface LedgerEntry {
  readonly text: string;
  /** A later rule has the last word wherever this one speaks in the selection. */
  readonly covered: boolean;
  /** Laid over what a base's rule says, or added to it. */
  readonly departs: boolean;
}

export interface LedgerRow {
  readonly part: string;
  readonly property: string;
  /** One per column; `null` where that rule says nothing. */
  readonly entries: readonly (LedgerEntry | null)[];
  /** Distinct outcomes in the selection, most frequent first; empty when nothing is selected. */
  readonly outcomes: readonly Outcome[];
}

export interface Ledger {
  readonly columns: readonly LedgerColumn[];
  readonly rows: readonly LedgerRow[];
}

/**
 * The table of rules against properties for some combinations (already settled), or for the whole component when there
 * are none. Writing goes to the last rule whose region is the scope, or to a new one. Costs slots times sets of rules that
 * speak together in the selection, however many combinations have them.
 */
export function ledger(
  component: Component,
  combinations: readonly Combination[],
  scope: Box | null,
  context: ValueContext,
): Ledger {
  const { space } = component;
  const selection = new Selection(component, combinations, context);
  const target =
    scope && component.rules.findLast(rule => rule.nested === undefined && equal(rule.region, scope));
  const rules = component.rules.filter(rule => selection.speaks(rule) || rule === target);
  const columns: LedgerColumn[] = rules.map(rule => ({
    rule,
    words: ruleWords(component, rule),
    isScope: rule === target,
    source: ruleSource(component, rule.id),
  }));
  if (scope && !target) {
    const source: RuleSource = { kind: 'own', from: component.id };
    columns.push({ rule: null, words: conditionWords(scope, space.axes), isScope: true, source });
  }
  const written = new Map(rules.map(rule => [rule, writtenBySlot(rule)]));
  const rows = rowsOf(component, rules).map(({ part, property }) => ({
    part,
    property,
    entries: columns.map(({ rule, source }) => {
      const setting = rule && written.get(rule)!.get(part)?.get(property);
      if (!setting) return null;
      const departed = source.kind === 'overlaid' && isOverridden(component, rule.id, part, property);
      return { text: setting.text, covered: selection.covers(rule, setting), departs: departed };
    }),
    outcomes: selection.outcomes(part, property),
  }));
  return { columns, rows };
}

/** What a rule sets as the document has it, by part and property. */
function writtenBySlot(rule: Rule): Map<string, Map<string, Setting>> {
  const byPart = new Map<string, Map<string, Setting>>();
  for (const setting of rule.written) {
    const own = byPart.get(setting.part) ?? new Map<string, Setting>();
    byPart.set(setting.part, own.set(setting.property.name, setting));
  }
  return byPart;
}

/** Every property some rule sets, parts in anatomical order, properties as the first rule has them. */
function rowsOf({ anatomy }: Component, rules: readonly Rule[]): { part: string; property: string }[] {
  const byPart = new Map(anatomy.everyPart.map(({ name }) => [name, new Set<string>()]));
  for (const { written } of rules)
    for (const { part, property } of written) byPart.get(part)!.add(property.name);
  return [...byPart].flatMap(([part, properties]) => [...properties].map(property => ({ part, property })));
}

/** The combinations a ledger is about. */
class Selection {
  private readonly speaking: MatchingRules;
  private readonly sets: readonly RuleBits[];
  /** Different looks, with how many combinations have each. */
  private readonly looks = new Map<Outcomes, number>();
  /** By slot: the rules that have the last word there in some combination. */
  private readonly last = new Map<Slot, Set<Rule>>();

  constructor(
    private readonly component: Component,
    combinations: readonly Combination[],
    context: ValueContext,
  ) {
    this.speaking = new MatchingRules(component);
    const sets = new Map<string, RuleBits>();
    const resolver = resolverFor(component, context);
    for (const combination of combinations) {
      const indices = component.space.indices(combination);
      const set = this.speaking.at(indices);
      sets.set(set.join(), set);
      const look = resolver.outcomes(indices);
      this.looks.set(look, (this.looks.get(look) ?? 0) + 1);
    }
    this.sets = [...sets.values()];
    for (const slot of slotsOf(component).all) this.last.set(slot, this.lastIn(slot));
  }

  private lastIn({ speakers }: Slot): Set<Rule> {
    const rules = new Set<Rule>();
    for (const set of this.sets) {
      const last = speakers.findLast(({ rule }) => this.speaking.has(set, rule));
      if (last) rules.add(last.rule);
    }
    return rules;
  }

  /** Whether a rule speaks for some of the selection; all do when nothing is selected. */
  speaks(rule: Rule): boolean {
    return this.sets.length === 0 || this.sets.some(set => this.speaking.has(set, rule));
  }

  covers(rule: Rule, setting: Setting): boolean {
    if (!this.sets.some(set => this.speaking.has(set, rule))) return false;
    const slots = slotsOf(this.component);
    return takenApart(setting).every(
      ({ part, property }) => !this.last.get(slots.find(part, property.name)!)?.has(rule),
    );
  }

  outcomes(part: string, property: string): Outcome[] {
    const found = new Map<string, { outcome: Outcome; times: number }>();
    for (const [look, times] of this.looks) {
      const outcome = outcomeOf(look[part], property);
      if (!outcome) continue;
      const key = `${outcome.value} ${outcome.token ?? ''}`;
      const known = found.get(key);
      if (known) known.times += times;
      else found.set(key, { outcome, times });
    }
    return [...found.values()].sort((a, b) => b.times - a.times).map(({ outcome }) => outcome);
  }
}

/** The outcome of a row; that of a composite, or of sides that were said at once, is theirs together, where all have one. */
function outcomeOf(outcomes: Readonly<Record<string, Outcome>> | undefined, name: string): Outcome | null {
  const own = outcomes?.[name];
  const property = propertyNamed(name);
  if (own || !property) return own ?? null;
  const { members, longhands } = property;
  const names = members.length > 0 ? members.map(member => member.property) : leavesOf(name);
  const found = names.flatMap(each => outcomes?.[each] ?? []);
  const [first] = found;
  if (!first || found.length < names.length) return null;
  const values = found.map(outcome => outcome.value);
  const value = longhands.length > 0 ? saidAtOnce(property, values) : values.join(' ');
  if (value === null) return null;
  if (found.every(outcome => outcome.token === first.token)) return { ...first, value };
  return { value, rule: first.rule, trail: first.trail };
}
