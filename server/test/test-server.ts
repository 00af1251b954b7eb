import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createPool } from 'mysql2/promise';
import { pino } from 'pino';
import { createApp } from '../source/http/app';
import type { Config } from '../source/config';
import type { OpenDatabase } from '../source/storage/open-database';
import { openDatabase } from '../source/storage/database';
import { folderDocuments } from '../source/storage/demo';
import { createSystem } from '../source/worker/new-systems';
import { Workers } from '../source/worker/workers';

let count = 0;

export const CONFIG: Config = {
  databaseUrl: '',
  host: '127.0.0.1',
  port: 0,
  allowedHosts: [],
  webFolder: null,
  demoFolder: null,
  logLevel: 'silent',
  authorHeader: null,
};

/** A server on a database of its own, with the demo in it. */
export interface TestServer {
  readonly url: string;
  readonly database: OpenDatabase;
  readonly workers: Workers;
  /** Starts another server on the same database; it ends with the first. Gives its address. */
  readonly another: () => Promise<string>;
  readonly close: () => Promise<void>;
}

function adminUrl(): string {
  const url = process.env['PERIWINKLE_TEST_DATABASE_URL'];
  if (!url) throw new Error('PERIWINKLE_TEST_DATABASE_URL is not set: run the tests by "npm test".');
  return url;
}

export const demoDocuments = (): Map<string, unknown> =>
  folderDocuments(join(process.cwd(), 'demo/quayside'));

export async function startTestServer(settings: Partial<Config> = {}): Promise<TestServer> {
  const name = `periwinkle_${process.pid}_${++count}`;
  const admin = createPool(adminUrl());
  await admin.query(`create database ${name} character set utf8mb4 collate utf8mb4_bin`);
  const url = new URL(adminUrl());
  url.pathname = `/${name}`;
  const database = await openDatabase(url.href, join(process.cwd(), 'server/migrations'));
  await createSystem(database.db, demoDocuments());
  const config = { ...CONFIG, databaseUrl: url.href, ...settings };
  const servers = [await serve(config, database)];
  const { url: address, workers } = servers[0]!;
  return {
    url: address,
    database,
    workers,
    another: async () => {
      const other = await serve(config, database);
      servers.push(other);
      return other.url;
    },
    close: async () => {
      await Promise.all(servers.map(server => server.close()));
      await database.close();
      await admin.query(`drop database ${name}`);
      await admin.end();
    },
  };
}

export interface Served {
  readonly url: string;
  readonly workers: Workers;
  readonly close: () => Promise<void>;
}

/** A server on any database. */
export async function serve(config: Config, database: OpenDatabase): Promise<Served> {
  // Threads run what is built.
  const built = pathToFileURL(join(process.cwd(), 'server/dist/worker.mjs'));
  const workers = new Workers(built, config.databaseUrl, error => {
    throw error;
  });
  const server: Server = createServer(createApp(config, database, workers, pino({ level: 'silent' })));
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    workers,
    close: async () => {
      server.closeAllConnections();
      await new Promise(resolve => server.close(resolve));
      await workers.close();
    },
  };
}
