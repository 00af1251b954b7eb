import type { ComponentDocument, PlateDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { oneOf, type ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import { readCondition } from '../space/condition';
import type { Space } from '../space/space';
import { reportDuplicateIds } from './duplicate-ids';

/** Reads plates; axes that are not there are reported and left off. */
export function readPlates(
  document: ComponentDocument,
  space: Space,
  problems: ProblemList,
): PlateDocument[] {
  const documents = document.plates ?? [];
  reportDuplicateIds(
    documents.map(plate => plate.id),
    'plates',
    problems,
  );
  const names = ['situation', ...space.axes.map(axis => axis.id)];
  const situations = (document.situations ?? []).map(situation => situation.id);
  const samples = (document.samples ?? []).map(sample => sample.id);
  return documents.map((plate, index) => {
    const at = pointer('plates', index);
    const known = (direction: 'across' | 'down'): string[] =>
      plate[direction].filter((axis, place) => {
        if (names.includes(axis)) return true;
        problems.error(
          `${at}/${direction}/${place}`,
          'unknown-axis',
          `There is no axis “${axis}”; there is ${oneOf(names, 12)}.`,
          nearest(axis, names),
          axis,
        );
        return false;
      });
    for (const [axis, value] of Object.entries(plate.hold ?? {})) {
      readCondition({ [axis]: value }, space.axes, `${at}/hold`, problems, 'exact');
    }
    for (const [axis, values] of Object.entries(plate.values ?? {})) {
      if (axis === 'situation') checkSituations(values, situations, `${at}/values/situation`, problems);
      else readCondition({ [axis]: values }, space.axes, `${at}/values`, problems, 'exact');
    }
    if (plate.sample !== undefined && !samples.includes(plate.sample)) {
      problems.error(
        `${at}/sample`,
        'unknown-sample',
        `There is no sample “${plate.sample}”.`,
        nearest(plate.sample, samples),
        plate.sample,
      );
    }
    return { ...plate, across: known('across'), down: known('down') };
  });
}

function checkSituations(
  wanted: readonly string[],
  known: readonly string[],
  at: string,
  problems: ProblemList,
): void {
  wanted.forEach((id, index) => {
    if (known.includes(id)) return;
    const message = `There is no situation “${id}”; there is ${oneOf(known, 12)}.`;
    problems.error(at + pointer(index), 'unknown-situation', message, nearest(id, known), id);
  });
}
