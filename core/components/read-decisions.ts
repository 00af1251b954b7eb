import type { ComponentDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { Decision, Rule } from './component';

/** Reads decisions; one about rules that are not there, or that have changed places since, no longer counts. */
export function readDecisions(
  document: ComponentDocument,
  rules: readonly Rule[],
  problems: ProblemList,
): Decision[] {
  // A rule that cannot be read is there all the same.
  const written = (document.rules ?? []).map(rule => rule.id);
  const ids = rules.some(rule => rule.nested !== undefined) ? rules.map(rule => rule.id) : written;
  return (document.decisions ?? []).flatMap((decision, index) => {
    const [earlier, later] = decision.rules as [string, string];
    const at = pointer('decisions', index, 'rules');
    const missing = [earlier, later].findIndex(id => !ids.includes(id));
    if (missing >= 0) {
      const id = decision.rules[missing]!;
      problems.warning(
        `${at}/${missing}`,
        'unknown-rule',
        `There is no rule “${id}” any more; this decision says nothing.`,
        nearest(id, ids),
        id,
      );
      return [];
    }
    if (ids.indexOf(earlier) >= ids.indexOf(later)) {
      problems.warning(
        at,
        'outdated-decision',
        `“${later}” was meant to have the last word over “${earlier}”, but “${earlier}” comes later now.`,
      );
      return [];
    }
    return [{ index, earlier, later, properties: decision.properties ?? null, because: decision.because }];
  });
}
