import { useRef, useState } from 'react';
import { Dialog } from '../common/dialog';
import { counted } from '../common/numbers';
import { api } from '../data/api';
import { ApiError } from '../data/api-error';
import { idOf, TakenIdDialog } from './taken-id-dialog';
import { documentsInZip, type ZipDocuments } from './zip-documents';

const DUPLICATE_ID = 'urn:periwinkle:problem:duplicate-id';

const isOnShelf = async (id: string): Promise<boolean> => (await api.systems()).some(each => each.id === id);

/** So many names are shown of what is passed over. */
const NAMES_SHOWN = 40;

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
  /** What would be taken and what not, to be agreed to. */
  const [asked, setAsked] = useState<ZipDocuments | null>(null);
  /** What has an id that there is already. */
  const [taken, setTaken] = useState<{
    readonly found: ZipDocuments;
    readonly detail: string;
    readonly isRemoved: boolean;
  } | null>(null);
  const trying = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    onFault(null);
    try {
      await work();
    } catch (error) {
      onFault(error instanceof ApiError ? error : new ApiError(0, (error as Error).message));
    } finally {
      setBusy(false);
      if (input.current) input.current.value = '';
    }
  };
  const put = async (found: ZipDocuments): Promise<void> => {
    setAsked(null);
    try {
      await api.create(found.documents);
    } catch (error) {
      if (!(error instanceof ApiError) || error.body.type !== DUPLICATE_ID) throw error;
      setTaken({ found, detail: error.message, isRemoved: !(await isOnShelf(idOf(found))) });
      return;
    }
    await onDone();
  };
  const putTaken = (work: () => Promise<unknown>): Promise<void> =>
    trying(async () => {
      await work();
      setTaken(null);
      await onDone();
    });
  const take = (file: File): Promise<void> =>
    trying(async () => {
      const found = documentsInZip(new Uint8Array(await file.arrayBuffer()), file.name);
      if (found.passedOver.length > 0) setAsked(found);
      else await put(found);
    });
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
      {asked ? (
        <PassedOver
          found={asked}
          onTake={() => void trying(() => put(asked))}
          onLeave={() => setAsked(null)}
        />
      ) : null}
      {taken ? (
        <TakenIdDialog {...taken} onPut={work => void putTaken(work)} onLeave={() => setTaken(null)} />
      ) : null}
    </>
  );
}

/** What of an archive would not be taken, before anything is. */
function PassedOver({
  found: { documents, passedOver },
  onTake,
  onLeave,
}: {
  found: ZipDocuments;
  onTake: () => void;
  onLeave: () => void;
}) {
  const more = passedOver.length - NAMES_SHOWN;
  return (
    <Dialog
      title={`Take in ${counted(Object.keys(documents).length, 'document')}`}
      onClose={onLeave}
      footer={
        <>
          <button type="button" className="btn btn-primary" autoFocus onClick={onTake}>
            Take them in
          </button>
          <button type="button" className="act" onClick={onLeave}>
            leave it
          </button>
        </>
      }
    >
      <p>
        {counted(passedOver.length, 'file')} in the archive {passedOver.length === 1 ? 'is' : 'are'} no
        document of a system, and would be passed over:
      </p>
      <ul className="lines passed-over">
        {passedOver.slice(0, NAMES_SHOWN).map(name => (
          <li key={name}>
            <code>{name}</code>
          </li>
        ))}
      </ul>
      {more > 0 ? <p className="said">and {counted(more, 'other')}</p> : null}
    </Dialog>
  );
}
