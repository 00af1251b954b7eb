import {
  bigint,
  customType,
  datetime,
  index,
  int,
  longtext,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';

/** Text compared byte by byte: paths and ids differ when their letters' case does. */
const name = (column: string, length: number) => varchar(column, { length });

/** JSON kept as the text that was written, so that the order of keys survives. */
const jsonText = customType<{ data: unknown; driverData: string }>({
  dataType: () => 'longtext',
  toDriver: value => writeJson(value),
  fromDriver: text => parseJson(text),
});

export const systems = mysqlTable('systems', {
  id: name('id', 64).primaryKey(),
  title: varchar('title', { length: 200 }).notNull(),
  createdAt: datetime('created_at', { fsp: 3 }).notNull(),
  changedAt: datetime('changed_at', { fsp: 3 }).notNull(),
  /** Set while a system is removed but can still be brought back. */
  removedAt: datetime('removed_at', { fsp: 3 }),
});

export const documents = mysqlTable(
  'documents',
  {
    systemId: name('system_id', 64).notNull(),
    path: name('path', 190).notNull(),
    revision: int('revision').notNull(),
    /** JSON text, or the text itself for icons and guide pages. */
    body: longtext('body').notNull(),
  },
  table => [primaryKey({ columns: [table.systemId, table.path] })],
);

/** Every change ever made, in order. Rows are only added. */
export const edits = mysqlTable(
  'edits',
  {
    id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
    systemId: name('system_id', 64).notNull(),
    path: name('path', 190).notNull(),
    /** The document's revision after this edit. */
    revision: int('revision').notNull(),
    patch: jsonText('patch').notNull(),
    inverse: jsonText('inverse').notNull(),
    /** `edit`, `undo` or `redo`; the latter two name the change they take back or bring back. */
    kind: varchar('kind', { length: 8 }).notNull(),
    /** Edits of one change are undone together. */
    changeId: varchar('change_id', { length: 64 }).notNull(),
    target: varchar('target', { length: 64 }),
    /** The sender's key: the same edit sent twice is stored once. */
    editKey: varchar('edit_key', { length: 64 }).notNull(),
    label: varchar('label', { length: 200 }).notNull(),
    author: varchar('author', { length: 64 }).notNull(),
    at: datetime('at', { fsp: 3 }).notNull(),
  },
  table => [
    index('edits_by_document').on(table.systemId, table.path, table.revision),
    index('edits_by_system').on(table.systemId, table.id),
    index('edits_by_target').on(table.systemId, table.target),
    index('edits_by_change').on(table.systemId, table.changeId),
    uniqueIndex('edits_by_key').on(table.systemId, table.editKey),
  ],
);
