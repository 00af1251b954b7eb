import type { TouchedComponent, TouchedListName } from '@periwinkle/core/edits/touched-entries';
import { counted } from '../common/numbers';

/** What entries of a list are called. */
const ENTRIES: Readonly<Record<TouchedListName, string>> = {
  anatomyEdits: 'change of parts',
  axes: 'axis',
  limits: 'limit',
  rules: 'rule',
  situations: 'situation',
  samples: 'sample',
  plates: 'plate',
  content: 'content key',
  parameters: 'parameter',
  decisions: 'decision',
};
const MANY: Partial<Record<TouchedListName, string>> = { anatomyEdits: 'changes of parts', axes: 'axes' };

const some = (list: TouchedListName, count: number): string => counted(count, ENTRIES[list], MANY[list]);

/** What an edit does to a component, in words: `3 rules and a plate follow; 2 rules go`. */
export function touchedWords({ fate, lists }: TouchedComponent): string {
  if (fate === 'made') return 'is made';
  if (fate === 'removed') return 'is removed';
  if (fate === 'renamed') return 'is named anew';
  const follow = lists.filter(({ changed }) => changed > 0).map(({ list, changed }) => some(list, changed));
  const go = lists.filter(({ gone }) => gone > 0).map(({ list, gone }) => some(list, gone));
  const said = [
    ...(follow.length > 0 ? [`${joined(follow)} ${isOne(follow) ? 'follows' : 'follow'}`] : []),
    ...(go.length > 0 ? [`${joined(go)} ${isOne(go) ? 'goes' : 'go'}`] : []),
  ];
  return said.join('; ') || 'follows';
}

const isOne = (words: readonly string[]): boolean => words.length === 1 && words[0]!.startsWith('1 ');

const joined = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
