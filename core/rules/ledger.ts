import { equal, type Box } from '../space/box';
import { conditionWords } from '../space/condition';
import { inBox, type Combination } from '../space/space';
import type { Component, Rule, Setting } from './component';
import { propertyNamed } from './property-registry';
import { takenApart } from './read-rules';
import { resolve, type Outcome, type Surroundings } from './resolve';

/** A rule that speaks for the selection, or the column of the scope that no rule has yet. */
export interface LedgerColumn {
  /** `null`: a rule that writing here would make. */
  readonly rule: Rule | null;
  readonly words: string;
  /** Whether an edit goes here. */
  readonly isScope: boolean;
}

export interface LedgerEntry {
  readonly text: string;
  /** A later rule has the last word wherever this one speaks in the selection. */
  readonly covered: boolean;
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
 * are none. Writing goes to the last rule whose region is the scope, or to a new one.
 */
export function ledger(
  component: Component,
  combinations: readonly Combination[],
  scope: Box | null,
  around: Surroundings,
): Ledger {
  const indices = combinations.map(combination => component.space.indices(combination));
  const speaks = (rule: Rule): boolean =>
    indices.length === 0 || indices.some(each => inBox(rule.region, each));
  const target = scope && component.rules.findLast(rule => equal(rule.region, scope));
  const rules = component.rules.filter(rule => speaks(rule) || rule === target);
  const words = (box: Box): string => conditionWords(box, component.space.axes);
  const columns: LedgerColumn[] = rules.map(rule => ({
    rule,
    words: words(rule.region),
    isScope: rule === target,
  }));
  if (scope && !target) columns.push({ rule: null, words: words(scope), isScope: true });
  const resolved = combinations.map(combination => resolve(component, combination, around).parts);
  const rows = rowNames(component, rules).map(({ part, property }) => ({
    part,
    property,
    entries: columns.map(({ rule }) => rule && entry(rule, part, property, rules, indices)),
    outcomes: distinct(resolved.flatMap(parts => outcomeOf(parts[part], property))),
  }));
  return { columns, rows };
}

/** Every property some rule sets, parts in anatomical order, properties as the first rule has them. */
function rowNames(component: Component, rules: readonly Rule[]): { part: string; property: string }[] {
  return component.anatomy.parts.flatMap(({ name: part }) => {
    const properties = rules.flatMap(rule =>
      rule.written.filter(setting => setting.part === part).map(setting => setting.property.name),
    );
    return [...new Set(properties)].map(property => ({ part, property }));
  });
}

const settingOf = (rule: Rule, part: string, property: string): Setting | undefined =>
  rule.written.find(setting => setting.part === part && setting.property.name === property);

/** Whether a rule has a word on a property, under its own name or a shorthand's. */
const saysOf = (rule: Rule, part: string, property: string): boolean =>
  rule.settings.some(
    setting =>
      setting.part === part &&
      (setting.property.name === property || setting.property.longhands.includes(property)),
  );

function entry(
  rule: Rule,
  part: string,
  property: string,
  rules: readonly Rule[],
  indices: readonly (readonly number[])[],
): LedgerEntry | null {
  const setting = settingOf(rule, part, property);
  if (!setting) return null;
  const names = takenApart(setting).map(share => share.property.name);
  const later = rules.filter(other => other.index > rule.index);
  const here = indices.filter(each => inBox(rule.region, each));
  const covered =
    here.length > 0 &&
    here.every(each =>
      names.every(name => later.some(other => inBox(other.region, each) && saysOf(other, part, name))),
    );
  return { text: setting.text, covered };
}

/** The outcome of a row; a composite's is that of its members together, where all have one. */
function outcomeOf(outcomes: Readonly<Record<string, Outcome>> | undefined, property: string): Outcome[] {
  const members = propertyNamed(property)?.members ?? [];
  const names = members.length > 0 ? members.map(member => member.property) : [property];
  const found = names.flatMap(name => outcomes?.[name] ?? []);
  if (found.length < names.length) return [];
  if (found.length === 1) return found;
  const [first] = found as [Outcome];
  const value = found.map(outcome => outcome.value).join(' ');
  if (found.every(outcome => outcome.token === first.token)) return [{ ...first, value }];
  return [{ value, rule: first.rule, trail: first.trail }];
}

function distinct(outcomes: readonly Outcome[]): Outcome[] {
  const found = new Map<string, { outcome: Outcome; times: number }>();
  for (const outcome of outcomes) {
    const key = `${outcome.value} ${outcome.token ?? ''}`;
    const known = found.get(key);
    if (known) known.times++;
    else found.set(key, { outcome, times: 1 });
  }
  return [...found.values()].sort((a, b) => b.times - a.times).map(({ outcome }) => outcome);
}
