import type { System } from '../components/system';
import { canonicalText } from '../documents/canonical';
import { documentKind } from '../documents/document-kinds';
import type { OutputFile } from './outputs';

/** The system's own folder, each document written canonically. */
export function systemFolder(system: System): OutputFile[] {
  return [...system.documents].map(([path, document]) => ({
    path: `${system.id}/${path}`,
    text: documentText(path, document),
  }));
}

/** One document as its file holds it. */
function documentText(path: string, document: unknown): string {
  const row = documentKind(path);
  return row?.json ? canonicalText(row.kind, document) : String(document);
}
