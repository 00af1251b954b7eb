import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import { createPool, type Pool } from 'mysql2/promise';
import { LIMITS } from '@periwinkle/core/formats/limits';
import * as schema from './schema';

export type Database = MySql2Database<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** The database cannot be used; the message is one line that says what to do. */
export class DatabaseError extends Error {}

export interface OpenDatabase {
  readonly db: Database;
  readonly pool: Pool;
  readonly close: () => Promise<void>;
}

/** How the database's client says that as many questions wait as may. */
export const QUEUE_IS_FULL = 'Queue limit reached.';

/** Connections to a database whose tables are up to date, made when they are first used; so many questions wait for one, 0: any number. */
export function connectTo(url: string, connectionLimit: number, queueLimit = 0): OpenDatabase {
  const pool = createPool({
    uri: url,
    connectionLimit,
    queueLimit,
    charset: 'utf8mb4',
    timezone: 'Z',
    supportBigNumbers: true,
  });
  return { db: drizzle(pool, { schema, mode: 'default' }), pool, close: () => pool.end() };
}

/** Connects and brings the tables up to date. Several applications may do so at once: one migrates, the others wait. */
export async function openDatabase(url: string, migrationsFolder: string): Promise<OpenDatabase> {
  const opened = connectTo(url, 10, LIMITS.questionsWaiting);
  const { db, pool } = opened;
  try {
    const connection = await pool.getConnection();
    connection.release();
  } catch (error) {
    await pool.end();
    throw new DatabaseError(
      `The database cannot be reached (${reason(error)}): start it, or mend PERIWINKLE_DATABASE_URL.`,
    );
  }
  try {
    await underLock(url, async () => {
      await refuseNewer(pool, migrationsFolder);
      await migrate(db, { migrationsFolder });
    });
  } catch (error) {
    await pool.end();
    if (error instanceof DatabaseError) throw error;
    throw new DatabaseError(
      `The tables could not be brought up to date (${reason(error)}); nothing was started.`,
    );
  }
  return opened;
}

/** What a statement may have, so that the largest document can be written with what takes it back. */
export const PACKET_BYTES = 256 * 1024 * 1024;

/** How large a statement this database takes, in bytes. */
export async function packetBytes({ pool }: OpenDatabase): Promise<number> {
  const [rows] = await pool.query('select @@max_allowed_packet as bytes');
  return Number((rows as { bytes: number }[])[0]?.bytes ?? 0);
}

/** Tables that a newer version has changed are left alone. */
async function refuseNewer(pool: Pool, migrationsFolder: string): Promise<void> {
  const [tables] = await pool.query("show tables like '__drizzle_migrations'");
  if ((tables as unknown[]).length === 0) return;
  const [rows] = await pool.query('select max(created_at) as newest from __drizzle_migrations');
  const newest = Number((rows as { newest: number | null }[])[0]?.newest ?? 0);
  const journal = JSON.parse(readFileSync(join(migrationsFolder, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  if (newest > Math.max(...journal.entries.map(({ when }) => when)))
    throw new DatabaseError(
      'These data were last used by a newer version of Periwinkle: start that one, or put back a backup from before.',
    );
}

async function underLock(url: string, work: () => Promise<void>): Promise<void> {
  const holder = createPool({ uri: url, connectionLimit: 1 });
  try {
    const [rows] = await holder.query("select get_lock('periwinkle-migration', 60) as held");
    if ((rows as { held: number }[])[0]?.held !== 1) throw new Error('another migration is still running');
    await work();
    await holder.query("select release_lock('periwinkle-migration')");
  } finally {
    await holder.end();
  }
}

function reason(error: unknown): string {
  const cause = (error as { cause?: unknown }).cause ?? error;
  const { code, message } = cause as { code?: string; message?: string };
  return code ?? message?.split('\n')[0] ?? String(error);
}

/** Deadlocks and certification failures (Galera) undo a transaction that would succeed when tried again. */
const PASSING = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
const TRIES = 4;

/** What was read has been written over by another node before it was written here: the whole transaction is done again. */
export class Overtaken extends Error {}

/** Runs a transaction, again when the database asks for it or it was overtaken. */
export async function inTransaction<T>(
  db: Database,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction(work);
    } catch (error) {
      const cause = ((error as { cause?: unknown }).cause ?? error) as { code?: string };
      const isPassing = error instanceof Overtaken || PASSING.has(cause.code ?? '');
      if (attempt >= TRIES || !isPassing) throw error;
    }
  }
}

/** Reads as of one moment, without holding anything. */
export const snapshot = <T>(db: Database, read: (transaction: Transaction) => Promise<T>): Promise<T> =>
  db.transaction(read, { isolationLevel: 'repeatable read', withConsistentSnapshot: true });
