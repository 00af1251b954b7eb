import { ProblemList } from '@periwinkle/core/json/problem';
import { readCondition } from '@periwinkle/core/space/condition';
import type { Box } from '@periwinkle/core/space/box';
import type { Space } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { UsageError } from './load';

/** Reads `theme=night,density=compact`. Throws `UsageError`. */
export function readPairs(text: string, option: string): [string, string][] {
  return text
    .split(',')
    .map(pair => pair.trim())
    .filter(pair => pair !== '')
    .map(pair => {
      const match = /^([^=\s]+)\s*=\s*([^=\s]+)$/.exec(pair);
      if (!match) throw new UsageError(`${option}: “${pair}” is not of the form name=value.`);
      return [match[1]!, match[2]!] as [string, string];
    });
}

export const readContext = (text: string | undefined): ContextInput =>
  Object.fromEntries(text === undefined ? [] : readPairs(text, '--context'));

/** Reads `size=large,pointer=over` as a condition over a space; an axis named twice takes either value. */
export function readWhen(text: string, space: Space): Box {
  const condition: Record<string, string | string[]> = {};
  for (const [axis, value] of readPairs(text, '--when')) {
    condition[axis] = Object.hasOwn(condition, axis) ? [condition[axis]!, value].flat() : value;
  }
  const problems = new ProblemList();
  const box = readCondition(condition, space.axes, '', problems);
  if (!box) {
    const { message, suggestion } = problems.problems[0]!;
    throw new UsageError(`--when: ${message}${suggestion ? ` Did you mean ${suggestion}?` : ''}`);
  }
  return box;
}
