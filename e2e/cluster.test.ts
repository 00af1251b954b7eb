import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { startCluster, type Cluster } from '../scripts/cluster.mjs';
import { Application } from './support/application';
import { documentText, lastWords, Listener, pause, Proxy, writes } from './support/behind-proxy';

/**
 * Two servers behind a proxy, each on a node of its own of a cluster of three: nodes are cut off and killed while people work. What was
 * acknowledged is there, once, in one order, the same on all nodes, and whoever listens hears everything once.
 */

const TIMEOUT = 300_000;
const PEOPLE = Array.from({ length: 10 }, (_, index) => `person${index}`);
const EDITS = 25;
/** Between two edits of one person, so that there are some at every moment. */
const REST_MS = 300;

let folder: string;
let cluster: Cluster;
let servers: Application[];
let targets: string[];
let proxy: Proxy;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'periwinkle-cluster-'));
  cluster = await startCluster(folder, 3);
  servers = [0, 1].map(
    index =>
      new Application(undefined, {
        PERIWINKLE_DATABASE_URL: cluster.nodes[index]!.url,
        PERIWINKLE_AUTHOR_HEADER: 'X-Remote-User',
      }),
  );
  // Both at once: each finds no tables.
  targets = await Promise.all(servers.map(server => server.start()));
  proxy = await Proxy.before(targets);
}, TIMEOUT);
afterAll(async () => {
  proxy?.close();
  for (const server of servers ?? []) await server.remove();
  await cluster?.stop();
  if (folder) rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
}, TIMEOUT);

/** A node is cut off with its server, the other one killed, then one that no server is on. */
async function disturb(): Promise<void> {
  const [first, second, third] = cluster.nodes;
  await pause(500);
  await first!.cutOff();
  await pause(4000);
  await first!.connect();
  await pause(500);
  await second!.kill();
  await pause(2000);
  proxy.drop();
  await second!.start();
  await third!.kill();
  await pause(500);
  await third!.start();
}

/** The history as a node has it, in short. */
async function historyAt(url: string): Promise<unknown> {
  const connection = await createConnection(url);
  try {
    await connection.query('set session wsrep_sync_wait = 1');
    const [rows] = await connection.query(
      'select id, path, revision, edit_key, md5(concat(patch, inverse)) as texts from edits order by id',
    );
    return rows;
  } finally {
    await connection.end();
  }
}

test(
  'everything that was acknowledged is there once, on all nodes, whichever was cut off or killed',
  async () => {
    const lastEdit = await proxy.lastEdit();
    const listeners = Array.from({ length: 4 }, () => new Listener(proxy, lastEdit));
    let isOver = false;
    const writing = Promise.all(PEOPLE.map(person => writes(proxy, person, EDITS, () => isOver, REST_MS)));
    await disturb();
    isOver = true;
    await writing;
    const total = PEOPLE.length * EDITS;
    const stored = await proxy.editsAfter(lastEdit);
    expect(stored.map(({ id }) => id)).toEqual(
      Array.from({ length: total }, (_, index) => lastEdit + 1 + index),
    );
    expect(new Set(stored.map(({ editKey }) => editKey)).size).toBe(total);
    const [text, same] = await Promise.all(targets.map(documentText));
    expect(same).toBe(text);
    expect(lastWords(text!, PEOPLE, EDITS)).toBe(true);
    const [one, ...others] = await Promise.all(cluster.nodes.map(({ url }) => historyAt(url)));
    for (const other of others) expect(other).toEqual(one);
    for (const listener of listeners) {
      while (listener.heard.length < total) await pause(50);
      expect(listener.heard).toEqual(stored.map(({ id }) => id));
      expect(listener.anew).toBe(0);
      listener.close();
    }
  },
  TIMEOUT,
);

const SYSTEM = '/api/systems/quayside';

/** An edit of the system's title, made on what a server says at this moment; gives the answer. */
async function retitle(server: string, title: string): Promise<Response> {
  const { headers } = await fetch(`${server}${SYSTEM}/documents/system.json`);
  const revision = Number(headers.get('etag')!.slice(1, -1));
  const patch = [{ op: 'replace', path: '/title', value: title }];
  return fetch(`${server}${SYSTEM}/edits`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ parts: [{ path: 'system.json', revision, patch, key: title }] }),
  });
}

test(
  'who asks another server than before is told of what they have just done',
  async () => {
    const lastEditAt = async (server: string): Promise<number> =>
      ((await (await fetch(`${server}${SYSTEM}`)).json()) as { lastEdit: number }).lastEdit;
    const [here, there] = targets as [string, string];
    for (let turn = 0; turn < 3; turn++) {
      const catchUp = await cluster.nodes[1]!.fallBehind();
      expect((await retitle(here, `here-${turn}`)).status).toBe(200);
      const [last, asked] = [await lastEditAt(here), lastEditAt(there)];
      setTimeout(() => void catchUp(), 200);
      expect(await asked).toBe(last);
      // Made on what the other server said.
      expect((await retitle(there, `there-${turn}`)).status).toBe(200);
    }
  },
  TIMEOUT,
);

test(
  'two who write through two nodes at one moment are both stored, or told of the other',
  async () => {
    const before = await proxy.lastEdit();
    const statuses = new Set<number>();
    for (let turn = 0; turn < 10; turn++)
      for (const { status } of await Promise.all(
        targets.map((server, at) => retitle(server, `at${at}-${turn}`)),
      ))
        statuses.add(status);
    expect([...statuses].filter(status => status !== 200 && status !== 412)).toEqual([]);
    const stored = await proxy.editsAfter(before);
    expect(stored.map(({ id }) => id)).toEqual(stored.map((_, index) => before + 1 + index));
  },
  TIMEOUT,
);
