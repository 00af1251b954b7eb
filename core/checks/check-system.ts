import type { Documents } from '../documents/document-kinds';
import { soundDocuments } from '../derivation/sound-documents';
import { compileSystem, type System } from '../components/system';
import { inFile, ProblemList, type LocalProblem, type Problem } from '../json/problem';
import { withoutBaseConsequences, withoutConsequences, withoutTokenConsequences } from './consequences';
import { meaningProblems } from './meaning-problems';

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
  const sound = soundDocuments(documents);
  const structure = new Map(sound.faults);
  if (!documents.has('system.json') && !unreadable.has('system.json')) {
    const list = new ProblemList();
    list.error('', 'missing-file', 'A system needs a system.json.');
    structure.set('system.json', list.problems);
  }
  const system = compileSystem(sound);
  const unknown = new Set([...unreadable, ...sound.lost]);
  const meaning = withoutBaseConsequences(
    system,
    meaningProblems(system),
    new Set([...structure.keys(), ...unknown]),
  );
  const byFile = new Map(
    [...structure].map(([file, faults]): [string, LocalProblem[]] => [file, [...faults]]),
  );
  for (const problem of meaning) {
    const own = byFile.get(problem.file);
    if (own) own.push(problem);
    else byFile.set(problem.file, [problem]);
  }
  const all = [...byFile].flatMap(([file, own]) =>
    inFile(file, withoutConsequences(documents.get(file), own)),
  );
  return { system, problems: once(withoutTokenConsequences(all, documents, unknown)) };
}

function once(problems: readonly Problem[]): Problem[] {
  const seen = new Set<string>();
  return problems.filter(({ file, pointer, code, message }) => {
    const key = [file, pointer, code, message].join('\n');
    return !seen.has(key) && seen.add(key);
  });
}
