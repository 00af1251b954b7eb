import type { Component } from '../components/component';
import type { System } from '../components/system';
import { tokensIn } from '../css/value-syntax';
import { ObjectMemo } from '../json/object-memo';
import type { LocalProblem } from '../json/problem';
import { QUOTAS } from '../json/quotas';
import type { TokenModel } from '../tokens/token-model';
import type { TokenSet } from '../tokens/token-set';
import { valueProblems } from './check-values';

/** By what is known of the tokens in use. */
const values = new ObjectMemo<Map<string, readonly LocalProblem[]>>();

/** What is wrong with values in the usual context, and what only elsewhere; found again only when tokens in use come, go or change type. */
export function valuesInAllContexts(component: Component, { tokens }: System): readonly LocalProblem[] {
  const byTokens = values.of([component.rules, component.anatomy], () => new Map<string, LocalProblem[]>());
  const known = knownOfTokens(component, tokens);
  let found = known === null ? undefined : byTokens.get(known);
  if (!found) {
    found = valuesAnew(component, tokens);
    byTokens.clear();
    if (known !== null) byTokens.set(known, found);
  }
  return found;
}

const namedTokens = new ObjectMemo<ReadonlySet<string>>();

/** All that a check of values asks about tokens, as text; `null` when one is missing, since then any other may be suggested. */
function knownOfTokens(component: Component, tokens: TokenModel): string | null {
  const told: string[] = [JSON.stringify(tokens.modifiers.map(({ name, contexts }) => [name, contexts]))];
  for (const own of tokens.alongEach()) {
    const known = knownInContext(component, own);
    if (known === null) return null;
    told.push(known);
  }
  return told.join('\n\n');
}

/** The same of one context. */
function knownInContext({ rules }: Component, tokens: TokenSet): string | null {
  const keys = namedTokens.of(
    [rules],
    () => new Set(rules.flatMap(({ written }) => written.flatMap(({ value }) => tokensIn(value)))),
  );
  const told: string[] = [];
  for (const key of keys) {
    const token = tokens.byKey.get(key);
    if (!token) return null;
    told.push(`${token.type} ${String(token.deprecated ?? '')}`);
  }
  return told.join('\n');
}

function valuesAnew(component: Component, tokens: TokenModel): LocalProblem[] {
  const found = valueProblems(component, tokens.usual());
  const seen = new Set(found.map(({ pointer: at, code }) => `${at} ${code}`));
  const usual = knownInContext(component, tokens.usual());
  const looked = new Set([tokens.usual()]);
  for (const modifier of tokens.modifiers) {
    for (const [context, own] of tokens.along(modifier)) {
      if (looked.has(own) || found.length > QUOTAS.problemsFound) continue;
      looked.add(own);
      // Where tokens exist and are of types as usual, nothing else can be wrong.
      if (usual !== null && knownInContext(component, own) === usual) continue;
      for (const problem of valueProblems(component, own)) {
        const key = `${problem.pointer} ${problem.code}`;
        if (seen.has(key)) continue;
        seen.add(key);
        found.push({ ...problem, message: `In ${modifier.name} ${context}: ${problem.message}` });
      }
    }
  }
  return found;
}
