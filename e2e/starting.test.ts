import { createServer } from 'node:net';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from '../scripts/database.mjs';
import { Application, isAlive } from './support/application';

/** "npm start" in the circumstances it meets. */

const TIMEOUT = 180_000;

test(
  'starts, says its address once it answers, and ends with nothing left running; data stays',
  async () => {
    const application = new Application();
    const address = await application.start();
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
    expect(await (await fetch(`${address}/quayside`)).text()).toContain('<div id="app">');
    const { server, database } = application.processes();
    expect(statSync(join(application.folder, 'password')).mode & 0o777).toBe(0o600);
    expect(await application.stop()).toBe(0);
    expect([server, database].filter(isAlive)).toEqual([]);
    expect(existsSync(join(application.folder, 'mariadb'))).toBe(true);
    await application.remove();
  },
  TIMEOUT,
);

test(
  'a second start says where the first one is, and leaves it alone',
  async () => {
    const first = new Application();
    const address = await first.start();
    const second = new Application(first.folder);
    await expect(second.start()).rejects.toThrow(
      /ended with 1: .*running already at http:\/\/127\.0\.0\.1:\d+\//s,
    );
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
    await first.remove();
  },
  TIMEOUT,
);

test(
  'a taken port is one clear line, and nothing half-started stays',
  async () => {
    const taken = createServer();
    await new Promise<void>(resolve => taken.listen(0, '127.0.0.1', resolve));
    const { port } = taken.address() as { port: number };
    const application = new Application(undefined, { PERIWINKLE_PORT: String(port) });
    await expect(application.start()).rejects.toThrow(
      `Port ${port} is taken: set PERIWINKLE_PORT to another one.`,
    );
    expect(existsSync(join(application.folder, 'mariadb.pid'))).toBe(false);
    expect(existsSync(join(application.folder, 'running.json'))).toBe(false);
    taken.close();
    await application.remove();
  },
  TIMEOUT,
);

test(
  'pid and socket files of a database that was killed do not stand in the way',
  async () => {
    const application = new Application();
    mkdirSync(application.folder, { recursive: true });
    writeFileSync(join(application.folder, 'mariadb.pid'), `${process.pid}\n`);
    writeFileSync(join(application.folder, 'mariadb.sock'), '');
    mkdirSync(join(application.folder, 'mariadb.new'));
    writeFileSync(join(application.folder, 'running.json'), '{"pid": 1');
    const address = await application.start();
    expect((await fetch(`${address}/api/health`)).status).toBe(200);
    await application.remove();
  },
  TIMEOUT,
);

test(
  'another database can be named; one that does not answer is one clear line',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'periwinkle-other-'));
    const other = await startDatabase(folder);
    const application = new Application(undefined, { PERIWINKLE_DATABASE_URL: other.url });
    const address = await application.start();
    expect(((await (await fetch(`${address}/api/systems`)).json()) as unknown[]).length).toBe(1);
    expect(existsSync(join(application.folder, 'mariadb'))).toBe(false);
    await application.stop();
    await other.stop();
    await expect(application.start()).rejects.toThrow(
      /The database cannot be reached \(ECONNREFUSED\): start it, or mend PERIWINKLE_DATABASE_URL\./,
    );
    await application.remove();
    expect(readFileSync(join(folder, 'mariadb.log'), 'utf8')).not.toBe('');
    rmSync(folder, { recursive: true, force: true });
  },
  TIMEOUT,
);
