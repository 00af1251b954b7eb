import { createProxyServer } from 'httpxy';
import { once } from 'node:events';
import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Servers of one system behind a proxy, and people who write and listen through it whatever is cut or killed meanwhile. */

export interface Edit {
  readonly id: number;
  readonly editKey: string;
  readonly author: string;
}

export const pause = (ms: number): Promise<void> => new Promise(resolve => setTimeout(resolve, ms));

const as = (person: string): Record<string, string> => ({
  Authorization: `Basic ${Buffer.from(`${person}:secret`).toString('base64')}`,
  // What clients say of themselves counts for nothing.
  'Periwinkle-Author': 'somebody else',
  'X-Remote-User': 'somebody else',
});

const PATH = 'components/text-field.component.json';

export class Proxy {
  private constructor(
    private readonly server: Server,
    readonly address: string,
  ) {}

  /** Hands each request to the next server, with the name of who is signed in, and nobody else's word for it. */
  static async before(targets: readonly string[]): Promise<Proxy> {
    const passing = createProxyServer({ xfwd: true });
    let turn = 0;
    const server = createServer((request, response) => {
      const [, given] = /^Basic (.+)$/.exec(request.headers.authorization ?? '') ?? [];
      delete request.headers['x-remote-user'];
      if (given) request.headers['x-remote-user'] = Buffer.from(given, 'base64').toString().split(':')[0];
      const target = targets[turn++ % targets.length]!;
      passing.web(request, response, { target }).catch(() => {
        if (!response.headersSent) response.writeHead(502);
        response.end();
      });
    }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    return new Proxy(server, `http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  }

  /** Drops all who are connected. */
  drop(): void {
    this.server.closeAllConnections();
  }

  close(): void {
    this.drop();
    this.server.close();
  }

  /** Asks until it is answered by a server that has its database. */
  async asked(path: string, init: RequestInit = {}): Promise<Response> {
    for (;;) {
      const response = await fetch(`${this.address}/api/systems/quayside${path}`, init).catch(() => null);
      if (response && response.status < 500) return response;
      await response?.text().catch(() => '');
      await pause(50);
    }
  }

  /** All edits after a given one. */
  async editsAfter(id: number): Promise<Edit[]> {
    const all: Edit[] = [];
    for (let more: Edit[] = [{ id } as Edit]; more.length > 0;) {
      more = (await (await this.asked(`/edits?after=${more.at(-1)!.id}`)).json()) as Edit[];
      all.push(...more);
    }
    return all;
  }

  async lastEdit(): Promise<number> {
    return ((await (await this.asked('')).json()) as { lastEdit: number }).lastEdit;
  }
}

/** Somebody who says one thing after the other in one document, each made on what they last saw; others write meanwhile. */
export async function writes(
  proxy: Proxy,
  person: string,
  turns: number,
  mayEnd: () => boolean,
  restMs = 0,
): Promise<void> {
  let revision = Number((await proxy.asked(`/documents/${PATH}`)).headers.get('etag')!.slice(1, -1));
  for (let turn = 0; turn < turns; turn++) {
    // However fast all is, somebody writes until everything has been cut.
    while (turn === turns - 1 && !mayEnd()) await pause(20);
    await pause(restMs);
    const key = `${person}-${turn}`;
    const patch = [{ op: 'add', path: `/guide/${person}`, value: `Turn ${turn}.` }];
    const response = await proxy.asked('/edits', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', ...as(person) },
      body: JSON.stringify({ parts: [{ path: PATH, revision, patch, key }] }),
    });
    const body = (await response.json()) as { revision: number }[];
    if (response.status !== 200) throw new Error(`${key}: ${response.status} ${JSON.stringify(body)}`);
    revision = body[0]!.revision;
  }
}

/** Whether each person's last word stands in a text of the document. */
export function lastWords(text: string, people: readonly string[], turns: number): boolean {
  const { guide } = JSON.parse(text) as { guide: Record<string, string> };
  return people.every(person => guide[person] === `Turn ${turns - 1}.`);
}

export const documentText = async (server: string): Promise<string> =>
  (await fetch(`${server}/api/systems/quayside/documents/${PATH}`)).text();

/** Listens like a browser: comes back when it is dropped, and goes on from the last id it has heard. */
export class Listener {
  readonly heard: number[] = [];
  drops = 0;
  /** How often it was told that what it knows is none by now. */
  anew = 0;
  private current: IncomingMessage | null = null;
  private isOver = false;

  constructor(
    private readonly proxy: Proxy,
    private last: number,
  ) {
    this.open();
  }

  private open(): void {
    const again = (): void => {
      if (this.isOver) return;
      this.drops++;
      setTimeout(() => this.open(), 100);
    };
    const headers = { ...as('listener'), 'Last-Event-ID': String(this.last) };
    get(`${this.proxy.address}/api/systems/quayside/events`, { agent: false, headers }, response => {
      this.current = response;
      let text = '';
      response.setEncoding('utf8');
      response.on('data', (some: string) => {
        text += some;
        const whole = text.split('\n\n');
        text = whole.pop()!;
        for (const event of whole) this.hear(event);
      });
      response.on('error', () => {});
      response.on('close', again);
    }).on('error', again);
  }

  private hear(event: string): void {
    if (event.includes('event: anew')) this.anew++;
    const [, id] = /^id: (\d+)$/m.exec(event) ?? [];
    if (id === undefined) return;
    this.last = Number(id);
    this.heard.push(this.last);
  }

  close(): void {
    this.isOver = true;
    this.current?.destroy();
  }
}
