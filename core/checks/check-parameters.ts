import type { Component } from '../components/component';
import { PARAMETER_TYPES, parametersIn, propertyLike } from '../components/parameters';
import { parameterProperty, tokenProperty } from '../output/tokens/token-names';
import type { ParameterDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { brief, oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { TokenSet } from '../tokens/token-set';
import { readValue, tokensIn } from '../css/value-syntax';

/** Checks a component's parameters, and what its uses of others set theirs to. */
export function parameterProblems(component: Component, tokens: TokenSet, prefix: string): LocalProblem[] {
  const problems = new ProblemList();
  const { parameters = [] } = component.document;
  if (parameters.length > 0) checkDeclared(component, parameters, tokens, prefix, problems);
  checkUses(component, tokens, problems);
  return problems.problems;
}

/** The parameters that a component has. What is taken of a base is told there; only what it is called in CSS differs. */
function checkDeclared(
  component: Component,
  parameters: readonly ParameterDocument[],
  tokens: TokenSet,
  prefix: string,
  problems: ProblemList,
): void {
  const own = new Set((component.derivation?.own ?? component.document).parameters?.map(({ id }) => id));
  const names = propertiesOf(tokens, prefix);
  const used = own.size > 0 ? usedParameters(component) : new Set();
  parameters.forEach((parameter, index) => {
    const at = pointer('parameters', index);
    const { id } = parameter;
    const name = parameterProperty(prefix, component.id, id);
    const twin = names.get(name);
    if (twin !== undefined)
      problems.error(
        `${at}/id`,
        'name-collision',
        `“${id}” and ${twin} would both be ${name} in CSS; rename one.`,
      );
    if (!own.has(id)) return;
    checkSaid(parameter, tokens, at, problems);
    if (!used.has(id))
      problems.warning(at, 'unused-parameter', `No rule reads “@${id}”, so setting it does nothing.`);
  });
}

/** What a parameter says of itself: a type there is, and a default of that type. */
function checkSaid(
  { type, default: value }: ParameterDocument,
  tokens: TokenSet,
  at: string,
  problems: ProblemList,
): void {
  if (!propertyLike(type))
    problems.error(
      `${at}/type`,
      'unknown-type',
      `“${brief(type)}” is no type that a parameter can have; there is ${oneOf(PARAMETER_TYPES, 12)}.`,
      nearest(type, PARAMETER_TYPES),
    );
  else if (parametersIn(value).length > 0)
    problems.error(`${at}/default`, 'wrong-type', 'A default is a value or a token, no other parameter.');
  else checkValue(value, type, tokens, `${at}/default`, problems);
}

const properties = new ObjectMemo<Map<string, ReadonlyMap<string, string>>>();

/** Keys of tokens by the custom property that each is in CSS. */
function propertiesOf(tokens: TokenSet, prefix: string): ReadonlyMap<string, string> {
  const byPrefix = properties.of([tokens.byKey], () => new Map<string, ReadonlyMap<string, string>>());
  let found = byPrefix.get(prefix);
  if (!found) {
    found = new Map([...tokens.byKey.values()].map(({ path, key }) => [tokenProperty(prefix, path), key]));
    byPrefix.set(prefix, found);
  }
  return found;
}

/** Keys of the parameters that rules of a component read, or that it hands on. */
function usedParameters({ document, nested }: Component): ReadonlySet<string> {
  const texts = (document.rules ?? []).flatMap(({ set }) =>
    Object.values(set).flatMap(properties => Object.values(properties)),
  );
  const given = nested.flatMap(({ use }) => Object.values(use.document.parameters ?? {}));
  return new Set([...texts, ...given].flatMap(parametersIn));
}

function checkUses({ nested, parameters }: Component, tokens: TokenSet, problems: ProblemList): void {
  for (const { use, component } of nested) {
    const ids = [...component.parameters.keys()].filter(key => !key.includes('/'));
    for (const [id, text] of Object.entries(use.document.parameters ?? {})) {
      const at = `${use.pointer}/parameters${pointer(id)}`;
      const type = component.parameters.get(id)?.document.type;
      if (type === undefined || !ids.includes(id)) {
        problems.error(
          at,
          'unknown-parameter',
          `“${component.id}” has no parameter “${brief(id)}”; there is ${oneOf(ids, 12)}.`,
          nearest(id, ids),
          id,
        );
        continue;
      }
      const [named] = parametersIn(text);
      if (named === undefined) {
        checkValue(text, type, tokens, at, problems);
        continue;
      }
      const own = parameters.get(named);
      if (!own || text.trim() !== `@${named}`)
        problems.error(
          at,
          'unknown-parameter',
          own
            ? 'A parameter is handed on as it is, @name alone.'
            : `There is no parameter “${brief(named)}” here to hand on.`,
          nearest(named, [...parameters.keys()]),
          named,
        );
      else if (own.document.type !== type)
        problems.error(at, 'wrong-type', `@${named} is a ${own.document.type}; “${id}” takes a ${type}.`);
    }
  }
}

/** A token of the type, or a literal that a property of such values takes. */
function checkValue(text: string, type: string, tokens: TokenSet, at: string, problems: ProblemList): void {
  const property = propertyLike(type);
  if (!property) return;
  const read = readValue(property, text);
  if (!read.ok) {
    problems.error(at, 'wrong-type', `“${brief(text)}” is no ${type}.`);
    return;
  }
  for (const key of tokensIn(read.value)) {
    const token = tokens.byKey.get(key);
    if (!token && !tokens.unresolved.has(key))
      problems.error(
        at,
        'unknown-token',
        `There is no token {${key}}.`,
        nearest(key, [...tokens.byKey.keys()]),
        key,
      );
    else if (token && read.value.kind === 'token' && token.type !== type)
      problems.error(at, 'wrong-type', `{${key}} is a ${token.type}, no ${type}.`);
  }
}
