import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import { createPool, type Pool } from 'mysql2/promise';
import type { OpenDatabase } from './open-database';
import { causeCode, DatabaseError } from './database-error';

/** What a database answers where another application, on another node of it, has made the same step meanwhile. */
const OVERTAKEN = new Set([
  'ER_TABLE_EXISTS_ERROR',
  'ER_DUP_FIELDNAME',
  'ER_DUP_KEYNAME',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_DUP_ENTRY',
  'ER_LOCK_DEADLOCK',
]);
const TRIES = 20;
const PAUSE_MS = 500;

/**
 * Brings the tables up to date. Several applications may do so at once: one does, the others wait. The lock holds on one node alone: on a
 * cluster, whoever finds a step made already waits until the one who made it has gone on. Throws `DatabaseError` where a newer version
 * has changed the tables.
 */
export async function migrateTables(
  url: string,
  { db, pool }: OpenDatabase,
  migrationsFolder: string,
): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await underLock(url, async () => {
        await refuseNewer(pool, migrationsFolder);
        await migrate(db, { migrationsFolder });
      });
    } catch (error) {
      if (attempt >= TRIES || !OVERTAKEN.has(causeCode(error) ?? '')) throw error;
      await setTimeout(PAUSE_MS);
    }
  }
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
