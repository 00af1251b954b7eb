import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind } from '../formats/document-kinds';
import { compileSystem, type System } from '../components/system';

const FOLDER = join(process.cwd(), 'demo/quayside');

/** The demo's files as text, by path. */
export function demoTexts(): Map<string, string> {
  const entries = readdirSync(FOLDER, { recursive: true, withFileTypes: true }).filter(entry =>
    entry.isFile(),
  );
  return new Map(
    entries.map(entry => {
      const file = join(entry.parentPath, entry.name);
      return [relative(FOLDER, file).split(sep).join('/'), readFileSync(file, 'utf8')];
    }),
  );
}

/** The demo's documents, parsed. */
export const demoDocuments = (): Map<string, unknown> =>
  new Map(
    [...demoTexts()].map(([path, text]) => [
      path,
      documentKind(path)?.json ? (JSON.parse(text) as unknown) : text,
    ]),
  );

export const demoSystem = (): System => compileSystem(demoDocuments());
