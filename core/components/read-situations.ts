import type { SituationDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';
import { readCondition } from '../space/condition';
import type { Space } from '../space/space';
import type { Situation } from './component';
import { reportDuplicateIds } from './duplicate-ids';

/** Reads situations; one whose condition cannot be read is reported and left out. */
export function readSituations(
  documents: readonly SituationDocument[],
  space: Space,
  problems: ProblemList,
): Situation[] {
  reportDuplicateIds(
    documents.map(situation => situation.id),
    'situations',
    problems,
  );
  return documents.flatMap((situation, index) => {
    const region = readCondition(
      situation.when,
      space.axes,
      `${pointer('situations', index)}/when`,
      problems,
    );
    if (!region) return [];
    const when = Object.fromEntries(
      Object.entries(situation.when).map(([axis, value]) => [axis, [value].flat()[0]!]),
    );
    return [
      {
        id: situation.id,
        title: situation.title ?? situation.id,
        means: situation.means ?? '',
        region,
        when,
      },
    ];
  });
}
