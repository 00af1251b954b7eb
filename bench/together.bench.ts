import { Agent, get, request } from 'node:http';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Application } from '../e2e/support/application';
import { hasGalera, startCluster } from '../scripts/cluster.mjs';
import { median } from './support/generated';

/**
 * Many at once on one running server: fifty who write one document against one who does, and two thousand who listen; then fifty on two
 * servers, each on a node of its own of a cluster of three.
 * `PERIWINKLE_WRITERS` and `PERIWINKLE_LISTENERS` say how many.
 */

const WRITERS = Number(process.env['PERIWINKLE_WRITERS'] ?? 50);
const LISTENERS = Number(process.env['PERIWINKLE_LISTENERS'] ?? 2000);
const SECONDS = 10;
const SYSTEM = '/api/systems/quayside';
const PATH = 'components/text-field.component.json';
const print = (line: string): void => void process.stdout.write(`${line}\n`);

const application = new Application();
const url = await application.start();
const agent = new Agent({ keepAlive: true, maxSockets: WRITERS });

/** One edit; gives its status and the revision that it left. */
function write(
  server: string,
  key: string,
  revision: number,
  path: string,
  value: string,
): Promise<{ status: number; revision: number }> {
  const patch = [{ op: 'add', path, value }];
  const body = JSON.stringify({ parts: [{ path: PATH, revision, key, patch }] });
  const { hostname, port } = new URL(server);
  return new Promise((resolve, reject) => {
    const headers = { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) };
    const sent = request(
      { agent, host: hostname, port, method: 'POST', path: `${SYSTEM}/edits`, headers },
      response => {
        let text = '';
        response.setEncoding('utf8');
        response.on('data', (some: string) => (text += some));
        response.on('end', () => {
          const [edit] = response.statusCode === 200 ? (JSON.parse(text) as { revision: number }[]) : [];
          resolve({ status: response.statusCode!, revision: edit?.revision ?? 0 });
        });
      },
    );
    sent.on('error', reject);
    sent.end(body);
  });
}

const revisionNow = async (server: string): Promise<number> =>
  Number((await fetch(`${server}${SYSTEM}/documents/${PATH}`)).headers.get('etag')!.slice(1, -1));

/** On servers in turn, each says what it has to say at a place of its own, one edit after the other, made on what it last saw. */
async function writers(
  count: number,
  round: string,
  servers: readonly string[],
): Promise<{ rate: number; longest: number; refused: number }> {
  const start = await revisionNow(servers[0]!);
  const waits: number[] = [];
  let refused = 0;
  const until = performance.now() + SECONDS * 1000;
  await Promise.all(
    Array.from({ length: count }, async (_, writer) => {
      let revision = start;
      for (let turn = 0; performance.now() < until; turn++) {
        const began = performance.now();
        const key = `${round}-${writer}-${turn}`;
        const done = await write(
          servers[writer % servers.length]!,
          key,
          revision,
          `/guide/writer${writer}`,
          `${writer} says ${turn}.`,
        );
        waits.push(performance.now() - began);
        if (done.status === 200) revision = done.revision;
        else refused++;
      }
    }),
  );
  return { rate: (waits.length - refused) / SECONDS, longest: Math.max(...waits), refused };
}

const seconds = (): number => {
  const fields = readFileSync(`/proc/${application.processes().server}/stat`, 'utf8')
    .split(') ')[1]!
    .split(' ');
  // utime and stime, in hundredths of a second.
  return (Number(fields[11]) + Number(fields[12])) / 100;
};

interface Listener {
  heard: number;
}

function listen(after: number): Promise<Listener> {
  const listener = { heard: 0 };
  const { hostname, port } = new URL(url);
  return new Promise((resolve, reject) => {
    get({ agent: false, host: hostname, port, path: `${SYSTEM}/events?after=${after}` }, response => {
      response.setEncoding('utf8');
      response.on('data', (some: string) => {
        if (some.includes('event: edit')) listener.heard = performance.now();
      });
      resolve(listener);
    }).on('error', reject);
  });
}

/** One who writes, then many, on some servers; gives what the many did. */
async function compared(servers: readonly string[]): Promise<Awaited<ReturnType<typeof writers>>> {
  await writers(1, 'warm', servers);
  const one = await writers(1, 'one', servers);
  const many = await writers(WRITERS, 'many', servers);
  print(`One writer: ${one.rate.toFixed(1)} edits a second, longest wait ${one.longest.toFixed(0)} ms`);
  print(
    `${WRITERS} writers of one document: ${many.rate.toFixed(1)} edits a second, ${(many.rate / one.rate).toFixed(2)} times (aim 0.5), longest wait ${many.longest.toFixed(0)} ms (aim 1000), ${many.refused} refused`,
  );
  return many;
}

const alone = await compared([url]);

const { lastEdit } = (await (await fetch(`${url}${SYSTEM}`)).json()) as { lastEdit: number };
const listeners: Listener[] = [];
for (let made = 0; made < LISTENERS; made += 100)
  listeners.push(
    ...(await Promise.all(Array.from({ length: Math.min(100, LISTENERS - made) }, () => listen(lastEdit)))),
  );
await new Promise(resolve => setTimeout(resolve, 3000));
const before = seconds();
await new Promise(resolve => setTimeout(resolve, SECONDS * 1000));
const share = (seconds() - before) / SECONDS;
print(`${LISTENERS} idle listeners: ${(share * 100).toFixed(1)} % of a core (aim 20 %)`);
const times: number[] = [];
let revision = await revisionNow(url);
for (let turn = 0; turn < 10; turn++) {
  for (const each of listeners) each.heard = 0;
  const began = performance.now();
  ({ revision } = await write(url, `heard-${turn}`, revision, '/guide/heard', `Turn ${turn}.`));
  while (listeners.some(({ heard }) => heard === 0)) await new Promise(resolve => setTimeout(resolve, 5));
  times.push(Math.max(...listeners.map(({ heard }) => heard)) - began);
}
print(
  `An edit reaches the last of them after ${median(times).toFixed(0)} ms, ${Math.max(...times).toFixed(0)} at most (aim 300)`,
);
await application.remove();

if (hasGalera()) {
  const folder = mkdtempSync(join(tmpdir(), 'periwinkle-cluster-'));
  const cluster = await startCluster(folder, 3);
  const applications = cluster.nodes
    .slice(0, 2)
    .map(node => new Application(undefined, { PERIWINKLE_DATABASE_URL: node.url }));
  const servers = [];
  for (const each of applications) servers.push(await each.start());
  print('Two servers on two nodes of a cluster of three:');
  const { rate } = await compared(servers);
  print(`${(rate / alone.rate).toFixed(2)} times the edits of one server on one database`);
  for (const each of applications) await each.remove();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
} else print('Without galera-4 nothing is measured on a cluster.');
agent.destroy();
process.exit(0);
