import type { Meeting, PendingEdit, PendingPart } from './working-copy';

/**
 * An edit that met another, to be made once more on top of that. Its keys follow from the old ones, so that it is stored once, should two
 * windows decide the same.
 */
export function madeAgain(edit: PendingEdit, parts: readonly PendingPart[]): PendingEdit {
  const fresh = parts.map(part => ({ ...part, key: nextKey(part.key) }));
  return { ...edit, key: fresh[0]!.key, changeId: nextKey(edit.key), parts: fresh };
}

/** Whether another window, which had the same meeting, has made our edit once more by an edit of this key. */
export const isMadeAgain = ({ mine }: Meeting, key: string): boolean =>
  mine.parts.some(part => nextKey(part.key) === key);

/** `key~2` after `key`, `key~3` after that. */
function nextKey(key: string): string {
  const [base, number = '1'] = key.split('~') as [string, string?];
  return `${base}~${Number(number) + 1}`;
}
