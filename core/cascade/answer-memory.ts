import type { Component } from '../components/component';
import type { Space } from '../space/space';

interface Answer {
  readonly inputs: readonly unknown[];
  readonly answer: unknown;
}

const answersIn = new WeakMap<Space, Map<string, Answer>>();

/**
 * An answer about a component's space, kept under a name and given again for as long as its inputs are the same, from one
 * version of the component to the next: after an edit only answers with a changed input are computed. One answer is kept for
 * each name of each component; components may share a space.
 */
export function remembered<Result>(
  { id, space }: Component,
  name: string,
  inputs: readonly unknown[],
  compute: () => Result,
): Result {
  let own = answersIn.get(space);
  if (!own) answersIn.set(space, (own = new Map()));
  const key = `${id} ${name}`;
  const before = own.get(key);
  if (before && sameInputs(before.inputs, inputs)) return before.answer as Result;
  const answer = compute();
  own.set(key, { inputs, answer });
  return answer;
}

const sameInputs = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((input, index) => input === b[index]);
