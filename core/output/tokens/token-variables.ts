import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { ObjectMemo } from '../../json/object-memo';
import { tokensIn } from '../../css/value-syntax';
import { readReference, referencesIn } from '../../tokens/references';
import type { Token, TokenSet } from '../../tokens/token-set';
import { linkable } from '../../tokens/linkable';
import { absentMember, compositeMembers, valueCss } from '../../tokens/token-types';
import { parameterTexts } from '../stylesheet/parameter-css';
import { memberProperty, tokenProperty } from './token-names';

/** What one custom property stands for: a token, or one member of a composite token. */
export interface TokenVariable {
  readonly id: string;
  readonly key: string;
  readonly member: string | null;
}

const wholeToken = (key: string): TokenVariable => ({ id: key, key, member: null });

const memberOf = (key: string, member: string): TokenVariable => ({ id: `${key}\n${member}`, key, member });

/** The custom property's name; `null` where the token is not there. */
export function variableName(variable: TokenVariable, set: TokenSet, prefix: string): string | null {
  const path = set.byKey.get(variable.key)?.path;
  if (path === undefined) return null;
  return variable.member === null
    ? tokenProperty(prefix, path)
    : memberProperty(prefix, path, variable.member);
}

/** The custom property's text in one context, references to other tokens kept as `var()`; `null` where there is none. */
export function variableText(variable: TokenVariable, set: TokenSet, prefix: string): string | null {
  const token = set.byKey.get(variable.key);
  if (!token) return null;
  const { member } = variable;
  if (member === null) return linkedText(token.type, token.raw, token.value, set, prefix);
  const type = compositeMembers(token.type)[member];
  if (type === undefined) return null;
  const whole = readReference(token.raw);
  const target = whole?.kind === 'alias' ? set.byKey.get(whole.key) : undefined;
  if (target) return `var(${memberProperty(prefix, target.path, member)})`;
  const value = (token.value as Readonly<Record<string, unknown>>)[member];
  if (value === undefined) return absentMember(token.type, member);
  return linkedText(
    type,
    whole ? value : (token.raw as Readonly<Record<string, unknown>>)[member],
    value,
    set,
    prefix,
  );
}

function linkedText(type: string, raw: unknown, value: unknown, set: TokenSet, prefix: string): string {
  return valueCss(type, linkable(type, raw, value), part => {
    const reference = readReference(part);
    const target = reference?.kind === 'alias' ? set.byKey.get(reference.key) : undefined;
    return target ? `var(${tokenProperty(prefix, target.path)})` : null;
  });
}

/** The variables to which a variable's text refers in one context. */
function referredVariables(variable: TokenVariable, set: TokenSet): TokenVariable[] {
  const token: Token | undefined = set.byKey.get(variable.key);
  if (!token) return [];
  const whole = readReference(token.raw);
  const { member } = variable;
  if (member !== null && whole) return whole.kind === 'alias' ? [memberOf(whole.key, member)] : [];
  const [type, raw, value] =
    member === null
      ? [token.type, token.raw, token.value]
      : [
          compositeMembers(token.type)[member] ?? '',
          (token.raw as Readonly<Record<string, unknown>>)[member],
          (token.value as Readonly<Record<string, unknown>>)[member],
        ];
  return referencesIn(linkable(type, raw, value)).flatMap(({ reference }) =>
    reference.kind === 'alias' ? [wholeToken(reference.key)] : [],
  );
}

/** Variables, each with those that it refers to in any of some contexts. */
export type VariableGraph = ReadonlyMap<string, { variable: TokenVariable; refersTo: readonly string[] }>;

/** All variables that rules of any component use, also through other tokens, in the order of the token files. */
export function usedVariables(system: System, sets: readonly TokenSet[]): VariableGraph {
  return reachable([...pageVariables(system), ...system.components.flatMap(variablesIn)], sets);
}

const pageVariables = ({ page }: System): TokenVariable[] =>
  [page.surface, page.ink].flatMap(key => (key === null ? [] : [wholeToken(key)]));

const inComponents = new ObjectMemo<readonly TokenVariable[]>();

/** The variables that a component's rules and parameters name. */
const variablesIn = (component: Component): readonly TokenVariable[] =>
  inComponents.of([component], () => [
    ...component.rules.flatMap(({ settings }) =>
      settings.flatMap(({ value }) =>
        value.kind === 'member' ? [memberOf(value.key, value.member.key)] : tokensIn(value).map(wholeToken),
      ),
    ),
    ...parameterTexts(component).flatMap(text => {
      const reference = readReference(text);
      return reference?.kind === 'alias' ? [wholeToken(reference.key)] : [];
    }),
  ]);

/** The tokens that rules of any component use in a context, also through other tokens. */
export function usedTokens(system: System, { byKey }: TokenSet): ReadonlySet<Token> {
  const open = [...pageVariables(system), ...system.components.flatMap(variablesIn)].map(({ key }) => key);
  const found = new Set<Token>();
  for (let key = open.pop(); key !== undefined; key = open.pop()) {
    const token = byKey.get(key);
    if (!token || found.has(token)) continue;
    found.add(token);
    open.push(...token.refersTo);
  }
  return found;
}

function reachable(start: readonly TokenVariable[], sets: readonly TokenSet[]): VariableGraph {
  const open = [...start];
  const found = new Map<string, { variable: TokenVariable; refersTo: readonly string[] }>();
  for (let variable = open.pop(); variable; variable = open.pop()) {
    if (found.has(variable.id)) continue;
    const referred = sets.flatMap(set => referredVariables(variable!, set));
    found.set(variable.id, { variable, refersTo: [...new Set(referred.map(each => each.id))] });
    open.push(...referred);
  }
  const order = new Map(
    [...new Set(sets.flatMap(set => [...set.byKey.keys()]))].map((key, place) => [key, place]),
  );
  return new Map(
    [...found]
      .filter(([, { variable }]) => order.has(variable.key))
      .sort(([, a], [, b]) => {
        const byKey = order.get(a.variable.key)! - order.get(b.variable.key)!;
        return byKey || (a.variable.id < b.variable.id ? -1 : 1);
      }),
  );
}

/** Every variable there can be of a token: itself, and all members of a composite one. */
export const variablesOf = ({ key, type }: Token): TokenVariable[] => [
  wholeToken(key),
  ...Object.keys(compositeMembers(type)).map(member => memberOf(key, member)),
];
