import type { Documents } from '../documents/document-kinds';
import type { LocalProblem } from '../json/problem';
import { soundPart, type SoundPart } from '../documents/sound-part';
import { structureProblems } from '../documents/structure-problems';
import type { Expansion } from './expansion';

/** Documents reduced to what has the right structure, so that the rest can be compiled and checked all the same. */
export interface SoundDocuments extends Expansion {
  /** What is wrong with the structure, by file; files without fault are not in it. */
  readonly faults: ReadonlyMap<string, readonly LocalProblem[]>;
  /** Documents of which nothing could be kept. */
  readonly lost: ReadonlySet<string>;
}

/** The step of an expansion that leaves out what cannot be read. Documents without fault stay the same objects. */
export function soundDocuments(documents: Documents): SoundDocuments {
  const faults = new Map<string, readonly LocalProblem[]>();
  const reduced = new Map<string, SoundPart>();
  const sound = new Map<string, unknown>();
  const lost = new Set<string>();
  for (const [path, document] of documents) {
    const problems = structureProblems(path, document);
    if (problems.length === 0) {
      sound.set(path, document);
      continue;
    }
    faults.set(path, problems);
    const part = soundPart(path, document, problems);
    if (!part) lost.add(path);
    else {
      reduced.set(path, part);
      sound.set(path, part.document);
    }
  }
  return {
    documents: sound,
    faults,
    lost,
    origin: ({ file, pointer }) => ({ file, pointer: reduced.get(file)?.placeInWhole(pointer) ?? pointer }),
  };
}
