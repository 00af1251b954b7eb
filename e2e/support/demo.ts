import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { compileSystem, type System } from '@periwinkle/core/rules/system';

export const DEMO = join(process.cwd(), 'demo/quayside');

/** The demo's documents, read from its folder. */
export function demoDocuments(): Map<string, unknown> {
  const documents = new Map<string, unknown>();
  for (const entry of readdirSync(DEMO, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    const file = join(entry.parentPath, entry.name);
    const path = relative(DEMO, file).split(sep).join('/');
    const text = readFileSync(file, 'utf8');
    documents.set(path, documentKind(path)?.json ? (JSON.parse(text) as unknown) : text);
  }
  return documents;
}

export const demoSystem = (): System => compileSystem(demoDocuments());
