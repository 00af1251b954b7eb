import { createProxyServer } from 'httpxy';
import { createPool, type Pool } from 'mysql2/promise';
import { once } from 'node:events';
import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Application } from './support/application';
import { Line } from './support/line';
import { TIMEOUT } from './support/patience';

/**
 * Two servers behind a proxy on one database, each on a line of its own that is cut while people work: what was acknowledged is there,
 * once, in one order, under the names that the proxy gives, and whoever listens misses nothing.
 */

const PATH = 'components/text-field.component.json';
const WRITERS = 10;
const EDITS = 15;
/** One line and then the other; all who are connected to the proxy are dropped once, too. */
const CUTS = 4;

interface Edit {
  readonly id: number;
  readonly editKey: string;
  readonly author: string;
}

let admin: Pool;
let name: string;
let lines: Line[];
let servers: Application[];
let proxy: Server;
let address: string;

/** Hands each request to the next server that is there, with the name of who is signed in, and nobody else's word for it. */
function balancer(targets: readonly string[]): Server {
  const passing = createProxyServer({ xfwd: true });
  let turn = 0;
  return createServer((request, response) => {
    const [, given] = /^Basic (.+)$/.exec(request.headers.authorization ?? '') ?? [];
    delete request.headers['x-remote-user'];
    if (given) request.headers['x-remote-user'] = Buffer.from(given, 'base64').toString().split(':')[0];
    const target = targets[turn++ % targets.length]!;
    passing.web(request, response, { target }).catch(() => {
      if (!response.headersSent) response.writeHead(502);
      response.end();
    });
  });
}

beforeAll(async () => {
  const url = new URL(process.env['PERIWINKLE_TEST_DATABASE_URL']!);
  admin = createPool(url.href);
  name = `periwinkle_proxy_${process.pid}`;
  await admin.query(`create database ${name} character set utf8mb4 collate utf8mb4_bin`);
  lines = [0, 1].map(() => new Line(url.hostname, Number(url.port)));
  servers = [];
  const targets: string[] = [];
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
  proxy = balancer(targets).listen(0, '127.0.0.1');
  await once(proxy, 'listening');
  address = `http://127.0.0.1:${(proxy.address() as AddressInfo).port}`;
}, TIMEOUT);
afterAll(async () => {
  proxy?.closeAllConnections();
  proxy?.close();
  for (const server of servers ?? []) await server.remove();
  for (const line of lines ?? []) await line.cut();
  await admin?.query(`drop database ${name}`);
  await admin?.end();
}, TIMEOUT);

const as = (person: string): Record<string, string> => ({
  Authorization: `Basic ${Buffer.from(`${person}:secret`).toString('base64')}`,
  // What clients say of themselves counts for nothing.
  'Periwinkle-Author': 'somebody else',
  'X-Remote-User': 'somebody else',
});
const pause = (ms: number): Promise<void> => new Promise(resolve => setTimeout(resolve, ms));

/** Asks until it is answered by a server that has its database. */
async function asked(path: string, init: RequestInit = {}): Promise<Response> {
  for (;;) {
    const response = await fetch(`${address}/api/systems/quayside${path}`, init).catch(() => null);
    if (response && response.status < 500) return response;
    await response?.text();
    await pause(50);
  }
}

/** Listens like a browser: comes back when it is dropped, and goes on from the last id it has heard. */
class Listener {
  readonly heard: number[] = [];
  drops = 0;
  private current: IncomingMessage | null = null;
  private isOver = false;

  constructor(private last: number) {
    this.open();
  }

  private open(): void {
    const again = (): void => {
      if (this.isOver) return;
      this.drops++;
      setTimeout(() => this.open(), 100);
    };
    const headers = { ...as('listener'), 'Last-Event-ID': String(this.last) };
    get(`${address}/api/systems/quayside/events`, { agent: false, headers }, response => {
      this.current = response;
      let text = '';
      response.setEncoding('utf8');
      response.on('data', (some: string) => {
        text += some;
        const whole = text.split('\n\n');
        text = whole.pop()!;
        for (const event of whole) {
          const [, id] = /^id: (\d+)$/m.exec(event) ?? [];
          if (id === undefined) continue;
          this.last = Number(id);
          this.heard.push(this.last);
        }
      });
      response.on('error', () => {});
      response.on('close', again);
    }).on('error', again);
  }

  close(): void {
    this.isOver = true;
    this.current?.destroy();
  }
}

test(
  'everything that was acknowledged is there once, under the name of who did it',
  async () => {
    const { lastEdit } = (await (await asked('')).json()) as { lastEdit: number };
    const revision = Number((await asked(`/documents/${PATH}`)).headers.get('etag')!.slice(1, -1));
    const listeners = [new Listener(lastEdit), new Listener(lastEdit)];
    const last = new Map<string, number>();
    let isCut = false;
    const write = async (person: string): Promise<void> => {
      for (let turn = 0; turn < EDITS; turn++) {
        // However fast all is, somebody writes until everything has been cut.
        while (turn === EDITS - 1 && !isCut) await pause(20);
        const key = `${person}-${turn}`;
        const patch = [{ op: 'add', path: `/guide/${person}`, value: `Turn ${turn}.` }];
        // What this person saw last; others have written since.
        const parts = [{ path: PATH, revision: turn === 0 ? revision : last.get(person)!, patch, key }];
        const response = await asked('/edits', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', ...as(person) },
          body: JSON.stringify({ parts }),
        });
        const body = (await response.json()) as { revision: number }[];
        expect([key, response.status, body]).toEqual([key, 200, expect.anything()]);
        last.set(person, body[0]!.revision);
      }
    };
    const people = Array.from({ length: WRITERS }, (_, index) => `person${index}`);
    const writing = Promise.all(people.map(write));
    for (let turn = 0; turn < CUTS; turn++) {
      await pause(200);
      await lines[turn % 2]!.cut();
      if (turn === 1) proxy.closeAllConnections();
      await pause(300);
      await lines[turn % 2]!.open();
    }
    isCut = true;
    await writing;
    const total = WRITERS * EDITS;
    const stored: Edit[] = [];
    for (let more: Edit[] = [{ id: lastEdit } as Edit]; more.length > 0;) {
      more = (await (await asked(`/edits?after=${more.at(-1)!.id}`)).json()) as Edit[];
      stored.push(...more);
    }
    expect(stored.map(({ id }) => id)).toEqual(
      Array.from({ length: total }, (_, index) => lastEdit + 1 + index),
    );
    expect(new Set(stored.map(({ editKey }) => editKey)).size).toBe(total);
    for (const { editKey, author } of stored) expect(editKey.startsWith(`${author}-`)).toBe(true);
    // Both servers say the same, and each person's last word stands.
    const texts = await Promise.all([0, 1].map(async () => (await asked(`/documents/${PATH}`)).text()));
    expect(texts[0]).toBe(texts[1]);
    const { guide } = JSON.parse(texts[0]!) as { guide: Record<string, string> };
    for (const person of people) expect(guide[person]).toBe(`Turn ${EDITS - 1}.`);
    for (const listener of listeners) {
      while (listener.heard.length < total) await pause(50);
      expect(listener.heard).toEqual(stored.map(({ id }) => id));
      listener.close();
    }
    expect(listeners.every(({ drops }) => drops > 0)).toBe(true);
  },
  TIMEOUT,
);
