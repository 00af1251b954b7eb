import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';

/** Reports every id of a list that stands there already. */
export function reportDuplicateIds(ids: readonly string[], list: string, problems: ProblemList): void {
  const seen = new Set<string>();
  ids.forEach((id, index) => {
    if (seen.has(id)) problems.error(pointer(list, index, 'id'), 'duplicate-id', `“${id}” is there already.`);
    seen.add(id);
  });
}
