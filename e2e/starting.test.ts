import { createServer } from 'node:net';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from '../scripts/database.mjs';
import { Application, isAlive } from './support/application';
import { TIMEOUT } from './support/patience';

/** "npm start" in the circumstances it meets. */

const begun: Application[] = [];

/** An application for one test. A process that a failed test leaves running would keep the run from ending. */
function application(...given: ConstructorParameters<typeof Application>): Application {
  begun.push(new Application(...given));
  return begun.at(-1)!;
}

afterEach(async () => {
  for (const each of begun.splice(0)) await each.remove();
}, TIMEOUT);

test(
  'starts, says its address once it answers, and ends with nothing left running; data stays',
  async () => {
    const app = application();
    const address = await app.start();
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
    expect(await (await fetch(`${address}/quayside`)).text()).toContain('<div id="app">');
    const { server, database } = app.processes();
    expect(statSync(join(app.folder, 'password')).mode & 0o777).toBe(0o600);
    expect(await app.stop()).toBe(0);
    expect([server, database].filter(isAlive)).toEqual([]);
    expect(existsSync(join(app.folder, 'mariadb'))).toBe(true);
  },
  TIMEOUT,
);

test(
  'a second start says where the first one is, and leaves it alone',
  async () => {
    const first = application();
    const address = await first.start();
    const second = application(first.folder);
    await expect(second.start()).rejects.toThrow(
      /ended with 1: .*running already at http:\/\/127\.0\.0\.1:\d+\//s,
    );
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
  },
  TIMEOUT,
);

test(
  'a taken port is one clear line, and nothing half-started stays',
  async () => {
    const taken = createServer();
    await new Promise<void>(resolve => taken.listen(0, '127.0.0.1', resolve));
    const { port } = taken.address() as { port: number };
    const app = application(undefined, { PERIWINKLE_PORT: String(port) });
    await expect(app.start()).rejects.toThrow(`Port ${port} is taken: set PERIWINKLE_PORT to another one.`);
    expect(existsSync(join(app.folder, 'mariadb.pid'))).toBe(false);
    expect(existsSync(join(app.folder, 'running.json'))).toBe(false);
    taken.close();
  },
  TIMEOUT,
);

test(
  'temporary tables of other databases on the machine are not taken for its own; its own leftovers go',
  async () => {
    const shared = mkdtempSync(join(tmpdir(), 'periwinkle-shared-'));
    const table = '#sql-temptable-4e29-1-26.MAI';
    writeFileSync(join(shared, table), '');
    const app = application(undefined, { TMPDIR: shared });
    mkdirSync(join(app.folder, 'mariadb-tmp'));
    writeFileSync(join(app.folder, 'mariadb-tmp', table), '');
    await app.start();
    expect(existsSync(join(shared, table))).toBe(true);
    expect(existsSync(join(app.folder, 'mariadb-tmp', table))).toBe(false);
    rmSync(shared, { recursive: true });
  },
  TIMEOUT,
);

test(
  'pid and socket files of a database that was killed do not stand in the way',
  async () => {
    const app = application();
    mkdirSync(app.folder, { recursive: true });
    writeFileSync(join(app.folder, 'mariadb.pid'), `${process.pid}\n`);
    writeFileSync(join(app.folder, 'mariadb.sock'), '');
    mkdirSync(join(app.folder, 'mariadb.new'));
    writeFileSync(join(app.folder, 'running.json'), '{"pid": 1');
    const address = await app.start();
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
  },
  TIMEOUT,
);

test(
  'another database can be named; one that does not answer is one clear line',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'periwinkle-other-'));
    const other = await startDatabase(folder);
    const app = application(undefined, { PERIWINKLE_DATABASE_URL: other.url });
    const address = await app.start();
    expect(((await (await fetch(`${address}/api/systems`)).json()) as unknown[]).length).toBe(1);
    expect(existsSync(join(app.folder, 'mariadb'))).toBe(false);
    await app.stop();
    await other.stop();
    await expect(app.start()).rejects.toThrow(
      /The database cannot be reached \(ECONNREFUSED\): start it, or mend PERIWINKLE_DATABASE_URL\./,
    );
    expect(readFileSync(join(folder, 'mariadb.log'), 'utf8')).not.toBe('');
    rmSync(folder, { recursive: true, force: true });
  },
  TIMEOUT,
);
