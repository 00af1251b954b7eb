import type { Database, OpenDatabase } from './open-database';
import { setTimeout } from 'node:timers/promises';
import { drizzle } from 'drizzle-orm/mysql2';
import type { MySqlTransactionConfig } from 'drizzle-orm/mysql-core';
import { createPool } from 'mysql2/promise';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { causeCode, causeOf, DatabaseError } from './database-error';
import { migrateTables } from './migrate';
import * as schema from './schema';

export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** How the database's client says that as many questions wait as may. */
export const QUEUE_IS_FULL = 'Queue limit reached.';

/**
 * On a cluster, whoever asks one node is answered once that has all that was stored through the others before: what somebody was told by
 * another server is known here. Elsewhere there is nothing to wait for.
 */
const UP_TO_DATE = 'set session wsrep_sync_wait = 7';

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
  pool.pool.on('connection', connection => {
    connection.query(UP_TO_DATE, () => {
      // A database that knows of no clusters says so.
    });
  });
  return { db: drizzle(pool, { schema, mode: 'default' }), pool, close: () => pool.end() };
}

/** Connects and brings the tables up to date. */
export async function openDatabase(url: string, migrationsFolder: string): Promise<OpenDatabase> {
  const opened = connectTo(url, 10, QUOTAS.questionsWaiting);
  const { pool } = opened;
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
    await migrateTables(url, opened, migrationsFolder);
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

function reason(error: unknown): string {
  const { message } = causeOf(error);
  return causeCode(error) ?? message?.split('\n')[0] ?? String(error);
}

/** Deadlocks and conflicts that a cluster finds at commit undo a transaction that would succeed when tried again. */
const PASSING = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
/** Who writes through other nodes may be quicker several times. */
const TRIES = 12;
/** Two that meet each wait for another time, up to so much longer after each try. */
const PAUSE_MS = 10;

/** What was read has been written over by another node before it was written here: the whole transaction is done again. */
export class Overtaken extends Error {}

/**
 * Runs a transaction once, on a connection that is given back whatever happens: a node of a cluster that is cut off from the others answers, and
 * lets nobody begin.
 */
async function transactionOn<T>(
  db: Database,
  work: (transaction: Transaction) => Promise<T>,
  config?: MySqlTransactionConfig,
): Promise<T> {
  const connection = await db.$client.getConnection();
  try {
    return await drizzle(connection, { schema, mode: 'default' }).transaction(work, config);
  } finally {
    connection.release();
  }
}

/** Whether a transaction would succeed when it is done again. */
export const isPassing = (error: unknown): boolean =>
  error instanceof Overtaken || PASSING.has(causeCode(error) ?? '');

/** Runs a transaction, again when the database asks for it or it was overtaken. */
export async function inTransaction<T>(
  db: Database,
  work: (transaction: Transaction) => Promise<T>,
  tries = TRIES,
): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await transactionOn(db, work);
    } catch (error) {
      if (attempt >= tries || !isPassing(error)) throw error;
      await setTimeout(Math.random() * PAUSE_MS * attempt);
    }
  }
}

/** Reads as of one moment, without holding anything. */
export const snapshot = <T>(db: Database, read: (transaction: Transaction) => Promise<T>): Promise<T> =>
  transactionOn(db, read, { isolationLevel: 'repeatable read', withConsistentSnapshot: true });
