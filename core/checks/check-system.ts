import type { Documents } from '../formats/document-kinds';
import { inFile, ProblemList, type Problem } from '../formats/problem';
import { structureProblems } from '../formats/structure';
import { compileSystem, type System } from '../rules/system';
import { meaningProblems } from './meaning';

/** A system checked: compiled from the sound documents, with every problem of all documents. */
export interface CheckedSystem {
  readonly system: System;
  readonly problems: readonly Problem[];
}

/** Problems that can follow from another document being broken or unreadable: its tokens and files are not there then. */
const FOLLOWING = new Set([
  'missing-file',
  'missing-token',
  'unknown-token',
  'missing-reference',
  'unknown-icon',
  'missing-type',
]);

/**
 * Checks everything there is to a system. Documents with a broken structure are reported and left out of the rest, like
 * those in `unreadable`, which could not be parsed; what only follows from their absence is not reported.
 */
export function checkSystem(
  documents: Documents,
  unreadable: ReadonlySet<string> = new Set(),
): CheckedSystem {
  const broken: Problem[] = [];
  const sound = new Map<string, unknown>();
  for (const [path, document] of documents) {
    const problems = structureProblems(path, document);
    if (problems.length === 0) sound.set(path, document);
    else broken.push(...inFile(path, problems));
  }
  if (!documents.has('system.json') && !unreadable.has('system.json')) {
    const list = new ProblemList();
    list.error('', 'missing-file', 'A system needs a system.json.');
    broken.push(...inFile('system.json', list.problems));
  }
  const system = compileSystem(sound);
  const absent = [...unreadable, ...broken.map(problem => problem.file)];
  const following = absent.some(path => path === 'system.json' || path.startsWith('tokens/'));
  const found = meaningProblems(system).filter(problem => !(following && FOLLOWING.has(problem.code)));
  return { system, problems: [...broken, ...found] };
}
