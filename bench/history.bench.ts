/**
 * A history of 200,000 edits, half of which have been taken back: what it costs to read the system, to open its history, to read on in it
 * both ways, to edit and to take a step, against one of 200. `PERIWINKLE_EDITS` says how many. Asked of a real server over its database; rows are put in by hand, as edits leave them.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startTestServer, type TestServer } from '../server/test/test-server';
import { changes, documents, edits, systems } from '../server/source/storage/schema';
import { and, eq } from 'drizzle-orm';
import { startDatabase } from '../scripts/database.mjs';
import { median } from './support/generated';

const LIMIT_MS = 50;
const MANY = Number(process.env['PERIWINKLE_EDITS'] ?? 200_000);
const PATH = 'components/text-field.component.json';
const AUTHOR = 'bench';

/** What `PATCH` would have left: each edit says another summary, and every other one has been taken back. */
async function fill({ database: { db } }: TestServer, count: number): Promise<void> {
  const [row] = await db
    .select()
    .from(documents)
    .where(and(eq(documents.systemId, 'quayside'), eq(documents.path, PATH)));
  const body = JSON.parse(row!.body!) as { summary: string };
  let summary = body.summary;
  let revision = row!.revision;
  let id = 0;
  const at = new Date();
  const edit = (changeId: string, kind: string, target: string | null, next: string) => {
    const inverse = JSON.stringify([
      { op: 'test', path: '/summary', value: next },
      { op: 'replace', path: '/summary', value: summary },
    ]);
    const patch = JSON.stringify([{ op: 'replace', path: '/summary', value: next }]);
    summary = next;
    const editKey = `${changeId} ${kind}`;
    const names = { changeId, kind, target, editKey, label: `Edit ${changeId}`, author: AUTHOR };
    return { systemId: 'quayside', id: ++id, path: PATH, revision: ++revision, patch, inverse, at, ...names };
  };
  for (let first = 0; first < count; first += 500) {
    const made: (typeof edits.$inferInsert)[] = [];
    const noted: (typeof changes.$inferInsert)[] = [];
    for (let number = first; number < first + 500 && number < count; number++) {
      const change = `c${number}`;
      const before = summary;
      made.push(edit(change, 'edit', null, `Summary ${number}.`));
      const row = { systemId: 'quayside', id: change, author: AUTHOR, label: `Edit ${change}`, at, made: id };
      if (number % 2 === 0) noted.push({ ...row, state: 'done', act: change, position: id, holder: AUTHOR });
      else {
        made.push(edit(`u${number}`, 'undo', change, before));
        noted.push({ ...row, state: 'undone', act: `u${number}`, position: id, holder: AUTHOR });
      }
    }
    await db.insert(edits).values(made);
    await db.insert(changes).values(noted);
  }
  await db
    .update(documents)
    .set({ revision, body: JSON.stringify({ ...body, summary }) })
    .where(and(eq(documents.systemId, 'quayside'), eq(documents.path, PATH)));
  await db.update(systems).set({ lastEdit: id }).where(eq(systems.id, 'quayside'));
}

/** Median time of answers, in ms. */
async function answered(asks: () => Promise<Response>, rounds = 15): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    const response = await asks();
    await response.text();
    if (!response.ok) throw new Error(`${response.status}`);
    times.push(performance.now() - start);
  }
  return median(times);
}

async function measured(count: number): Promise<Record<string, number>> {
  const server = await startTestServer();
  try {
    await fill(server, count);
    const at = `${server.url}/api/systems/quayside`;
    const headers = { 'Periwinkle-Author': AUTHOR };
    const get = (path: string) => () => fetch(at + path, { headers });
    const step = (direction: string) => () => fetch(`${at}/${direction}`, { method: 'POST', headers });
    const middle = Math.floor(count * 0.75);
    let edited = 0;
    const edit = async (): Promise<Response> => {
      const patch = [{ op: 'replace', path: '', value: `Turn ${edited}.` }];
      const part = { path: 'guide/bench.md', revision: edited, key: `bench-${edited++}`, patch };
      return fetch(`${at}/edits`, {
        method: 'POST',
        headers: { ...headers, 'Content-Type': 'application/json' },
        body: JSON.stringify({ parts: [part] }),
      });
    };
    return {
      'the whole system': await answered(get('')),
      'the newest edits': await answered(get(`/edits?after=${Math.floor(count * 1.5) - 20}`)),
      'an edit': await answered(edit),
      'both ends': await answered(get('/history')),
      'the newest page': await answered(get('/changes?most=50')),
      'an older page': await answered(get(`/changes?most=50&before=${middle}`)),
      'a newer page': await answered(get(`/changes?most=50&after=${middle}`)),
      undo: await answered(step('undo')),
      redo: await answered(step('redo')),
    };
  } finally {
    await server.close();
  }
}

const folder = mkdtempSync(join(tmpdir(), 'periwinkle-bench-'));
const database = await startDatabase(join(folder, 'database'));
try {
  process.env['PERIWINKLE_TEST_DATABASE_URL'] = database.url;
  const [few, many] = [await measured(200), await measured(MANY)];
  process.stdout.write(
    `A history of ${MANY} edits, half of them taken back, against one of 200 (aim ${LIMIT_MS} ms)\n`,
  );
  for (const [what, time] of Object.entries(many))
    process.stdout.write(`  ${what}: ${time.toFixed(1)} ms, ${(time / few[what]!).toFixed(2)} times\n`);
} finally {
  await database.stop();
  rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
}
