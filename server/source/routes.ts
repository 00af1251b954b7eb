import { writeJson } from '@periwinkle/core/formats/json-text';
import { Router, text, type Request, type Response } from 'express';
import { canonicalText } from '@periwinkle/core/formats/canonical';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import type { OpenDatabase } from './database';
import { historyEnds, listChanges } from './changes';
import { editsAfter } from './edit-rows';
import { storeEdit, type EditNames, type EditPart } from './edits';
import type { EventTail } from './event-tail';
import { stepHistory } from './history-steps';
import { OPENAPI } from './openapi';
import { notFound, Refusal } from './refusal';
import { KEY, readBody, readPatch } from './request-bodies';
import {
  createSystem,
  duplicateSystem,
  listSystems,
  removeSystem,
  requireSystem,
  restoreSystem,
  wholeSystem,
} from './systems';
import { readDocument } from './system-documents';

export const BODY_LIMIT = LIMITS.documentLetters;
const PATCH_TYPE = 'application/json-patch+json';

const parameterOf = (request: Request, name: string): string => {
  const value: unknown = request.params[name];
  return Array.isArray(value) ? value.join('/') : String(value ?? '');
};
const idOf = (request: Request): string => parameterOf(request, 'systemId');
const documentPath = (request: Request): string => parameterOf(request, 'path');

/** A header in percent-encoded UTF-8. Throws 400 for what is not, or has more letters than it may. */
function headerText(
  request: Request,
  name: string,
  fallback: string,
  most: number = LIMITS.nameLetters,
): string {
  const value = request.get(name);
  if (value === undefined) return fallback;
  let decoded: string;
  try {
    decoded = decodeURIComponent(value);
  } catch {
    throw badHeader(`The header ${name} is not percent-encoded UTF-8.`);
  }
  if ([...decoded].length > most) throw badHeader(`The header ${name} may have ${most} letters at most.`);
  return decoded;
}

const badHeader = (detail: string): Refusal => new Refusal(400, 'bad-header', 'Not readable', detail);

/** A name that a client has made up, compared letter by letter. */
function keyIn(request: Request, name: string, fallback: () => string): string {
  const value = request.get(name);
  if (value === undefined) return fallback();
  if (!new RegExp(KEY).test(value))
    throw badHeader(`${name} holds 1 to ${LIMITS.nameLetters} visible ASCII characters, without spaces.`);
  return value;
}

/** Who a request is from: as the proxy says where one is set to, and then by nothing else; as the client says otherwise. */
const authorsFrom =
  (proxyHeader: string | null) =>
  (request: Request): string => {
    if (proxyHeader === null) return headerText(request, 'Periwinkle-Author', '').trim();
    // Proxies write names as they have them, in UTF-8; Node reads headers as Latin-1.
    const name = Buffer.from(request.get(proxyHeader) ?? '', 'latin1')
      .toString('utf8')
      .trim();
    if ([...name].length > LIMITS.nameLetters)
      throw badHeader(`The header ${proxyHeader} may have ${LIMITS.nameLetters} letters at most.`);
    return name;
  };

/** A whole number of the query; `null` where there is none. Throws 400 for anything else. */
function numberOf(request: Request, name: string): number | null {
  const value: unknown = request.query[name];
  if (value === undefined) return null;
  if (typeof value !== 'string' || !/^\d{1,15}$/.test(value))
    throw new Refusal(400, 'bad-number', 'Not readable', `“${name}” is a whole number, 0 or more.`);
  return Number(value);
}

/** The revision in `If-Match`. Throws 428 without the header and 400 for anything but one revision in quotes. */
function revisionOf(request: Request): number {
  const header = request.get('If-Match');
  if (header === undefined) {
    throw new Refusal(
      428,
      'revision-required',
      'Revision required',
      'Send If-Match with the revision the patch was made on.',
    );
  }
  const match = /^"(\d{1,9})"$/.exec(header);
  if (!match)
    throw new Refusal(400, 'bad-revision', 'Not readable', 'If-Match must hold one revision in quotes.');
  return Number(match[1]);
}

/** A part of an edit as it is sent. */
type PartBody = Omit<EditPart, 'editKey'> & { readonly key: string };

/** Answers in JSON, keys of documents in the order in which they were written. */
const answer = (response: Response, value: unknown): void =>
  void response.type('application/json').send(writeJson(value));

