import { writeJson } from '@periwinkle/core/json/json-text';
import { Router, text, type Request, type Response } from 'express';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { brief } from '@periwinkle/core/json/problem';
import { SYSTEM_ID } from '@periwinkle/core/documents/schemas';
import type { OpenDatabase } from './open-database';
import { answer, answerText, answerWhole } from './answers';
import { historyEnds, listChanges } from './changes';
import { editsAfter, editsJson } from './edit-rows';
import type { EventTail } from './event-tail';
import { OPENAPI } from './openapi';
import { RawJson } from './raw-json';
import { notFound, Refusal } from './refusal';
import {
  isSameHistory,
  listSystems,
  removeSystem,
  requireSystem,
  restoreSystem,
  wholeSystem,
} from './systems';
import { uploadsInTurn } from './uploads';
import { KEY } from './work/request-bodies';
import type { Done } from './work/tasks';
import type { Workers } from './workers';

const IS_SYSTEM_ID = new RegExp(SYSTEM_ID);
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
  most: number = QUOTAS.nameLetters,
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
    throw badHeader(`${name} holds 1 to ${QUOTAS.nameLetters} visible ASCII characters, without spaces.`);
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
    if ([...name].length > QUOTAS.nameLetters)
      throw badHeader(`The header ${proxyHeader} may have ${QUOTAS.nameLetters} letters at most.`);
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

/** The key of the last edit that somebody knows. */
function keyOfQuery(request: Request): string | null {
  const value: unknown = request.query['key'];
  return typeof value === 'string' ? value : null;
}

/** The revision in `If-Match`. Throws 428 without the header and 400 for anything but one revision in quotes. */
function revisionOf(request: Request): number {
  const header = request.get('If-Match');
  if (header === undefined) {
    throw new Refusal(
      428,
      'revision-required',
      'Revision required',
      'Send If-Match with the revision the patch was made on; or send it to /edits, where it is placed if the document has gone on.',
    );
  }
  const match = /^"(\d{1,9})"$/.exec(header);
  if (!match)
    throw new Refusal(400, 'bad-revision', 'Not readable', 'If-Match must hold one revision in quotes.');
  return Number(match[1]);
}

/** What a thread has written. */
const answerDone = (response: Response, { text: written }: Done): void =>
  answer(response, new RawJson(written));

/** A body that was sent, as text; nothing of a request without one. */
const bodyOf = (request: Request): string => (typeof request.body === 'string' ? request.body : '');

/** The HTTP protocol: every route, each a thin layer over storage. Described in `openapi.ts`. */
export function apiRoutes(
  { db, pool }: OpenDatabase,
  workers: Workers,
  events: EventTail,
  proxyHeader: string | null = null,
): Router {
  const router = Router();
  const authorOf = authorsFrom(proxyHeader);
  /** What the headers say of an edit, apart from what it does. */
  const namesOf = (request: Request) => ({
    systemId: idOf(request),
    label: headerText(request, 'Periwinkle-Label', 'An edit', QUOTAS.titleLetters),
    author: authorOf(request),
  });
  // What is small when it is sent must not become large: bodies are sent as they are.
  const bodies = (type: string, limit: number) => text({ type: [type], limit, inflate: false });
  const json = bodies('application/json', QUOTAS.documentLetters);
  const wholeJson = bodies('application/json', QUOTAS.unpackedBytes);
  const patch = bodies(PATCH_TYPE, QUOTAS.documentLetters);
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
    await pool.query('select 1');
    answer(response, { status: 'ok', database: 'ok', version: '0.1.0' });
  });
  const description = new RawJson(writeJson(OPENAPI));
  router.get('/openapi.json', (_, response) => void answer(response, description));

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
  return router;
}
