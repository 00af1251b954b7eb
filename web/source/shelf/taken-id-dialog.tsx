import { nanoid } from 'nanoid';
import { useState } from 'react';
import { patchesBetween } from '@periwinkle/core/edits/restructure';
import { identified } from '@periwinkle/core/patch/identity';
import { isObject } from '@periwinkle/core/json/json';
import { SYSTEM_ID } from '@periwinkle/core/documents/system-document';
import { Dialog } from '../common/dialog';
import { api } from '../data/api';
import type { ZipDocuments } from './zip-documents';

/** The id that an archive's system has. */
export const idOf = ({ documents }: ZipDocuments): string => {
  const manifest = documents['system.json'];
  return isObject(manifest) && typeof manifest['id'] === 'string' ? manifest['id'] : '';
};

/** Brings an archive in as a new state of the system of its id: one edit, which can be taken back. Gives whether anything was different. */
async function bringInto(id: string, { documents }: ZipDocuments): Promise<boolean> {
  const whole = await api.system(id);
  const present = new Map(
    whole.documents.filter(({ body }) => body !== null).map(({ path, body }) => [path, body]),
  );
  const revisions = new Map(whole.documents.map(({ path, revision }) => [path, revision]));
  const parts = patchesBetween(present, new Map(Object.entries(documents))).map(({ path, patch }) => ({
    key: nanoid(),
    path,
    patch: identified(present.get(path) ?? null, patch),
  }));
  const [first] = parts;
  if (!first) return false;
  const edit = { key: first.key, changeId: first.key, label: 'A zip brought in as a new state', parts };
  await api.edit(
    id,
    edit,
    parts.map(({ path }) => revisions.get(path) ?? 0),
  );
  return true;
}

/** There is a system of an archive's id already: it becomes a new state of that, or a system of its own under another id. */
export function TakenIdDialog({
  found,
  detail,
  isRemoved,
  onPut,
  onLeave,
}: {
  found: ZipDocuments;
  /** What the server says of it. */
  detail: string;
  /** A removed system has to be brought back before it can have a new state. */
  isRemoved: boolean;
  onPut: (work: () => Promise<unknown>) => void;
  onLeave: () => void;
}) {
  const id = idOf(found);
  const [other, setOther] = useState(`${id}-2`);
  const fits = new RegExp(SYSTEM_ID).test(other) && other !== id;
  const putAs = (): Promise<unknown> => {
    const manifest = found.documents['system.json'] as object;
    return api.create({ ...found.documents, 'system.json': { ...manifest, id: other } });
  };
  return (
    <Dialog title={`“${id}” is taken`} onClose={onLeave}>
      <p>{detail}</p>
      {isRemoved ? null : (
        <p>
          <button type="button" className="btn btn-primary" onClick={() => onPut(() => bringInto(id, found))}>
            Bring it in as a new state of that
          </button>{' '}
          <span className="said">one edit, which can be taken back</span>
        </p>
      )}
      <form
        className="taken-id"
        onSubmit={event => {
          event.preventDefault();
          if (fits) onPut(putAs);
        }}
      >
        <label htmlFor="taken-id-other">or under another id</label>
        <input
          id="taken-id-other"
          className="form-control mono"
          value={other}
          spellCheck={false}
          aria-invalid={!fits}
          onChange={event => setOther(event.target.value)}
        />
        <button type="submit" className="btn btn-outline-primary" disabled={!fits}>
          Put it on the shelf as “{other}”
        </button>
      </form>
    </Dialog>
  );
}
