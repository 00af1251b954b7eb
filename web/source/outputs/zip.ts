import { strToU8, zipSync } from 'fflate';
import type { OutputFile } from '@periwinkle/core/output/outputs';

/** The earliest time a zip can hold: the bytes do not depend on when it was made. */
const MTIME = new Date(1980, 0, 1);

/** Files as one zip archive; the same files give the same bytes. */
export function zipped(files: readonly OutputFile[]): Uint8Array {
  const entries = files.map(({ path, text }) => [path, [strToU8(text), { mtime: MTIME, level: 9 }]] as const);
  return zipSync(Object.fromEntries(entries) as Parameters<typeof zipSync>[0]);
}
