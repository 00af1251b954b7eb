import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import { connect, type Socket } from 'node:net';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { Application } from '../e2e/support/application';

/**
 * Hostile requests of some forty kinds, in bursts, while ten people work, others take nothing of what they asked for, or send nothing of what
 * they said: how each is answered, how long the longest took, how long the honest waited, and what memory the server keeps.
 * `PERIWINKLE_HOSTILE` says how many.
 */

const HOSTILE = Number(process.env['PERIWINKLE_HOSTILE'] ?? 2000);
const BURST = 20;
const AIM_MS = 2000;
const PEOPLE = 10;

const SYSTEM = '/api/systems/quayside';
const FIELD = `${SYSTEM}/documents/components/text-field.component.json`;
const print = (line: string): void => void process.stdout.write(`${line}\n`);

interface Sent {
  readonly method: string;
  readonly path: string;
  readonly headers?: Record<string, string>;
  readonly body?: string | Buffer;
}
interface Answered {
  readonly status: number;
  readonly ms: number;
  readonly type: string;
}

const application = new Application();
const { port, hostname } = new URL(await application.start());

let etag = '';

/** Sends as it is: no library mends what is wrong with it. */
function send({ method, path, headers = {}, body }: Sent): Promise<Answered> {
  const began = performance.now();
  return new Promise(resolve => {
    const done = (status: number, type = ''): void =>
      resolve({ status, ms: performance.now() - began, type });
    const sent = request(
      {
        host: hostname,
        port,
        method,
        path,
        headers: {
          ...headers,
          ...(headers['If-Match'] === NOW ? { 'If-Match': etag } : {}),
          ...(body ? { 'Content-Length': Buffer.byteLength(body) } : {}),
        },
      },
      response => {
        response.resume();
        response.once('end', () =>
          done(response.statusCode ?? 0, String(response.headers['content-type'] ?? '')),
        );
        response.once('error', () => done(response.statusCode ?? 0));
      },
    );
    sent.once('error', () => done(0));
    sent.end(body);
  });
}

/** Stands for the revision by then. */
const NOW = '"now"';
const etagOf = async (): Promise<string> =>
  (await fetch(`http://${hostname}:${port}${FIELD}`)).headers.get('etag')!;
const patch = (
  operations: readonly PatchOperation[] | string,
  headers: Record<string, string> = {},
): Sent => ({
  method: 'PATCH',
  path: FIELD,
  headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': NOW, ...headers },
  body: typeof operations === 'string' ? operations : JSON.stringify(operations),
});
const json = (method: string, path: string, body: string): Sent => ({
  method,
  path,
  headers: { 'Content-Type': 'application/json' },
  body,
});
const many = <Value>(length: number, make: (index: number) => Value): Value[] =>
  Array.from({ length }, (_, index) => make(index));
const rule = (set: object, when: object = {}): PatchOperation => ({
  op: 'add',
  path: '/rules/-',
  value: { id: `h${Math.random().toString(36).slice(2)}`, when, set },
});
const deep = (open: string, close: string, times: number): string => open.repeat(times) + close.repeat(times);

const system = (id: string, more: object): object => ({
  format: 'periwinkle-system/1',
  ...{ id, title: id, prefix: 'h', ...more },
});
/** A system whose tokens are all wrong. */
const wrongTokens = (count: number): Sent =>
  json(
    'POST',
    '/api/systems',
    JSON.stringify({
      documents: {
        'system.json': system('wrong', { resolver: 'tokens/r.resolver.json' }),
        'tokens/a.tokens.json': Object.fromEntries(
          many(count, index => [`t${index}`, { $value: 'x', $type: 'color' }]),
        ),
        'tokens/r.resolver.json': {
          version: '2025.10',
          sets: { a: { sources: [{ $ref: 'a.tokens.json' }] } },
          resolutionOrder: [{ $ref: '#/sets/a' }],
        },
      },
    }),
  );

