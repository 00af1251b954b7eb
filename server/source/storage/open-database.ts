import type { MySql2Database } from 'drizzle-orm/mysql2';
import type { Pool } from 'mysql2/promise';
import type * as schema from './schema';

export interface OpenDatabase {
  readonly db: Database;
  readonly pool: Pool;
  readonly close: () => Promise<void>;
}

export type Database = MySql2Database<typeof schema> & { readonly $client: Pool };
