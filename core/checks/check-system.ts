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

/** Checks everything there is to a system. Documents with a broken structure are reported and left out of the rest. */
export function checkSystem(documents: Documents): CheckedSystem {
  const broken: Problem[] = [];
  const sound = new Map<string, unknown>();
  for (const [path, document] of documents) {
    const problems = structureProblems(path, document);
    if (problems.length === 0) sound.set(path, document);
    else broken.push(...inFile(path, problems));
  }
  if (!documents.has('system.json')) {
    const list = new ProblemList();
    list.error('', 'missing-file', 'A system needs a system.json.');
    broken.push(...inFile('system.json', list.problems));
  }
  const system = compileSystem(sound);
  return { system, problems: [...broken, ...meaningProblems(system)] };
}
