import type { Documents } from '../formats/document-kinds';
import { inFile, ProblemList, type LocalProblem, type Problem } from '../formats/problem';
import { soundPart, type SoundPart } from '../formats/sound-part';
import { structureProblems } from '../formats/structure';
import { compileSystem, type System } from '../rules/system';
import { withoutConsequences, withoutTokenConsequences } from './consequences';
import { meaningProblems } from './meaning';

/** A system checked: compiled from all that can be read, with every problem of all documents. */
export interface CheckedSystem {
  readonly system: System;
  readonly problems: readonly Problem[];
}

/**
 * Checks everything there is to a system. What is broken in a document is reported and left out, and the rest of it checked
 * all the same; documents in `unreadable` could not be parsed. Problems that only follow from others are not reported, and
 * none is reported twice.
 */
export function checkSystem(
  documents: Documents,
  unreadable: ReadonlySet<string> = new Set(),
): CheckedSystem {
  const structure = new Map<string, readonly LocalProblem[]>();
  const reduced = new Map<string, SoundPart>();
  const sound = new Map<string, unknown>();
  const lost = new Set(unreadable);
  for (const [path, document] of documents) {
    const problems = structureProblems(path, document);
    const part = problems.length === 0 ? null : soundPart(path, document, problems);
    if (problems.length > 0) structure.set(path, problems);
    if (part) reduced.set(path, part);
    if (problems.length === 0 || part) sound.set(path, part ? part.document : document);
    else lost.add(path);
  }
  if (!documents.has('system.json') && !unreadable.has('system.json')) {
    const list = new ProblemList();
    list.error('', 'missing-file', 'A system needs a system.json.');
    structure.set('system.json', list.problems);
  }
  const system = compileSystem(sound);
  const meaning = meaningProblems(system);
  const files = new Set([...structure.keys(), ...meaning.map(problem => problem.file)]);
  const all = [...files].flatMap(file => {
    const place = reduced.get(file)?.placeInWhole ?? (pointer => pointer);
    const found = meaning
      .filter(problem => problem.file === file)
      .map(problem => ({ ...problem, pointer: place(problem.pointer) }));
    const own = [...(structure.get(file) ?? []), ...found];
    return inFile(file, withoutConsequences(documents.get(file), own));
  });
  return { system, problems: once(withoutTokenConsequences(all, documents, lost)) };
}

function once(problems: readonly Problem[]): Problem[] {
  const seen = new Set<string>();
  return problems.filter(({ file, pointer, code, message }) => {
    const key = [file, pointer, code, message].join('\n');
    return !seen.has(key) && seen.add(key);
  });
}
