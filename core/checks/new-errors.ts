import type { Documents } from '../documents/document-kinds';
import type { Problem } from '../json/problem';
import { checkSystem } from './check-system';

/** Errors that documents have and did not have before, wherever in a document they stand. */
export function newErrors(before: Documents, after: Documents): Problem[] {
  if (before === after) return [];
  const errors = (documents: Documents): Problem[] =>
    checkSystem(documents).problems.filter(problem => problem.severity === 'error');
  const now = errors(after);
  if (now.length === 0) return [];
  const key = ({ file, code, message }: Problem): string => `${file} ${code} ${message}`;
  const known = new Set(errors(before).map(key));
  return now.filter(problem => !known.has(key(problem)));
}
