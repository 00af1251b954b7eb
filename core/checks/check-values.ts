import { pointer } from '../json/json';
import { oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { ObjectMemo } from '../json/object-memo';
import { nearest, Suggestions } from '../text/suggestions';
import { calcReferences, namesPercent, type Calc } from '../css/calc';
import type { Component, Rule, Setting } from '../components/component';
import type { Property } from '../css/property';
import { propertyNamed, PROPERTY_NAMES } from '../css/property-registry';
import { CalcTypeError, evaluate, readQuantity, type Dimension, type Quantity } from '../css/units';
import { valueType } from '../css/value-types';
import { takesPercent } from '../css/value-syntax';
import type { Token, TokenSet } from '../tokens/token-set';

/** Dimensions of token types that can be calculated with. */
const TOKEN_DIMENSION: Readonly<Record<string, Dimension>> = {
  dimension: 'length',
  duration: 'time',
  number: 'number',
  fontWeight: 'number',
};

/** Checks the values of a component's rules against the tokens: do they exist, do types and units fit? */
export function valueProblems(component: Component, tokens: TokenSet): LocalProblem[] {
  const problems = new ProblemList();
  for (const rule of component.rules) {
    // What a nested component says is checked there.
    if (rule.nested !== undefined) continue;
    for (const setting of rule.written) {
      const at = settingPointer(rule, setting);
      const { value, property } = setting;
      // A parameter alone is checked where it is read, and its default where that stands.
      if (setting.parametered !== undefined && value.kind !== 'calc') continue;
      if (value.kind === 'token') checkToken(value.key, property, tokens, at, problems);
      if (value.kind === 'calc') checkCalc(value.calc, property, component, tokens, at, problems);
    }
  }
  return problems.problems;
}

export function settingPointer(rule: Rule, setting: Setting): string {
  return pointer('rules', rule.index, 'set', setting.writtenPart, setting.written);
}

/** What is wrong with using a token for a property, in words; `null` when it fits. */
function tokenMisfit(token: Token, property: Property): string | null {
  const { tokenTypes } = valueType(property.kind);
  if (tokenTypes.includes(token.type)) return null;
  const wanted = tokenTypes.length > 0 ? `takes ${oneOf(tokenTypes)} tokens` : 'takes no token';
  return `{${token.key}} is a ${token.type}; ${property.name} ${wanted}.`;
}

function checkToken(
  key: string,
  property: Property,
  tokens: TokenSet,
  at: string,
  problems: ProblemList,
): void {
  const token = tokens.byKey.get(key);
  if (!token) {
    reportMissing(key, tokens, at, problems, valueType(property.kind).tokenTypes);
    return;
  }
  const misfit = tokenMisfit(token, property);
  if (misfit) problems.error(at, 'wrong-type', misfit);
  if (token.deprecated) {
    const reason = typeof token.deprecated === 'string' ? `: ${token.deprecated}` : '';
    problems.warning(at, 'deprecated-token', `{${key}} is deprecated${reason}.`);
  }
}

function reportMissing(
  key: string,
  tokens: TokenSet,
  at: string,
  problems: ProblemList,
  types: readonly string[],
): void {
  if (tokens.unresolved.has(key)) return;
  const near = suggestionsAmong(tokens, types).nearest(key) ?? suggestionsAmong(tokens, []).nearest(key);
  problems.error(at, 'unknown-token', `There is no token {${key}}.`, near && `{${near}}`, key);
}

const suggestions = new ObjectMemo<Map<string, Suggestions>>();

/** What can be suggested of some types; all tokens where none is named. */
function suggestionsAmong(tokens: TokenSet, types: readonly string[]): Suggestions {
  const byTypes = suggestions.of([tokens], () => new Map<string, Suggestions>());
  const key = types.join();
  let found = byTypes.get(key);
  if (!found) {
    const fitting = [...tokens.byKey.values()].filter(
      token => types.length === 0 || types.includes(token.type),
    );
    byTypes.set(key, (found = new Suggestions(fitting.map(token => token.key))));
  }
  return found;
}

function checkCalc(
  calc: Calc,
  property: Property,
  component: Component,
  tokens: TokenSet,
  at: string,
  problems: ProblemList,
): void {
  const { tokens: keys, properties } = calcReferences(calc);
  const missing = [...new Set(keys)].filter(key => !tokens.byKey.has(key));
  missing.forEach(key => reportMissing(key, tokens, at, problems, ['dimension', 'number', 'duration']));
  const broken = properties.filter(
    ({ part, property: name }) => !checkReference(part, name, component, at, problems),
  );
  if (missing.length > 0 || broken.length > 0) return;
  const wanted = valueType(property.kind).calc;
  try {
    const result = evaluate(calc, 16, node =>
      node.kind === 'token' ? tokenQuantity(tokens.byKey.get(node.key)!) : propertyQuantity(node.property),
    );
    if (namesPercent(calc) && !takesPercent(property))
      problems.error(at, 'wrong-unit', `${property.name} takes no percentage.`);
    else if (!wanted.includes(result.dimension))
      problems.error(
        at,
        'wrong-unit',
        `This comes to a ${result.dimension}; ${property.name} takes a ${oneOf(wanted)}.`,
      );
  } catch (error) {
    if (!(error instanceof CalcTypeError)) throw error;
    problems.error(at, 'wrong-unit', `This calculation ${error.message}.`);
  }
}

function tokenQuantity(token: Token): Quantity {
  const dimension = TOKEN_DIMENSION[token.type];
  if (!dimension) throw new CalcTypeError(`uses {${token.key}}, which is a ${token.type}`);
  return readQuantity(token.css, 16) ?? { dimension, amount: null };
}

/** For the check of units only the kind of quantity matters; what it comes to depends on the combination. */
function propertyQuantity(name: string): Quantity {
  const [wanted] = valueType(propertyNamed(name)!.kind).calc;
  if (!wanted) throw new CalcTypeError(`uses @….${name}, which is no quantity`);
  return { dimension: wanted, amount: null };
}

function checkReference(
  part: string,
  name: string,
  component: Component,
  at: string,
  problems: ProblemList,
): boolean {
  if (!component.anatomy.byName.has(part)) {
    const names = [...component.anatomy.byName.keys()];
    const near = nearest(part, names);
    problems.error(
      at,
      'unknown-part',
      `There is no part “${part}” to refer to.`,
      near && `@${near}.${name}`,
      part,
    );
    return false;
  }
  if (!propertyNamed(name)) {
    const near = nearest(name, PROPERTY_NAMES);
    problems.error(
      at,
      'unknown-property',
      `There is no property “${name}” to refer to.`,
      near && `@${part}.${near}`,
    );
    return false;
  }
  return true;
}