const KINDS: Readonly<Record<string, () => Sent>> = {
  'the root into itself': () => patch([{ op: 'move', from: '', path: '/rules/0' }]),
  'doubling by copies': () =>
    patch(many(60, index => ({ op: 'copy', from: '/rules', path: `/rules/0/set/c${index}` }))),
  'copies of the whole': () => patch(many(30, index => ({ op: 'copy', from: '', path: `/guide/c${index}` }))),
  'a megabyte of a value': () => patch([rule({ frame: { color: 'x'.repeat(1_000_000) } })]),
  'a value of brackets': () => patch([rule({ frame: { color: deep('(', ')', 3000) } })]),
  'a megabyte of a key': () => patch([rule({ ['k'.repeat(1_000_000)]: {} })]),
  'wrong tokens': () => wrongTokens(19_000),
  'more tokens than may be': () => wrongTokens(100_000),
  'thousands of rules': () =>
    patch(many(4900, () => rule({ frame: { color: '#123456' } }, { pointer: 'over' }))),
  'thousands of wrong rules': () => patch(many(900, () => rule({ frame: { colr: '{x}' } }, { pointr: 'x' }))),
  'insertions at the front': () => patch(many(4000, () => ({ op: 'add', path: '/rules/0', value: {} }))),
  'millions of brackets': () => patch('['.repeat(2_000_000)),
  'millions of objects': () => patch(`[${'{},'.repeat(500_000)}{}]`),
  'no JSON': () => patch('{"a":'),
  'an empty body': () => patch(''),
  'no UTF-8': () => ({ ...patch('x'), body: Buffer.from([0xff, 0xfe, 0x22, 0xff]) }),
  'too large': () => patch(JSON.stringify(many(9, () => 'x'.repeat(1_000_000)))),
  __proto__: () => patch('[{"op":"add","path":"/__proto__/x","value":1}]'),
  constructor: () => patch([{ op: 'add', path: '/guide/constructor', value: 'x' }]),
  'a revision that is none': () => patch([rule({})], { 'If-Match': '"99999999999999999999"' }),
  'a revision of another time': () => patch([rule({})], { 'If-Match': '"1"' }),
  'a key that is too long': () => patch([rule({})], { 'Idempotency-Key': 'k'.repeat(8000) }),
  'an author that is too long': () => patch([rule({})], { 'Periwinkle-Author': 'a'.repeat(8000) }),
  'no percent encoding': () => patch([rule({})], { 'Periwinkle-Label': '%E0%A4%A' }),
  'another type': () => ({
    ...patch([rule({})]),
    headers: { 'Content-Type': 'text/html', 'If-Match': NOW },
  }),
  'another encoding': () => patch('x', { 'Content-Encoding': 'br' }),
  'another origin': () => patch([rule({})], { Origin: 'http://elsewhere.example' }),
  'another host': () => ({ method: 'GET', path: '/api/systems', headers: { Host: 'elsewhere.example' } }),
  'numbers that are none': () => ({ method: 'GET', path: `${SYSTEM}/edits?after=Infinity` }),
  'a way out of the folder': () => ({
    method: 'GET',
    path: `${SYSTEM}/documents/..%2f..%2f..%2fetc%2fpasswd`,
  }),
  'an address that is none': () => ({ method: 'GET', path: '/api/%ff%fe' }),
  'a file that is none': () => ({ method: 'GET', path: '/assets/nothing.js' }),
  'another method': () => ({ ...patch([rule({})]), method: 'PUT' }),
  'a name with a space behind': () => ({ method: 'GET', path: `${SYSTEM}%20` }),
  'the manifest taken away': () =>
    json(
      'POST',
      `${SYSTEM}/edits`,
      JSON.stringify({
        parts: [{ path: 'system.json', revision: 1, key: 'taken', patch: [{ op: 'remove', path: '' }] }],
      }),
    ),
  'a drawing that is none': () =>
    json(
      'POST',
      `${SYSTEM}/edits`,
      JSON.stringify({
        parts: [
          {
            path: 'icons/hostile.svg',
            revision: 0,
            key: Math.random().toString(36),
            patch: [{ op: 'replace', path: '', value: deep('<g>', '</g>', 20_000) }],
          },
        ],
      }),
    ),
};

/** Short documents that stand for long ones. */
const within = (inner: string): object => ({
  part: 'root',
  kind: 'row',
  children: many(3, index => ({ part: `p${index}`, kind: 'use', component: inner })),
});
const component = (id: string, anatomy: object, more: object = {}): object => ({
  format: 'periwinkle-component/1',
  id,
  anatomy,
  ...more,
});
const white = (id: string): object => ({ id, type: 'color', default: '#ffffff' });
/** A system of its own. */
const create = (id: string, documents: object, more: object = {}): Sent =>
  json(
    'POST',
    '/api/systems',
    JSON.stringify({ documents: { 'system.json': system(id, more), ...documents } }),
  );
