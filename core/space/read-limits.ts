import type { LimitDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';
import type { Axis } from './axis';
import { readCondition } from './condition';
import type { Limit } from './limit';

/** Reads the limits of a component; one that cannot be read is reported and left out. */
export function readLimits(
  documents: readonly LimitDocument[],
  axes: readonly Axis[],
  problems: ProblemList,
): Limit[] {
  return documents.flatMap((limit, index) => readLimit(limit, index, axes, problems) ?? []);
}

function readLimit(
  document: LimitDocument,
  index: number,
  axes: readonly Axis[],
  problems: ProblemList,
): Limit | null {
  const at = pointer('limits', index);
  const region = readCondition(document.while, axes, `${at}/while`, problems);
  // What a limit holds is a plain set of values: "away" means away, not "at least away".
  const held = readCondition(document.holds, axes, `${at}/holds`, problems, 'exact');
  if (!region || !held) return null;
  const holds = Object.entries(document.holds).map(([id, values]) => {
    const axis = axes.findIndex(candidate => candidate.id === id);
    const first = axes[axis]!.values.findIndex(value => value.id === [values].flat()[0]);
    return { axis, allowed: held[axis]!, first };
  });
  return { index, region, holds, because: document.because ?? '' };
}
