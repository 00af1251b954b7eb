import { once } from 'node:events';
import { connect, type Socket } from 'node:net';
import { startTestServer, type TestServer } from './test/test-server';

/** Clients that take nothing of what they asked for, or send nothing of what they said, hold up neither memory nor others. */

let server: TestServer;
const sockets: Socket[] = [];
beforeAll(async () => {
  server = await startTestServer();
  const documents: Record<string, unknown> = {
    'system.json': { format: 'periwinkle-system/1', id: 'big', title: 'Big', prefix: 'big' },
    [LARGE]: 'x'.repeat(LARGE_LETTERS),
    ...Object.fromEntries(LETTERS.map(letter => [guide(letter), letter.repeat(GUIDE_LETTERS)])),
  };
  const made = await fetch(`${server.url}/api/systems`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ documents }),
  });
  expect(made.status).toBe(201);
}, 60_000);
afterAll(async () => {
  sockets.forEach(socket => socket.destroy());
  await server?.close();
});

const LETTERS = ['a', 'b', 'é', '😀'];
const GUIDE_LETTERS = 3_000_000;
/** More than what lies between us and a client takes by itself. */
const LARGE = 'guide/large.md';
const LARGE_LETTERS = 8_000_000;
const guide = (letter: string): string => `guide/${letter.codePointAt(0)!}.md`;

/** A client of its own on a socket. Takes nothing until it is told to. */
class SlowClient {
  readonly socket: Socket;
  isCut = false;
  private readonly chunks: Buffer[] = [];

  constructor(head: string) {
    const { hostname, port, host } = new URL(server.url);
    this.socket = connect(Number(port), hostname);
    sockets.push(this.socket);
    this.socket.on('error', () => (this.isCut = true)).on('close', () => (this.isCut = true));
    this.socket.write(
      head.replace('\n', `\nHost: ${host}\nConnection: close\n`).replaceAll('\n', '\r\n') + '\r\n',
    );
    this.socket.pause();
  }

  /** Once the first of the answer is there: the server holds it. */
  async begun(): Promise<this> {
    await once(this.socket, 'readable');
    return this;
  }

  /** Takes everything; gives what came. */
  rest(): Promise<string> {
    return new Promise(resolve => {
      this.socket.on('data', chunk => this.chunks.push(chunk));
      this.socket.once('close', () => resolve(Buffer.concat(this.chunks).toString()));
      this.socket.resume();
    });
  }
}

const until = async (holds: () => boolean): Promise<void> => {
  while (!holds()) await new Promise(resolve => setTimeout(resolve, 100));
};
const isServed = async (): Promise<boolean> =>
  (await fetch(`${server.url}/api/systems/quayside`).then(answer => answer.text())).includes('text-field');

test('many readers of one large system share it: none is broken off, and each gets all of it', async () => {
  const readers = Array.from({ length: 30 }, () => new SlowClient('GET /api/systems/big HTTP/1.0\n'));
  await new Promise(resolve => setTimeout(resolve, 3_000));
  expect(await isServed()).toBe(true);
  const answers = await Promise.all(readers.slice(0, 3).map(reader => reader.rest()));
  // Not told by what they hold: that is long.
  for (const answer of answers)
    expect(LETTERS.filter(letter => !answer.includes(`"${letter.repeat(GUIDE_LETTERS)}"`))).toEqual([]);
  readers.forEach(reader => reader.socket.destroy());
}, 60_000);

test('readers who together hold too much are broken off, the oldest first, and others are served', async () => {
  const readers: SlowClient[] = [];
  // One after the other, as answers that are read at the same time may come in any order.
  for (let count = 0; count < 20; count++)
    readers.push(await new SlowClient(`GET /api/systems/big/documents/${LARGE} HTTP/1.0\n`).begun());
  await new Promise(resolve => setTimeout(resolve, 3_500));
  expect(await isServed()).toBe(true);
  const answers = await Promise.all(readers.map(reader => reader.rest()));
  const isWhole = answers.map(answer => answer.length > LARGE_LETTERS);
  // Now and then the system itself takes all of an answer.
  expect(isWhole.filter(each => !each).length).toBeGreaterThanOrEqual(6);
  expect(isWhole.slice(-8)).toEqual(Array<boolean>(8).fill(true));
}, 60_000);

const UPLOAD_BYTES = 8_000_000;
/** Says that it sends much, and sends so much of it. */
function stalledUpload(bytes: number): SlowClient {
  const head = 'POST /api/systems/big/edits HTTP/1.0\nContent-Type: application/json\n';
  const client = new SlowClient(`${head}Content-Length: ${UPLOAD_BYTES}\n`);
  client.socket.write(Buffer.alloc(bytes, 32));
  client.socket.resume();
  return client;
}
const write = (path: string, letters: number): Promise<Response> =>
  fetch(`${server.url}/api/systems/big/edits`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      parts: [
        { path, revision: 0, key: path, patch: [{ op: 'replace', path: '', value: 'x'.repeat(letters) }] },
      ],
    }),
  });

test('uploads that say much and send nothing hold up nobody, and are left alone', async () => {
  const stalled = Array.from({ length: 100 }, () => stalledUpload(0));
  await new Promise(resolve => setTimeout(resolve, 1_000));
  expect((await write('guide/first.md', 200_000)).status).toBe(200);
  expect(stalled.filter(({ isCut }) => isCut)).toEqual([]);
  stalled.forEach(({ socket }) => socket.destroy());
}, 60_000);

test('uploads that have sent much and stand still give way to those that come', async () => {
  const stalled = Array.from({ length: 20 }, () => stalledUpload(UPLOAD_BYTES - 1));
  await until(() => stalled.some(({ isCut }) => isCut));
  expect((await write('guide/second.md', 200_000)).status).toBe(200);
  stalled.forEach(({ socket }) => socket.destroy());
}, 60_000);
