import { createPool, type Pool } from 'mysql2/promise';
import { Application } from './support/application';
import { documentText, lastWords, Listener, pause, Proxy, writes } from './support/behind-proxy';
import { Line } from './support/line';
import { TIMEOUT } from './support/patience';

/**
 * Two servers behind a proxy on one database, each on a line of its own that is cut while people work: what was acknowledged is there,
 * once, in one order, under the names that the proxy gives, and whoever listens misses nothing.
 */

const PEOPLE = Array.from({ length: 10 }, (_, index) => `person${index}`);
const EDITS = 15;
/** One line and then the other; all who are connected to the proxy are dropped once, too. */
const CUTS = 4;

let admin: Pool;
let name: string;
let lines: Line[];
let servers: Application[];
let targets: string[];
let proxy: Proxy;

beforeAll(async () => {
  const url = new URL(process.env['PERIWINKLE_TEST_DATABASE_URL']!);
  admin = createPool(url.href);
  name = `periwinkle_proxy_${process.pid}`;
  await admin.query(`create database ${name} character set utf8mb4 collate utf8mb4_bin`);
  lines = [0, 1].map(() => new Line(url.hostname, Number(url.port)));
  servers = [];
  targets = [];
  for (const line of lines) {
    await line.open();
    const own = new URL(url);
    own.host = `127.0.0.1:${line.port}`;
    own.pathname = `/${name}`;
    const server = new Application(undefined, {
      PERIWINKLE_DATABASE_URL: own.href,
      PERIWINKLE_AUTHOR_HEADER: 'X-Remote-User',
    });
    servers.push(server);
    targets.push(await server.start());
  }
  proxy = await Proxy.before(targets);
}, TIMEOUT);
afterAll(async () => {
  proxy?.close();
  for (const server of servers ?? []) await server.remove();
  for (const line of lines ?? []) await line.cut();
  await admin?.query(`drop database ${name}`);
  await admin?.end();
}, TIMEOUT);

test(
  'everything that was acknowledged is there once, under the name of who did it',
  async () => {
    const lastEdit = await proxy.lastEdit();
    const listeners = [new Listener(proxy, lastEdit), new Listener(proxy, lastEdit)];
    let isCut = false;
    const writing = Promise.all(PEOPLE.map(person => writes(proxy, person, EDITS, () => isCut)));
    for (let turn = 0; turn < CUTS; turn++) {
      await pause(200);
      await lines[turn % 2]!.cut();
      if (turn === 1) proxy.drop();
      await pause(300);
      await lines[turn % 2]!.open();
    }
    isCut = true;
    await writing;
    const total = PEOPLE.length * EDITS;
    const stored = await proxy.editsAfter(lastEdit);
    expect(stored.map(({ id }) => id)).toEqual(
      Array.from({ length: total }, (_, index) => lastEdit + 1 + index),
    );
    expect(new Set(stored.map(({ editKey }) => editKey)).size).toBe(total);
    for (const { editKey, author } of stored) expect(editKey.startsWith(`${author}-`)).toBe(true);
    // Both servers say the same, and each person's last word stands.
    const [text, same] = await Promise.all(targets.map(documentText));
    expect(same).toBe(text);
    expect(lastWords(text!, PEOPLE, EDITS)).toBe(true);
    for (const listener of listeners) {
      while (listener.heard.length < total) await pause(50);
      expect(listener.heard).toEqual(stored.map(({ id }) => id));
      listener.close();
    }
    expect(listeners.every(({ drops }) => drops > 0)).toBe(true);
  },
  TIMEOUT,
);
