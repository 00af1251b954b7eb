import { unzipSync, type UnzipFileInfo } from 'fflate';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { readJson } from '@periwinkle/core/json/read-json';

/** What an archive of a system's folder holds. */
export interface ZipDocuments {
  readonly documents: Readonly<Record<string, unknown>>;
  /** Files that are no documents of a system, by their names in the archive. */
  readonly passedOver: readonly string[];
}

/** An archive that cannot be taken in, with everything that stands in the way. */
export class ZipFault extends Error {
  constructor(readonly faults: readonly string[]) {
    super(faults.join(' '));
  }
}

const MIB = 1024 * 1024;

/** The documents of the folder that holds the system.json in an archive: all of them, or none. Throws `ZipFault`. */
export function documentsInZip(bytes: Uint8Array, name: string): ZipDocuments {
  const entries = entriesOf(bytes, name);
  const manifest = entries
    .map(entry => entry.name)
    .filter(path => /(^|\/)system\.json$/.test(path))
    .sort((a, b) => a.length - b.length)[0];
  if (manifest === undefined)
    throw new ZipFault([`“${name}” holds no system.json: zip the system's folder as a whole.`]);
  const folder = manifest.slice(0, -'system.json'.length);
  const pathOf = (each: string): string | null =>
    each.startsWith(folder) ? each.slice(folder.length) : null;
  const isOurs = (each: string): boolean => documentKind(pathOf(each) ?? '') !== undefined;
  const wanted = entries.filter(entry => isOurs(entry.name));
  const faults = tooMuch(wanted);
  if (faults.length > 0) throw new ZipFault(faults);
  const files = unpacked(bytes, new Set(wanted.map(entry => entry.name)));
  const documents: Record<string, unknown> = {};
  for (const entry of wanted) {
    const path = pathOf(entry.name)!;
    const read = readDocument(path, files[entry.name], entry.originalSize);
    if ('fault' in read) faults.push(`${path}: ${read.fault}`);
    else documents[path] = read.value;
  }
  if (faults.length > 0) throw new ZipFault(faults);
  const passedOver = entries.filter(entry => !isOurs(entry.name)).map(entry => entry.name);
  return { documents, passedOver };
}

/** Files in an archive, none of them unpacked yet. */
function entriesOf(bytes: Uint8Array, name: string): UnzipFileInfo[] {
  const found: UnzipFileInfo[] = [];
  try {
    unzipSync(bytes, {
      filter: entry => {
        if (!entry.name.endsWith('/')) found.push(entry);
        return false;
      },
    });
  } catch {
    throw new ZipFault([`“${name}” is no zip archive.`]);
  }
  return found;
}

/** Files by their names; without those that are damaged, should any be. */
function unpacked(bytes: Uint8Array, names: ReadonlySet<string>): Readonly<Record<string, Uint8Array>> {
  try {
    return unzipSync(bytes, { filter: entry => names.has(entry.name) });
  } catch {
    const each = [...names].map(name => (names.size > 1 ? unpacked(bytes, new Set([name])) : {}));
    return Object.assign({}, ...each) as Record<string, Uint8Array>;
  }
}

/** What of the documents is more than there may be. */
function tooMuch(entries: readonly UnzipFileInfo[]): string[] {
  const all = entries.reduce((sum, { originalSize }) => sum + originalSize, 0);
  return [
    ...(entries.length > QUOTAS.documents
      ? [`These are ${entries.length} documents; a system may have ${QUOTAS.documents}.`]
      : []),
    ...entries.flatMap(({ name, originalSize }) =>
      originalSize > QUOTAS.documentLetters
        ? [`${name} is larger than ${QUOTAS.documentLetters / MIB} MiB.`]
        : [],
    ),
    ...(all > QUOTAS.unpackedBytes
      ? [
          `The documents are ${Math.ceil(all / MIB)} MiB together; ${QUOTAS.unpackedBytes / MIB} MiB can be taken in.`,
        ]
      : []),
  ];
}

function readDocument(
  path: string,
  bytes: Uint8Array | undefined,
  size: number,
): { readonly value: unknown } | { readonly fault: string } {
  if (bytes?.length !== size) return { fault: 'The archive is damaged here.' };
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return { fault: 'This is not UTF-8.' };
  }
  if (!documentKind(path)!.json) return { value: text };
  const read = readJson(text);
  return read.ok ? { value: read.value } : { fault: read.problem.message };
}
