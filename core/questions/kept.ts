import type { Space } from '../space/space';

interface Kept {
  readonly inputs: readonly unknown[];
  readonly answer: unknown;
}

const keptIn = new WeakMap<Space, Map<string, Kept>>();

/**
 * An answer about a space, kept under a name and given again for as long as its inputs are the same, from one version of a
 * component to the next: after an edit only answers with a changed input are computed. One answer is kept for each name.
 */
export function kept<Answer>(
  space: Space,
  name: string,
  inputs: readonly unknown[],
  compute: () => Answer,
): Answer {
  let own = keptIn.get(space);
  if (!own) keptIn.set(space, (own = new Map()));
  const before = own.get(name);
  if (before && sameInputs(before.inputs, inputs)) return before.answer as Answer;
  const answer = compute();
  own.set(name, { inputs, answer });
  return answer;
}

const sameInputs = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((input, index) => input === b[index]);
