import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { PatchError, type Patch, type PatchOperation } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { notFound, Refusal } from '../http/refusal';
import { bodyText, type StoredDocument } from './parsed-documents';
import { refuseLonger, sizeOf } from './refusing';

/** What a patch makes of a document, as it is to be checked. */
export interface Patched {
  readonly document: StoredDocument;
  readonly patch: Patch;
  readonly inverse: PatchOperation[];
  /** Digest of the patch as it was sent, where that was another. */
  readonly sent?: string;
}

/** A document that has been checked, as it is stored, and the revision that it was read at. */
export interface WrittenDocument {
  readonly document: StoredDocument;
  readonly text: string | null;
  readonly from: number;
}

/** Applies a patch to a document. Throws the refusal 404 where there is none, and 409 where the patch does not fit. */
export function patched(current: StoredDocument, patch: Patch): Patched {
  const { path, revision, body } = current;
  const isMade = patch.some(({ op, path: place }) => op === 'replace' && place === '');
  // What somebody else has done alike leaves nothing to be done.
  const isIdle = patch.every(({ op }) => op === 'test');
  if (body === null && !isMade && !isIdle) throw notFound(`There is no document “${path}”.`);
  try {
    const isText = !documentKind(path)?.json;
    const result = isText && !isIdle ? replacedWhole(body, patch) : applyPatch(body, patch);
    if (isText && result.document !== null && typeof result.document !== 'string')
      throw new PatchError(0, '', `“${path}” holds a text`);
    return {
      document: { path, revision: revision + 1, body: result.document, letters: 0 },
      patch,
      inverse: result.inverse,
    };
  } catch (error) {
    if (!(error instanceof PatchError)) throw error;
    throw new Refusal(409, 'patch-failed', 'The edit does not fit', error.message);
  }
}

/** Documents as edits that follow one another leave them. Throws the refusal 413 where one is larger than it may be, or all are. */
export function asTexts(
  before: ReadonlyMap<string, StoredDocument>,
  done: readonly Patched[],
): readonly WrittenDocument[] {
  const last = new Map(done.map(({ document }) => [document.path, document]));
  const now = new Map(before);
  const texts = [...last.values()].map(document => {
    const { path, body } = document;
    const text = bodyText(path, body);
    const letters = text?.length ?? 0;
    if (letters > QUOTAS.documentLetters)
      throw new Refusal(
        413,
        'too-large',
        'Too large',
        `“${path}” would have ${letters} letters; a document may have ${QUOTAS.documentLetters}.`,
      );
    const written = { ...document, letters };
    now.set(path, written);
    return { document: written, text, from: before.get(path)?.revision ?? 0 };
  });
  refuseLonger(sizeOf(before.values()), sizeOf(now.values()));
  return texts;
}

/** Text documents are replaced as a whole. */
function replacedWhole(body: unknown, patch: Patch): { document: unknown; inverse: PatchOperation[] } {
  const operations = patch.filter(operation => operation.op !== 'test');
  const [operation] = operations;
  if (operations.length !== 1 || operation?.op !== 'replace' || operation.path !== '')
    throw new PatchError(0, operation?.path ?? '', 'it is replaced as a whole');
  return { document: operation.value, inverse: [{ op: 'replace', path: '', value: body }] };
}
