import express, { type Response } from 'express';
import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { pino } from 'pino';
import { fewAtOnce, fewOnAConnection } from './source/admission/crowding';
import { problemResponses } from './source/http/problem';

/** Who comes in a crowd is told so at once; who is answered makes room. */

const MOST = 3;
let server: Server;
/** Answers that have not begun. */
let open: Response[] = [];
let logged: string[] = [];

beforeEach(async () => {
  open = [];
  const lines: string[] = [];
  logged = lines;
  const app = express();
  app.use(fewOnAConnection(MOST), fewAtOnce(2 * MOST));
  app.use('/open', (_, response) => void open.push(response));
  app.use((_, response) => void response.send('answered'));
  app.use(problemResponses(pino({ level: 'warn' }, { write: line => void lines.push(line) })));
  server = createServer(app).listen(0, '127.0.0.1');
  await once(server, 'listening');
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

const port = (): number => (server.address() as AddressInfo).port;
const until = async (holds: () => boolean): Promise<void> => {
  while (!holds()) await new Promise(resolve => setTimeout(resolve, 5));
};
const ask = (path: string, init: RequestInit = {}): Promise<number> =>
  fetch(`http://127.0.0.1:${port()}${path}`, init).then(async response => {
    await response.body?.cancel();
    return response.status;
  });

/** The statuses that come on one connection for so many requests sent at once, until it ends. */
async function sent(paths: readonly string[]): Promise<number[]> {
  const socket = connect(port(), '127.0.0.1');
  let text = '';
  socket.on('data', data => (text += data.toString()));
  socket.write(paths.map(path => `GET ${path} HTTP/1.1\r\nHost: x\r\n\r\n`).join(''));
  await Promise.race([once(socket, 'close'), new Promise(resolve => setTimeout(resolve, 300))]);
  const isEnded = socket.destroyed;
  socket.destroy();
  return [...[...text.matchAll(/HTTP\/1.1 (\d+)/g)].map(([, status]) => Number(status)), isEnded ? 0 : 1];
}

test('on one connection some at once are answered, in their order, and it stays open', async () => {
  expect(await sent(Array<string>(MOST).fill('/'))).toEqual([...Array<number>(MOST).fill(200), 1]);
});

test('more that come before those are answered end it', async () => {
  const end = sent(['/open', ...Array<string>(200).fill('/')]);
  await until(() => open.length === 1);
  open[0]!.send('late');
  const statuses = await end;
  expect(statuses).toEqual([200, 200, 200, 503, 0]);
});

test('of all that only ask, no more than so many are worked on, until answers begin or readers leave', async () => {
  const leaving = new AbortController();
  const left = ask('/open', { signal: leaving.signal }).catch(() => 'left');
  const others = Array.from({ length: 2 * MOST - 1 }, () => ask('/open'));
  await until(() => open.length === 2 * MOST);
  expect([await ask('/'), await ask('/')]).toEqual([503, 503]);
  // What sends something is bounded elsewhere.
  expect(await ask('/', { method: 'POST', body: 'x' })).toBe(200);
  leaving.abort();
  expect(await left).toBe('left');
  await until(() => open.some(({ closed }) => closed));
  expect(await ask('/')).toBe(200);
  const again = ask('/open');
  await until(() => open.length === 2 * MOST + 1);
  expect(await ask('/')).toBe(503);
  // A stream counts until it begins.
  open
    .find(({ closed }) => !closed)!
    .writeHead(200)
    .write('a stream');
  expect(await ask('/')).toBe(200);
  open.filter(({ headersSent, closed }) => !headersSent && !closed).forEach(response => response.send('x'));
  await Promise.all([...others, again]);
});

test('the log counts them, and has no line for each', async () => {
  const many = Array.from({ length: 2 * MOST }, () => ask('/open'));
  await until(() => open.length === 2 * MOST);
  for (let time = 0; time < 5; time++) expect(await ask('/')).toBe(503);
  await until(() => logged.length > 0);
  expect(logged.map(line => (JSON.parse(line) as { refused: number }).refused)).toEqual([5]);
  open.forEach(response => response.send('x'));
  await Promise.all(many);
});