const files = (components: readonly object[]): object =>
  Object.fromEntries(
    components.map(each => [`components/${(each as { id: string }).id}.component.json`, each]),
  );
const SHORT: Readonly<Record<string, () => Sent>> = {
  'components within components': () =>
    json(
      'POST',
      `${SYSTEM}/edits`,
      JSON.stringify({
        parts: many(7, level => ({
          path: `components/level-${level}.component.json`,
          revision: 0,
          key: `level-${level}`,
          patch: [
            {
              op: 'replace',
              path: '',
              value: component(`level-${level}`, within(level === 0 ? 'step-button' : `level-${level - 1}`)),
            },
          ],
        })),
      }),
    ),
  'contexts by the thousand': () =>
    json(
      'POST',
      '/api/systems',
      JSON.stringify({
        documents: {
          'system.json': system('contexts', { resolver: 'tokens/r.resolver.json' }),
          'tokens/a.tokens.json': Object.fromEntries(
            many(500, index => [`t${index}`, { $value: 'x', $type: 'color' }]),
          ),
          'tokens/r.resolver.json': {
            version: '2025.10',
            sets: { a: { sources: [{ $ref: 'a.tokens.json' }] } },
            modifiers: {
              m: {
                contexts: Object.fromEntries(many(1000, index => [`c${index}`, [{ $ref: 'a.tokens.json' }]])),
              },
            },
            resolutionOrder: [{ $ref: '#/sets/a' }, { $ref: '#/modifiers/m' }],
          },
        },
      }),
    ),
  'a reference of very many steps': () =>
    create('steps', {
      'tokens/a.tokens.json': { t: { $type: 'color', $value: `{${'a.'.repeat(47_000)}}` } },
    }),
  'a parameter handed on by the thousand': () =>
    create(
      'handed',
      files(
        many(6, level =>
          component(
            `c${level}`,
            {
              part: 'root',
              kind: 'row',
              children:
                level === 0
                  ? []
                  : [
                      {
                        part: 'in',
                        kind: 'use',
                        component: `c${level - 1}`,
                        parameters: { x: '@x '.repeat(1_300) },
                      },
                    ],
            },
            { parameters: [white('x')], rules: [{ id: 'r', when: {}, set: { root: { color: '@x' } } }] },
          ),
        ),
      ),
    ),
  'derived by the thousand': () =>
    create(
      'derived',
      files([
        component('c', { part: 'root', kind: 'row' }, { parameters: many(900, index => white(`p${index}`)) }),
        ...many(1_500, index => ({ format: 'periwinkle-component/1', id: `d${index}`, extends: 'c' })),
      ]),
    ),
  'a file in sources by the hundred': () =>
    create(
      'sources',
      {
        'tokens/a.tokens.json': Object.fromEntries(
          many(5_000, index => [`t${index}`, { $type: 'number', $value: index }]),
        ),
        'tokens/r.resolver.json': {
          version: '2025.10',
          sets: {
            a: {
              sources: many(900, index => (index % 2 ? { $ref: 'a.tokens.json' } : { [`.${index}`]: {} })),
            },
          },
          resolutionOrder: [{ $ref: '#/sets/a' }],
        },
      },
      { resolver: 'tokens/r.resolver.json' },
    ),
  'limits that hold all axes': () =>
    create(
      'limits',
      files([
        component(
          'c',
          { part: 'root', kind: 'row' },
          {
            axes: many(60, index => ({
              id: `a${index}`,
              kind: 'option',
              values: [{ id: 'x' }, { id: 'y' }],
            })),
            limits: many(60, index => ({
              while: { [`a${index}`]: 'x' },
              holds: Object.fromEntries(many(59, step => [`a${(index + step + 1) % 60}`, 'x'])),
            })),
          },
        ),
      ]),
    ),
};
const ALL = { ...KINDS, ...SHORT };

const memory = (): number => {
  const status = readFileSync(`/proc/${application.processes().server}/status`, 'utf8');
  return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024;
};

