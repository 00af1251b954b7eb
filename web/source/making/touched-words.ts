import { ENTRY_WORDS, type ComponentList } from '@periwinkle/core/documents/component-document';
import type { TouchedComponent } from '@periwinkle/core/edits/touched-entries';
import { counted } from '../common/numbers';

const MANY: Partial<Record<ComponentList, string>> = { anatomyEdits: 'changes of parts', axes: 'axes' };

const some = (list: ComponentList, count: number): string => counted(count, ENTRY_WORDS[list]!, MANY[list]);

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
