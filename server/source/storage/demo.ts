import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { readJson } from '@periwinkle/core/json/read-json';
import type { Database } from './open-database';
import { Refusal } from '../http/refusal';
import { systems } from './schema';
import { createSystem } from '../worker/new-systems';

/** Reads a system's folder into documents. Throws when a file is not what it should be. */
export function folderDocuments(folder: string): Map<string, unknown> {
  const documents = new Map<string, unknown>();
  const files = readdirSync(folder, { recursive: true, withFileTypes: true }).filter(entry => entry.isFile());
  for (const entry of files) {
    const file = join(entry.parentPath, entry.name);
    const path = relative(folder, file).split(sep).join('/');
    const row = documentKind(path);
    if (!row) continue;
    const text = readFileSync(file, 'utf8');
    const read = row.json ? readJson(text) : { ok: true as const, value: text };
    if (!read.ok) throw new Error(`${file}: ${read.problem.message}`);
    documents.set(path, read.value);
  }
  return documents;
}

/** Loads the example into a database that has never held a system. */
export async function loadDemo(db: Database, folder: string): Promise<boolean> {
  const [any] = await db.select({ id: systems.id }).from(systems).limit(1);
  if (any) return false;
  try {
    await createSystem(db, folderDocuments(folder));
    return true;
  } catch (error) {
    // Another application on the same database was quicker.
    if (error instanceof Refusal && error.kind === 'duplicate-id') return false;
    throw error;
  }
}
