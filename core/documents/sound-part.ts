import { isObject, pointer, pointerSteps, type Step } from '../json/json';
import { documentKind, type DocumentKind } from './document-kinds';
import type { LocalProblem } from '../json/problem';
import { structureProblems } from './structure-problems';

/** A document reduced to what has the right structure, so that the rest of it can be checked all the same. */
export interface SoundPart {
  readonly document: unknown;
  /** Where a place of the reduced document is in the whole one. */
  readonly placeInWhole: (pointer: string) => string;
}

/** The id of what has none that can be read. */
export const UNREADABLE = 'unreadable';

/** What stands in where a document cannot do without a key. */
const STAND_INS: Partial<Record<DocumentKind, (rest: Readonly<Record<string, unknown>>) => object>> = {
  component: rest => ({
    format: 'periwinkle-component/1',
    id: UNREADABLE,
    // What is derived has its base's.
    ...(typeof rest['extends'] === 'string' ? {} : { anatomy: { part: 'root', kind: 'stack' } }),
  }),
  system: () => ({ format: 'periwinkle-system/1', id: 'system', title: 'System', prefix: 'ds' }),
  resolver: () => ({ version: '2025.10', resolutionOrder: [] }),
  tokens: () => ({}),
  trial: () => ({ format: 'periwinkle-trial/1', id: UNREADABLE, fields: [] }),
};

/** Each round takes out what the last one found; what is left then is given up. */
const ROUNDS = 40;

/**
 * Takes out of a document whatever its structure problems lie in: a wrong member, else the list entry or object around it.
 * Gives `null` when nothing is left.
 */
export function soundPart(path: string, whole: unknown, problems: readonly LocalProblem[]): SoundPart | null {
  const row = documentKind(path);
  const standIns = row && STAND_INS[row.kind];
  if (!standIns || !isObject(whole) || problems.some(({ code }) => code === 'too-many-tokens')) return null;
  const out = new Set<string>();
  let found: readonly LocalProblem[] = problems;
  for (let round = 0; round < ROUNDS; round++) {
    const before = out.size;
    for (const problem of found) {
      const place = round === 0 ? problem.pointer : placeInWhole(whole, out, problem.pointer);
      if (place !== '') out.add(place);
    }
    // What lies nowhere inside cannot be taken out; what is missing was put in by the first round.
    if (round > 0 && out.size === before) return null;
    const rest = reduced(whole, '', out) as Readonly<Record<string, unknown>>;
    const document = { ...standIns(rest), ...rest };
    found = structureProblems(path, document);
    if (found.length === 0) return { document, placeInWhole: each => placeInWhole(whole, out, each) };
  }
  return null;
}

function reduced(node: unknown, at: string, out: ReadonlySet<string>): unknown {
  if (Array.isArray(node))
    return node.flatMap((item, index) => {
      const here = at + pointer(index);
      return out.has(here) ? [] : [reduced(item, here, out)];
    });
  if (!isObject(node)) return node;
  return Object.fromEntries(
    Object.entries(node).flatMap(([key, item]) => {
      const here = at + pointer(key);
      return out.has(here) ? [] : [[key, reduced(item, here, out)]];
    }),
  );
}

/** Entries of lists have moved up where others were taken out. */
function placeInWhole(whole: unknown, out: ReadonlySet<string>, place: string): string {
  let here = '';
  let node: unknown = whole;
  for (const step of pointerSteps(place) ?? []) {
    let own: Step = step;
    if (Array.isArray(node)) {
      const kept = node.flatMap((_, index) => (out.has(here + pointer(index)) ? [] : [index]));
      own = kept[Number(step)] ?? step;
    }
    node = (node as Readonly<Record<Step, unknown>> | undefined)?.[own];
    here += pointer(own);
  }
  return here;
}
