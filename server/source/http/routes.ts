import { writeJson } from '@periwinkle/core/json/json-text';
import { Router, text, type Request, type RequestHandler, type Response } from 'express';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { brief } from '@periwinkle/core/json/problem';
import { SYSTEM_ID } from '@periwinkle/core/documents/system-document';
import type { OpenDatabase } from '../storage/open-database';
import { answer, answerText, answerWhole } from './answers';
import { historyEnds, listChanges } from '../storage/changes';
import { editsAfter, editsJson } from '../storage/edit-rows';
import type { EventTail } from './event-tail';
import { OPENAPI } from './openapi';
import { RawJson } from './raw-json';
import {
  authorsFrom,
  bodyOf,
  documentPath,
  headerText,
  idOf,
  keyIn,
  keyOfQuery,
  numberOf,
  revisionOf,
} from './request-parts';
import { notFound, Refusal } from './refusal';
import {
  isSameHistory,
  listSystems,
  removeSystem,
  requireSystem,
  restoreSystem,
  wholeSystem,
} from '../storage/systems';
import { uploadsInTurn } from '../admission/uploads';
import type { Done } from '../worker/tasks';
import type { Workers } from '../worker/workers';

const IS_SYSTEM_ID = new RegExp(SYSTEM_ID);
const PATCH_TYPE = 'application/json-patch+json';

/** What a thread has written. */
const answerDone = (response: Response, { text: written }: Done): void =>
  answer(response, new RawJson(written));

/** What routes need. */
interface Served {
  readonly database: OpenDatabase;
  readonly workers: Workers;
  readonly events: EventTail;
  readonly authorOf: (request: Request) => string;
}

// What is small when it is sent must not become large: bodies are sent as they are.
const bodies = (type: string, limit: number): RequestHandler => text({ type: [type], limit, inflate: false });
const json = bodies('application/json', QUOTAS.documentLetters);

/** The HTTP protocol: every route, each a thin layer over storage. Described in `openapi.ts`. */
export function apiRoutes(
  database: OpenDatabase,
  workers: Workers,
  events: EventTail,
  proxyHeader: string | null = null,
): Router {
  const router = Router();
  const served: Served = { database, workers, events, authorOf: authorsFrom(proxyHeader) };
  router.use((_, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  }, uploadsInTurn());
  // A database that leaves out spaces at the end where it compares would find the system under another name too.
  router.param('systemId', (_, __, next, id: string) => {
    if (!IS_SYSTEM_ID.test(id)) throw notFound(`There is no system “${brief(id)}”.`);
    next();
  });
  router.get('/health', async (_, response) => {
    await database.pool.query('select 1');
    answer(response, { status: 'ok', database: 'ok', version: '0.1.0' });
  });
  const description = new RawJson(writeJson(OPENAPI));
  router.get('/openapi.json', (_, response) => void answer(response, description));
  systemRoutes(router, served);
  documentRoutes(router, served);
  stepRoutes(router, served);
  historyRoutes(router, served);
  return router;
}

/** Systems as a whole: listed, made, read, removed and brought back. */
function systemRoutes(router: Router, { database: { db }, workers, authorOf }: Served): void {
  const wholeJson = bodies('application/json', QUOTAS.unpackedBytes);
  router.get('/systems', async (_, response) => void answer(response, await listSystems(db)));
  router.post('/systems', wholeJson, async (request, response) => {
    const body = bodyOf(request);
    answerDone(response.status(201), await workers.run('create', '', body.length, { body }));
  });
  router.get('/systems/:systemId', async (request, response) => {
    const systemId = idOf(request);
    const { documents, ...whole } = await wholeSystem(db, systemId, authorOf(request));
    workers.makeReady(systemId);
    await answerWhole(response, whole, documents);
  });
  router.delete('/systems/:systemId', async (request, response) => {
    await removeSystem(db, idOf(request));
    response.status(204).end();
  });
  router.post('/systems/:systemId/restore', async (request, response) => {
    await restoreSystem(db, idOf(request));
    response.status(204).end();
  });
  router.post('/systems/:systemId/duplicate', json, async (request, response) => {
    const [from, body] = [idOf(request), bodyOf(request)];
    answerDone(response.status(201), await workers.run('duplicate', from, body.length, { from, body }));
  });
}

