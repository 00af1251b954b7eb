import { ProblemList, type LocalProblem } from '../json/problem';
import type { Component } from '../components/component';
import { readProperty, readValue } from '../css/value-syntax';
import type { TokenSet } from '../tokens/token-set';
import { valueProblems } from './check-values';

/** What is wrong with a value that a person is about to set, before it is set; `null` when it can be. */
export function entryProblem(
  component: Component,
  tokens: TokenSet,
  part: string,
  propertyName: string,
  text: string,
): LocalProblem | null {
  const problems = new ProblemList();
  const read = readProperty(propertyName);
  if (!read.ok) {
    problems.error('', 'unknown-property', read.message, read.suggestion);
    return problems.problems[0]!;
  }
  const value = readValue(read.property, text);
  if (!value.ok) {
    problems.error('', value.code, value.message, value.suggestion);
    return problems.problems[0]!;
  }
  const setting = {
    part,
    property: read.property,
    text,
    value: value.value,
    written: propertyName,
    writtenPart: part,
  };
  const own = [setting];
  const alone = {
    id: 'entry',
    index: 0,
    region: component.space.full,
    settings: own,
    written: own,
    note: '',
  };
  const found = valueProblems({ ...component, rules: [alone] }, tokens);
  return found.find(problem => problem.severity === 'error') ?? null;
}
