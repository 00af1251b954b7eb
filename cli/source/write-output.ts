import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, isAbsolute, join, relative, resolve, sep } from 'node:path';
import type { OutputFile } from '@periwinkle/core/output/outputs';
import { UsageError } from './load';

/** Lists in an output folder what we have put there, so that what is no longer made can be taken out. */
const LIST = '.periwinkle-output.json';

/** Makes sure that a folder can be written to without harm. Throws `UsageError`. */
export function checkOut(out: string, source: string): void {
  for (let here = resolve(out); ; here = dirname(here)) {
    if (existsSync(here)) {
      if (!statSync(here).isDirectory())
        throw new UsageError(`--out: “${relative('', here) || here}” is a file; name a folder.`);
      if (isInside(join(realpathSync(here), relative(here, resolve(out))), realpathSync(source)))
        throw new UsageError(`--out: “${out}” lies inside the system “${source}”; name a folder beside it.`);
      return;
    }
  }
}

function isInside(folder: string, other: string): boolean {
  const way = relative(other, folder);
  return way === '' || (!way.startsWith(`..${sep}`) && way !== '..' && !isAbsolute(way));
}

/**
 * Writes files into a folder, and takes out those that we wrote there before and that are no more. Whoever reads meanwhile sees
 * an old file or a new one, never half of one. Tells each file that is written, and each that is taken out.
 */
export function writeOutput(
  out: string,
  files: readonly OutputFile[],
  tell: (file: string, removed: boolean) => void,
): void {
  const before = listed(out);
  const list = { path: LIST, text: `${JSON.stringify(files.map(({ path }) => path).sort(), null, 2)}\n` };
  const all = [...files, list];
  if (existsSync(out)) for (const file of all) replaceFile(out, file);
  else makeFolder(out, all);
  for (const { path } of files) tell(join(out, path), false);
  const now = new Set(files.map(({ path }) => path));
  for (const path of before.filter(each => !now.has(each))) {
    rmSync(join(out, path), { force: true });
    tell(join(out, path), true);
  }
}

/** What we wrote into a folder before; nothing where it is not ours. */
function listed(out: string): string[] {
  try {
    const list = JSON.parse(readFileSync(join(out, LIST), 'utf8')) as unknown;
    const isPlain = (path: unknown): path is string =>
      typeof path === 'string' && !isAbsolute(path) && !path.split('/').includes('..');
    return Array.isArray(list) ? list.filter(isPlain) : [];
  } catch {
    return [];
  }
}

/** A new folder comes into being whole. */
function makeFolder(out: string, files: readonly OutputFile[]): void {
  const parent = dirname(resolve(out));
  mkdirSync(parent, { recursive: true });
  const made = mkdtempSync(join(parent, '.periwinkle-'));
  for (const { path, text } of files) {
    const file = join(made, path);
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, text);
  }
  renameSync(made, out);
}

function replaceFile(out: string, { path, text }: OutputFile): void {
  const file = join(out, path);
  if (isSame(file, text)) return;
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(`${file}.part`, text);
  renameSync(`${file}.part`, file);
}

function isSame(file: string, text: string): boolean {
  try {
    return readFileSync(file, 'utf8') === text;
  } catch {
    return false;
  }
}
