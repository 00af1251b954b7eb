import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind } from '../documents/document-kinds';
import { compileSystem, type System } from '../components/system';
import type { DerivedDocument } from '../documents/component-document';

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

/** The demo's documents without behaviour of their own, for tests that give them one. */
export function documentsWithoutBehaviour({ documents }: System): Map<string, unknown> {
  return new Map(
    [...documents].flatMap(([file, document]): [string, unknown][] => {
      const kind = documentKind(file)?.kind;
      if (kind === 'trial') return [];
      if (kind !== 'component') return [[file, document]];
      const { behaviour: _, walkthroughs: __, without, ...rest } = document as unknown as DerivedDocument;
      const { walkthroughs: ___, ...others } = without ?? {};
      return [[file, without ? { ...rest, without: others } : rest]];
    }),
  );
}
