import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind, type Documents } from '@periwinkle/core/formats/document-kinds';
import { ProblemList, type Problem } from '@periwinkle/core/formats/problem';
import { readJson } from '@periwinkle/core/formats/read-json';

/** A system's folder as read from disk: what could be parsed, the text of every file, and what is wrong. */
export interface Folder {
  readonly documents: Documents;
  readonly texts: ReadonlyMap<string, string>;
  readonly problems: readonly Problem[];
  /** Offset in the file of problems that have no place in a parsed document. */
  readonly offsets: ReadonlyMap<Problem, number>;
}

/** A folder that is not there, or not a folder. */
export class FolderError extends Error {}

const MAX_FILE = 8 * 1024 * 1024;

/** Reads every document of a system's folder; other files are passed over. Throws `FolderError`. */
export function readFolder(folder: string): Folder {
  const documents = new Map<string, unknown>();
  const texts = new Map<string, string>();
  const problems: Problem[] = [];
  const offsets = new Map<Problem, number>();
  for (const path of filesBelow(folder)) {
    const row = documentKind(path);
    if (!row) continue;
    const file = join(folder, path);
    if (statSync(file).size > MAX_FILE) {
      const list = new ProblemList();
      list.error('', 'too-large', `This file is larger than ${MAX_FILE / 1024 / 1024} MiB.`);
      problems.push({ file: path, ...list.problems[0]! });
      continue;
    }
    const text = readFileSync(file, 'utf8');
    texts.set(path, text);
    if (!row.json) {
      documents.set(path, text);
      continue;
    }
    const read = readJson(text);
    if (read.ok) {
      documents.set(path, read.value);
    } else {
      const problem = { file: path, ...read.problem };
      problems.push(problem);
      if (read.offset !== undefined) offsets.set(problem, read.offset);
    }
  }
  return { documents, texts, problems, offsets };
}

function filesBelow(folder: string): string[] {
  let entries;
  try {
    entries = readdirSync(folder, { recursive: true, withFileTypes: true });
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'does not exist' : 'cannot be read as a folder';
    throw new FolderError(`“${folder}” ${reason}.`);
  }
  return entries
    .filter(entry => entry.isFile())
    .map(entry => relative(folder, join(entry.parentPath, entry.name)).split(sep).join('/'))
    .filter(path => !path.includes('node_modules/'))
    .sort();
}