/** The HTTP protocol: every route, each a thin layer over storage. Described in `openapi.ts`. */
export function apiRoutes(
  { db, pool }: OpenDatabase,
  events: EventTail,
  proxyHeader: string | null = null,
): Router {
  const router = Router();
  const authorOf = authorsFrom(proxyHeader);
  /** What the headers say of an edit, apart from what it does. */
  const namesOf = (request: Request, editKey: string): EditNames => ({
    systemId: idOf(request),
    changeId: keyIn(request, 'Periwinkle-Change', () => editKey),
    label: headerText(request, 'Periwinkle-Label', 'An edit', LIMITS.titleLetters),
    author: authorOf(request),
  });
  const json = text({ type: ['application/json'], limit: BODY_LIMIT });
  const patch = text({ type: [PATCH_TYPE], limit: BODY_LIMIT });
  router.use((_, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });

  router.get('/health', async (_, response) => {
    await pool.query('select 1');
    answer(response, { status: 'ok', database: 'ok', version: '0.1.0' });
  });
  router.get('/openapi.json', (_, response) => void answer(response, OPENAPI));

  router.get('/systems', async (_, response) => void answer(response, await listSystems(db)));
  router.post('/systems', json, async (request, response) => {
    const { documents } = readBody<{ documents: Record<string, unknown> }>('newSystem', request.body);
    answer(response.status(201), await createSystem(db, new Map(Object.entries(documents))));
  });
  router.get(
    '/systems/:systemId',
    async (request, response) =>
      void answer(response, await wholeSystem(db, idOf(request), authorOf(request))),
  );
  router.delete('/systems/:systemId', async (request, response) => {
    await removeSystem(db, idOf(request));
    response.status(204).end();
  });
  router.post('/systems/:systemId/restore', async (request, response) => {
    await restoreSystem(db, idOf(request));
    response.status(204).end();
  });
  router.post('/systems/:systemId/duplicate', json, async (request, response) => {
    const { id, title } = readBody<{ id: string; title: string }>('copy', request.body);
    answer(response.status(201), await duplicateSystem(db, idOf(request), id, title));
  });

  router.get('/systems/:systemId/documents/*path', async (request, response) => {
    const path = documentPath(request);
    const row = documentKind(path);
    await requireSystem(db, idOf(request));
    const document = row && (await readDocument(db, idOf(request), path));
    if (!document || document.body === null) throw notFound(`There is no document “${path}”.`);
    response.set('ETag', `"${document.revision}"`);
    if (request.get('If-None-Match') === `"${document.revision}"`) return void response.status(304).end();
    response
      .type(row.mediaType)
      .send(row.json ? canonicalText(row.kind, document.body) : String(document.body));
  });
  router.patch('/systems/:systemId/documents/*path', patch, async (request, response) => {
    if (!request.is(PATCH_TYPE)) {
      throw new Refusal(415, 'unsupported-type', 'Not a JSON Patch', `Send the patch as ${PATCH_TYPE}.`);
    }
    const editKey = keyIn(request, 'Idempotency-Key', () => crypto.randomUUID());
    const part = {
      path: documentPath(request),
      revision: revisionOf(request),
      patch: readPatch(request.body),
      editKey,
    };
    const [edit] = await storeEdit(db, { ...namesOf(request, editKey), parts: [part] });
    events.wake(idOf(request));
    answer(response.set('ETag', `"${edit!.revision}"`), edit);
  });
  router.post('/systems/:systemId/edits', json, async (request, response) => {
    const { parts } = readBody<{ parts: PartBody[] }>('edit', request.body);
    const twice = parts.find(({ path }, index) => parts.findIndex(each => each.path === path) < index);
    if (twice)
      throw new Refusal(400, 'wrong-shape', 'Not of the right shape', `“${twice.path}” is edited twice.`);
    const edits = await storeEdit(db, {
      ...namesOf(request, parts[0]!.key),
      parts: parts.map(({ key, ...part }) => ({ ...part, editKey: key })),
    });
    events.wake(idOf(request));
    answer(response, edits);
  });
  for (const direction of ['undo', 'redo'] as const) {
    router.post(`/systems/:systemId/${direction}`, json, async (request, response) => {
      const body = request.body === undefined ? {} : readBody<{ change?: string }>('step', request.body);
      const edits = await stepHistory(db, {
        systemId: idOf(request),
        direction,
        author: authorOf(request),
        change: body.change ?? null,
        stepKey: keyIn(request, 'Idempotency-Key', () => crypto.randomUUID()),
      });
      events.wake(idOf(request));
      answer(response, edits);
    });
  }
  router.get('/systems/:systemId/edits', async (request, response) => {
    await requireSystem(db, idOf(request));
    answer(response, await editsAfter(db, idOf(request), numberOf(request, 'after') ?? 0));
  });
  router.get('/systems/:systemId/changes', async (request, response) => {
    await requireSystem(db, idOf(request));
    const [before, after] = [numberOf(request, 'before'), numberOf(request, 'after')];
    const most = Math.min(200, Math.max(1, numberOf(request, 'most') ?? 50));
    answer(response, await listChanges(db, idOf(request), { before, after, most }));
  });
  router.get('/systems/:systemId/history', async (request, response) => {
    await requireSystem(db, idOf(request));
    answer(response, await historyEnds(db, idOf(request), authorOf(request)));
  });
  router.get('/systems/:systemId/events', async (request, response) => {
    const { lastEdit } = await requireSystem(db, idOf(request));
    // What a browser has heard last comes back as we told it; anything else is nobody's edit.
    const heard = /^\d{1,15}$/.exec(request.get('Last-Event-ID') ?? '')?.[0];
    const after = heard === undefined ? (numberOf(request, 'after') ?? 0) : Number(heard);
    events.open(idOf(request), after, lastEdit, request, response);
  });
  return router;
}