/** Documents read, and edits of them. */
function documentRoutes(router: Router, { workers, events, authorOf }: Served): void {
  const patch = bodies(PATCH_TYPE, QUOTAS.documentLetters);
  /** What the headers say of an edit, apart from what it does. */
  const namesOf = (request: Request) => ({
    systemId: idOf(request),
    label: headerText(request, 'Periwinkle-Label', 'An edit', QUOTAS.titleLetters),
    author: authorOf(request),
  });
  router.get('/systems/:systemId/documents/*path', async (request, response) => {
    const [systemId, path] = [idOf(request), documentPath(request)];
    const held = /^"(\d{1,9})"$/.exec(request.get('If-None-Match') ?? '')?.[1];
    const known = held === undefined ? null : Number(held);
    const { text: written, revision } = await workers.run('document', systemId, 0, { systemId, path, known });
    response.set('ETag', `"${revision}"`);
    if (revision === known) return void response.status(304).end();
    answerText(response, documentKind(path)!.mediaType, written);
  });
  router.patch('/systems/:systemId/documents/*path', patch, async (request, response) => {
    if (!request.is(PATCH_TYPE)) {
      throw new Refusal(415, 'unsupported-type', 'Not a JSON Patch', `Send the patch as ${PATCH_TYPE}.`);
    }
    const editKey = keyIn(request, 'Idempotency-Key', () => crypto.randomUUID());
    const part = { path: documentPath(request), revision: revisionOf(request), editKey };
    const names = { ...namesOf(request), changeId: keyIn(request, 'Periwinkle-Change', () => editKey) };
    const body = bodyOf(request);
    const done = await workers.run('patch', names.systemId, body.length, { names, part, body });
    events.wake(names.systemId);
    answerDone(response.set('ETag', `"${done.revision}"`), done);
  });
  router.post('/systems/:systemId/edits', json, async (request, response) => {
    const names = namesOf(request);
    const changeId = keyIn(request, 'Periwinkle-Change', () => '') || null;
    const body = bodyOf(request);
    const done = await workers.run('edit', names.systemId, body.length, { names, changeId, body });
    events.wake(names.systemId);
    answerDone(response, done);
  });
}

/** Steps back and forth through what somebody did. */
function stepRoutes(router: Router, { workers, events, authorOf }: Served): void {
  for (const direction of ['undo', 'redo'] as const) {
    router.post(`/systems/:systemId/${direction}`, json, async (request, response) => {
      const systemId = idOf(request);
      const stepKey = keyIn(request, 'Idempotency-Key', () => crypto.randomUUID());
      const step = { systemId, direction, author: authorOf(request), stepKey };
      const body = request.body === undefined ? null : bodyOf(request);
      const done = await workers.run('step', systemId, body?.length ?? 0, { step, body });
      events.wake(systemId);
      answerDone(response, done);
    });
  }
}

/** What was done, read and listened to. */
function historyRoutes(router: Router, { database: { db }, events, authorOf }: Served): void {
  router.get('/systems/:systemId/edits', async (request, response) => {
    await requireSystem(db, idOf(request));
    const after = numberOf(request, 'after') ?? 0;
    if (!(await isSameHistory(db, idOf(request), after, keyOfQuery(request))))
      throw new Refusal(
        410,
        'other-state',
        'Another state',
        `Edit ${after} is not the one that you know, as after a backup was put back: read the system anew.`,
      );
    answer(response, editsJson(await editsAfter(db, idOf(request), after)));
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
    // Who asks for the head alone is told that there is a stream, and does not listen.
    if (request.method === 'HEAD') return void response.type('text/event-stream').end();
    // What a browser has heard last comes back as we told it; anything else is nobody's edit.
    const heard = /^\d{1,15}$/.exec(request.get('Last-Event-ID') ?? '')?.[0];
    const after = heard === undefined ? (numberOf(request, 'after') ?? 0) : Number(heard);
    const known = numberOf(request, 'after') ?? 0;
    const isSame = after <= lastEdit && (await isSameHistory(db, idOf(request), known, keyOfQuery(request)));
    events.open(idOf(request), isSame ? after : null, lastEdit, request, response);
  });
}
