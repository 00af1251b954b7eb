import type { Component, Nested, Rule, Setting } from '../component';
import type { Parameters } from '../parameter';
import { inside, withDefaults } from '../parameters';
import { forStylesheets } from '../read-rules';
import { ObjectMemo } from '../../json/object-memo';
import { pointer } from '../../json/json';
import type { ProblemList } from '../../json/problem';
import { nearest } from '../../text/suggestions';
import type { RuleDocument } from '../../documents/component-document';
import { mapCalc } from '../../css/calc';
import { readValue, type Value } from '../../css/value-syntax';

const merged = new ObjectMemo<Merged>();

/** The component that nested rules are read into. */
type Around = Pick<Component, 'space' | 'parameters'>;

interface Merged {
  readonly rules: readonly Rule[];
  /** Own rules that name a nested one that is not there. */
  readonly lost: readonly { readonly rule: Rule; readonly ids: readonly string[] }[];
}

/**
 * The rules of a component with those of the ones nested in it: these first, in the order of their parts, then its own, each that
 * names a nested rule right behind that one, several in the order in which they are written.
 */
export function withNestedRules(
  own: readonly Rule[],
  documents: readonly RuleDocument[],
  nested: readonly Nested[],
  around: Around,
  problems: ProblemList,
): readonly Rule[] {
  if (nested.length === 0) return own;
  const lists = nested.map(each => rulesOf(each, around));
  const { rules, lost } = merged.of([own, documents, ...lists], () => merge(own, documents, lists.flat()));
  for (const { rule, ids } of lost) {
    const after = documents[rule.index]!.after!;
    problems.error(
      pointer('rules', rule.index, 'after'),
      'unknown-rule',
      `There is no rule “${after}” to stand behind.`,
      nearest(after, ids),
      after,
    );
  }
  return rules;
}

function merge(own: readonly Rule[], documents: readonly RuleDocument[], nested: readonly Rule[]): Merged {
  const ids = new Set(nested.map(rule => rule.id));
  const followers = new Map<string, Rule[]>();
  const last: Rule[] = [];
  const lost: Merged['lost'][number][] = [];
  for (const rule of own) {
    const after = documents[rule.index]!.after;
    if (after === undefined || !after.includes('/')) last.push(rule);
    else if (ids.has(after)) followers.set(after, [...(followers.get(after) ?? []), rule]);
    else {
      lost.push({ rule, ids: [...ids] });
      last.push(rule);
    }
  }
  return { rules: [...nested.flatMap(rule => [rule, ...(followers.get(rule.id) ?? [])]), ...last], lost };
}

const lists = new ObjectMemo<readonly Rule[]>();

const rulesOf = (nested: Nested, around: Around): readonly Rule[] =>
  lists.of([nested.component.rules, nested.component.anatomy, nested.reading, around.parameters], () =>
    nested.component.rules.map(rule => ruleOf(rule, nested, around)),
  );

const rules = new ObjectMemo<Rule>();

/** A nested rule as it stands in the parent; the same as long as it is the same there. */
const ruleOf = (rule: Rule, nested: Nested, { space, parameters }: Around): Rule =>
  rules.of([rule, nested.component.anatomy, nested.reading, parameters], () => {
    const { name, component, reading } = nested;
    const extent = reading.where(component.space.spoken(rule));
    const moved = (setting: Setting): Setting => ({
      ...setting,
      part: `${name}/${setting.part}`,
      value: valueIn(name, setting.value),
      ...parameteredIn(name, setting, parameters),
    });
    const settings = rule.settings.map(moved);
    // Most that is written is a setting as it is.
    const known = new Map(rule.settings.map((setting, place) => [setting, settings[place]!]));
    return {
      id: `${name}/${rule.id}`,
      index: rule.index,
      region: space.extents.hull(extent, 'own'),
      extent,
      nested: name,
      settings,
      written: rule.written.map(setting => known.get(setting) ?? moved(setting)),
      note: rule.note,
    };
  });

/** What parameters come to as this use gives them. */
function parameteredIn(
  name: string,
  { parametered: text, property }: Setting,
  parameters: Parameters,
): Partial<Setting> {
  if (text === undefined) return {};
  const parametered = inside(name, text);
  const value = readValue(property, withDefaults(parametered.replace(/\{(@[^{}]*)\}/g, '$1'), parameters));
  return { ...(value.ok ? { value: value.value } : {}), ...forStylesheets(property, parametered) };
}

/** What it refers to lies in the same nested component. */
function valueIn(name: string, value: Value): Value {
  if (value.kind !== 'calc') return value;
  const calc = mapCalc(value.calc, leaf =>
    leaf.kind === 'property' ? { ...leaf, part: `${name}/${leaf.part}` } : null,
  );
  return { ...value, calc };
}
