import { strFromU8, unzipSync } from 'fflate';
import { useRef, useState } from 'react';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { readJson } from '@periwinkle/core/formats/read-json';
import { api } from '../data/api';
import { ApiError } from '../data/api-error';

const MAX_UNPACKED = 32 * 1024 * 1024;

/** Takes a system's folder as a zip, as "Outputs" hands it out, and puts it on the shelf. */
export function ImportButton({
  onDone,
  onFault,
}: {
  onDone: () => Promise<void>;
  onFault: (fault: ApiError | null) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    onFault(null);
    try {
      await api.create(await documentsIn(file));
      await onDone();
    } catch (error) {
      onFault(error instanceof ApiError ? error : new ApiError(0, (error as Error).message));
    } finally {
      setBusy(false);
      if (input.current) input.current.value = '';
    }
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".zip"
        hidden
        aria-label="Zip of a system's folder"
        onChange={event => {
          const file = event.target.files?.[0];
          if (file) void take(file);
        }}
      />
      <button
        type="button"
        className="btn btn-outline-primary"
        disabled={busy}
        onClick={() => input.current?.click()}
      >
        {busy ? 'Importing …' : 'Import'}
      </button>
    </>
  );
}

/** The documents of the folder that holds the system.json in a zip. Throws with one sentence on what is wrong. */
async function documentsIn(file: File): Promise<Record<string, unknown>> {
  let unpacked = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(new Uint8Array(await file.arrayBuffer()), {
      filter: entry => (unpacked += entry.originalSize) < MAX_UNPACKED && !entry.name.endsWith('/'),
    });
  } catch {
    throw new Error(`“${file.name}” is no zip archive.`);
  }
  const manifest = Object.keys(files)
    .filter(name => /(^|\/)system\.json$/.test(name))
    .sort((a, b) => a.length - b.length)[0];
  if (manifest === undefined)
    throw new Error(`“${file.name}” holds no system.json: zip the system's folder as a whole.`);
  const folder = manifest.slice(0, -'system.json'.length);
  const documents: Record<string, unknown> = {};
  for (const [name, bytes] of Object.entries(files)) {
    const path = name.slice(folder.length);
    const row = name.startsWith(folder) ? documentKind(path) : undefined;
    if (!row) continue;
    const text = strFromU8(bytes);
    const read = row.json ? readJson(text) : ({ ok: true, value: text } as const);
    if (!read.ok) throw new Error(`${path}: ${read.problem.message}`);
    documents[path] = read.value;
  }
  return documents;
}
