import { checkSystem } from '@periwinkle/core/checks/check-system';
import { canonicalText } from '@periwinkle/core/documents/canonical';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { writeJson } from '@periwinkle/core/json/json-text';
import type { Database } from '../storage/open-database';
import { editJson, editsJson } from '../storage/edit-rows';
import { notFound, Refusal } from '../http/refusal';
import { requireSystem } from '../storage/systems';
import { computing, reading, TooHeavy } from './computing';
import type { EditNames, EditPart } from './edit-requests';
import { storeEdit } from './edits';
import { stepHistory, type StepRequest } from './history-steps';
import { createSystem, duplicateSystem } from './new-systems';
import { bodiesOf, documentNow, readDocuments } from './parsed-documents';
import { readBody, readPatch } from './request-bodies';

/** How a task is done. */
export interface How {
  readonly db: Database;
  readonly isHeavy: boolean;
  readonly isAlone: boolean;
}

/** What a task answers: text that goes out as it is, and the revision it is of. */
export interface Done {
  readonly text: string;
  readonly revision?: number;
}

/** A patch of one document, made on exactly the revision that is there. */
export interface PatchTask {
  readonly names: EditNames;
  readonly part: Omit<EditPart, 'patch'>;
  readonly body: string;
}

/** An edit of documents, placed where they have gone on. Without a change of its own it is called like its first part. */
export interface EditTask {
  readonly names: Omit<EditNames, 'changeId'>;
  readonly changeId: string | null;
  readonly body: string;
}

export interface StepTask {
  readonly step: Omit<StepRequest, 'change'>;
  readonly body: string | null;
}

export interface DocumentTask {
  readonly systemId: string;
  readonly path: string;
  readonly known: number | null;
}

/** A part of an edit as it is sent. */
type PartBody = Omit<EditPart, 'editKey'> & { readonly key: string };

/** Edits of more documents than that are done where they keep nobody waiting: together, short documents can stand for much. */
const LIGHT_PARTS = 3;

/** Each part of an edit is of a document of its own, under a key of its own. */
function refuseTwice(names: readonly string[]): void {
  const seen = new Set<string>();
  const twice = names.find(name => seen.size === seen.add(name).size);
  if (twice !== undefined)
    throw new Refusal(400, 'wrong-shape', 'Not of the right shape', `“${twice}” is named by two parts.`);
}

/** All that reads, checks or writes what people sent, each a request of the protocol; plain data in and out. Throws `Refusal`. */
export const TASKS = {
  patch: async ({ db, isAlone }: How, { names, part, body }: PatchTask): Promise<Done> => {
    const parts = [{ ...part, patch: readPatch(body) }];
    const [edit] = await storeEdit(db, { ...names, parts, isPlaced: false }, isAlone);
    return { text: editJson(edit!).text, revision: edit!.revision };
  },
  edit: async ({ db, isHeavy, isAlone }: How, { names, changeId, body }: EditTask): Promise<Done> => {
    const { parts } = readBody<{ parts: PartBody[] }>('edit', body);
    if (parts.length > LIGHT_PARTS && !isHeavy) throw new TooHeavy('request');
    refuseTwice(parts.map(({ path }) => path));
    refuseTwice(parts.map(({ key }) => key));
    const request = {
      ...names,
      changeId: changeId ?? parts[0]!.key,
      parts: parts.map(({ key, ...part }) => ({ ...part, editKey: key })),
      isPlaced: true,
    };
    return { text: editsJson(await storeEdit(db, request, isAlone)).text };
  },
  step: async ({ db }: How, { step, body }: StepTask): Promise<Done> => {
    const { change } = body === null ? {} : readBody<{ change?: string }>('step', body);
    return { text: editsJson(await stepHistory(db, { ...step, change: change ?? null })).text };
  },
  create: async ({ db }: How, { body }: { readonly body: string }): Promise<Done> => {
    const { documents } = readBody<{ documents: Record<string, unknown> }>('newSystem', body);
    return { text: writeJson(await createSystem(db, new Map(Object.entries(documents)))) };
  },
  duplicate: async (
    { db }: How,
    { from, body }: { readonly from: string; readonly body: string },
  ): Promise<Done> => {
    const { id, title } = readBody<{ id: string; title: string }>('copy', body);
    return { text: writeJson(await duplicateSystem(db, from, id, title)) };
  },
  /**
   * Reads and checks a system, so that the first edit of it need not wait for that. A thread for heavy work checks a copy, too: what has run
   * twice runs faster, and the first of many large requests is what all others wait for. Tells how long the last check took, in milliseconds.
   */
  ready: async ({ db, isHeavy }: How, { systemId }: { readonly systemId: string }): Promise<Done> => {
    const bodies = bodiesOf((await readDocuments(db, systemId)).values());
    computing(() => checkSystem(bodies));
    if (!isHeavy) return { text: '0' };
    const copy = structuredClone(bodies);
    const began = performance.now();
    computing(() => checkSystem(copy));
    return { text: String(performance.now() - began) };
  },
  /** A document as it is handed out; no text of the revision that is known. */
  document: async ({ db }: How, { systemId, path, known }: DocumentTask): Promise<Required<Done>> => {
    await requireSystem(db, systemId);
    const row = documentKind(path);
    const document = row && (await documentNow(db, systemId, path));
    if (!document || document.body === null) throw notFound(`There is no document “${path}”.`);
    const { revision, body } = document;
    if (known === revision) return { text: '', revision };
    reading(2 * document.letters, 'request');
    return { text: row.json ? computing(() => canonicalText(row.kind, body)) : String(body), revision };
  },
} as const;

export type TaskName = keyof typeof TASKS;
export type TaskInput<Name extends TaskName> = Parameters<(typeof TASKS)[Name]>[1];
export type TaskOutput<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