const waits: number[] = [];
let isOver = false;
/** Reads, and now and then writes, as people do. */
async function work(person: number): Promise<void> {
  const path = `${SYSTEM}/documents/guide/person-${person}.md`;
  for (let turn = 0; !isOver; turn++) {
    waits.push((await send({ method: 'GET', path: SYSTEM })).ms);
    const part = {
      path: path.slice(`${SYSTEM}/documents/`.length),
      revision: turn,
      key: `p${person}-${turn}`,
      patch: [{ op: 'replace', path: '', value: `Turn ${turn} of ${person}.` }],
    };
    const written = await send(json('POST', `${SYSTEM}/edits`, JSON.stringify({ parts: [part] })));
    if (written.status !== 200) print(`  honest work was answered ${written.status}`);
    waits.push(written.ms);
    await new Promise(resolve => setTimeout(resolve, 200));
  }
}

/** Made before: making it would hold up the honest, who wait in this process. */
const hostile = new Map(Object.entries(ALL).map(([name, make]) => [name, make()]));
/** The system is opened, and all has come to rest. */
await send({ method: 'GET', path: SYSTEM });
await new Promise(resolve => setTimeout(resolve, 5000));
/** How long the event loop of the server lets wait whoever asks for next to nothing, again and again. */
const loop: number[] = [];
async function ask(): Promise<void> {
  while (!isOver) {
    loop.push((await send({ method: 'GET', path: '/api/nothing' })).ms);
    await new Promise(resolve => setTimeout(resolve, 20));
  }
}

/** Asks for a whole system and takes nothing of it. */
const TAKES_NOTHING = `GET ${SYSTEM} HTTP/1.1\r\n`;
/** Says that it sends much, and sends nothing. */
const SENDS_NOTHING = `POST ${SYSTEM}/edits HTTP/1.1\r\nContent-Type: application/json\r\nContent-Length: 8000000\r\n`;
const stuck: Socket[] = [];
function beStuck(head: string): void {
  const socket = connect(Number(port), hostname);
  socket.on('error', () => {});
  socket.write(`${head}Host: ${hostname}:${port}\r\n\r\n`);
  socket.pause();
  stuck.push(socket);
}

const before = memory();
const people = [...many(PEOPLE, work), ask()];
const names = [...hostile.keys()];
const late: string[] = [];
const told = new Map<string, { statuses: Map<number, number>; slowest: number; isProblem: boolean }>();
for (let sent = 0; sent < HOSTILE; sent += BURST) {
  etag = await etagOf();
  beStuck(TAKES_NOTHING);
  beStuck(SENDS_NOTHING);
  const burst = many(BURST, index => names[(sent + index * 7) % names.length]!);
  await Promise.all(
    burst.map(async name => {
      const { status, ms, type } = await send(hostile.get(name)!);
      if (ms > AIM_MS) late.push(`${name}, burst ${sent / BURST}: ${status} after ${ms.toFixed(0)} ms`);
      const known = told.get(name) ?? { statuses: new Map<number, number>(), slowest: 0, isProblem: true };
      known.statuses.set(status, (known.statuses.get(status) ?? 0) + 1);
      known.slowest = Math.max(known.slowest, ms);
      known.isProblem &&= type.startsWith('application/problem+json');
      told.set(name, known);
    }),
  );
}
print(`${late.length} of ${HOSTILE} were answered later than after ${AIM_MS / 1000} seconds`);
late.forEach(line => print(`  ${line}`));
isOver = true;
await Promise.all(people);
stuck.forEach(socket => socket.destroy());
await new Promise(resolve => setTimeout(resolve, 10_000));
const at = (share: number, times: readonly number[] = waits): string =>
  times.toSorted((a, b) => a - b)[Math.floor((times.length - 1) * share)]!.toFixed(0);
print(`${HOSTILE} requests of ${names.length} kinds:`);
for (const [name, { statuses, slowest, isProblem }] of told)
  print(
    `  ${name.padEnd(28)} ${[...statuses]
      .map(([status, times]) => `${status} × ${times}`)
      .join(', ')
      .padEnd(20)} ${slowest.toFixed(0).padStart(6)} ms at most${isProblem ? '' : ', no problem+json'}`,
  );
print(
  `Honest work, ${waits.length} requests: median ${at(0.5)} ms, 99th percentile ${at(0.99)} ms, longest ${at(1)} ms (aim 300)`,
);
print(
  `What asks for next to nothing, ${loop.length} times: median ${at(0.5, loop)} ms, 99th percentile ${at(0.99, loop)} ms, longest ${at(1, loop)} ms`,
);
print(`Memory: ${before.toFixed(0)} MiB before, ${memory().toFixed(0)} MiB after`);
await application.remove();
