import type { Component, Rule } from '../components/component';
import { conditionWords } from '../space/condition';

/** Some rules as a comment tells them: the condition of each in words, its id, its note. */
export const rulesInWords = ({ space }: Component, rules: readonly Rule[]): string[] =>
  [...rules]
    .sort((a, b) => a.index - b.index)
    .map(({ id, region, note }) => {
      const words = conditionWords(region, space.axes);
      const condition = words.charAt(0).toUpperCase() + words.slice(1);
      return `${condition} (${id}).${note === '' ? '' : ` ${note}`}`;
    });
