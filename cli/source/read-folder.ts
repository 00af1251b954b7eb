import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind, type Documents } from '@periwinkle/core/documents/document-kinds';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { Problem } from '@periwinkle/core/json/problem';
import { readJson, repeatedKeys } from '@periwinkle/core/json/read-json';

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

/** Reads every document of a system's folder; files that cannot be documents are told of. Throws `FolderError`. */
export function readFolder(folder: string): Folder {
  const documents = new Map<string, unknown>();
  const texts = new Map<string, string>();
  const problems: Problem[] = [];
  const offsets = new Map<Problem, number>();
  const tell = (path: string, severity: 'error' | 'warning', code: string, message: string): void =>
    void problems.push({ file: path, pointer: '', severity, code, message });
  for (const { path, isFile } of entriesBelow(folder)) {
    const row = documentKind(path);
    if (!isFile) {
      // What lies behind a link may be anything, and another thing tomorrow.
      if (row || isOurs(path))
        tell(path, 'warning', 'not-a-file', 'This is a link, or no plain file; put the file itself here.');
      continue;
    }
    if (!row) {
      if (isOurs(path)) tell(path, 'warning', 'misnamed-file', misnamed(path));
      continue;
    }
    const file = join(folder, path);
    if (statSync(file).size > QUOTAS.documentLetters) {
      tell(
        path,
        'error',
        'too-large',
        `This file is larger than ${QUOTAS.documentLetters / 1024 / 1024} MiB.`,
      );
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
      for (const { offset, ...told } of repeatedKeys(text)) {
        const problem = { file: path, ...told };
        problems.push(problem);
        offsets.set(problem, offset);
      }
    } else {
      const problem = { file: path, ...read.problem };
      problems.push(problem);
      if (read.offset !== undefined) offsets.set(problem, read.offset);
    }
  }
  return { documents, texts, problems, offsets };
}

/** Where documents of a system lie, with the ends of the names they have there. */
const PLACES: Readonly<Record<string, string>> = {
  'tokens/': '.tokens.json or .resolver.json',
  'components/': '.component.json',
  'trials/': '.trial.json',
  'icons/': '.svg',
  'guide/': '.md',
};

const folderOf = (path: string): string | undefined =>
  Object.keys(PLACES).find(place => path.startsWith(place));

/** Whether a file lies where only documents of a system do, or looks like one. Hidden files are nobody's business. */
const isOurs = (path: string): boolean =>
  !path.split('/').some(step => step.startsWith('.')) &&
  (folderOf(path) !== undefined || /\.(tokens|resolver|component|trial)\.json$/.test(path));

function misnamed(path: string): string {
  const place = folderOf(path);
  return place === undefined
    ? 'This file is passed over: documents lie in tokens/, components/, trials/, icons/ and guide/.'
    : `This file is passed over: what lies right in ${place} ends in ${PLACES[place]!} and is named in letters, digits, . _ and -.`;
}

function entriesBelow(folder: string): { path: string; isFile: boolean }[] {
  let entries;
  try {
    entries = readdirSync(folder, { recursive: true, withFileTypes: true });
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'does not exist' : 'cannot be read as a folder';
    throw new FolderError(`“${folder}” ${reason}.`);
  }
  return entries
    .filter(entry => !entry.isDirectory())
    .map(entry => ({
      path: relative(folder, join(entry.parentPath, entry.name)).split(sep).join('/'),
      isFile: entry.isFile(),
    }))
    .filter(({ path }) => !path.includes('node_modules/'))
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}
