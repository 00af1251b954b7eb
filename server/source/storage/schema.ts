import {
  bigint,
  customType,
  datetime,
  index,
  int,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';

/** Text compared byte by byte: paths and ids differ when their letters' case does. */
const name = (column: string, length: number) => varchar(column, { length });

/** From so many letters on a text goes to the database as its bytes: to have it quoted would take a second for some megabytes. */
const AS_BYTES = 50_000;

const longText = customType<{ data: string; driverData: string | Buffer }>({
  dataType: () => 'longtext',
  toDriver: text => (text.length > AS_BYTES ? Buffer.from(text) : text),
});

export const systems = mysqlTable('systems', {
  id: name('id', 64).primaryKey(),
  title: varchar('title', { length: 200 }).notNull(),
  createdAt: datetime('created_at', { fsp: 3 }).notNull(),
  changedAt: datetime('changed_at', { fsp: 3 }).notNull(),
  /** Set while a system is removed but can still be brought back. */
  removedAt: datetime('removed_at', { fsp: 3 }),
  /** Number of its newest edit. Whoever writes counts it on, so that two never write on the same state, through whatever node. */
  lastEdit: bigint('last_edit', { mode: 'number' }).notNull().default(0),
});

export const documents = mysqlTable(
  'documents',
  {
    systemId: name('system_id', 64).notNull(),
    path: name('path', 190).notNull(),
    revision: int('revision').notNull(),
    /** JSON text, or the text itself for icons and guide pages; none while the document is removed, whose revisions go on when it is back. */
    body: longText('body'),
  },
  table => [primaryKey({ columns: [table.systemId, table.path] })],
);

/** Every edit ever made of a system, numbered without gaps. Rows are only added. */
export const edits = mysqlTable(
  'edits',
  {
    systemId: name('system_id', 64).notNull(),
    id: bigint('id', { mode: 'number' }).notNull(),
    path: name('path', 190).notNull(),
    /** The document's revision after this edit. */
    revision: int('revision').notNull(),
    /** As JSON text, like `inverse`: whoever only passes it on need not read it. */
    patch: longText('patch').notNull(),
    /** What takes it back, with tests that say what it relies on. */
    inverse: longText('inverse').notNull(),
    /** SHA-256 of the patch as it was sent, where it was placed on a later state than it was made on. */
    sent: varchar('sent', { length: 64 }),
    /** `edit`, `undo` or `redo`; the latter two name the change they take back or bring back. */
    kind: varchar('kind', { length: 8 }).notNull(),
    /** The change that an edit belongs to; of a step through the history, the step. */
    changeId: varchar('change_id', { length: 64 }).notNull(),
    target: varchar('target', { length: 64 }),
    /** The sender's key: the same edit sent twice is stored once. */
    editKey: varchar('edit_key', { length: 64 }).notNull(),
    label: varchar('label', { length: 200 }).notNull(),
    author: varchar('author', { length: 64 }).notNull(),
    at: datetime('at', { fsp: 3 }).notNull(),
  },
  table => [
    primaryKey({ columns: [table.systemId, table.id] }),
    index('edits_by_document').on(table.systemId, table.path, table.revision),
    index('edits_by_change').on(table.systemId, table.changeId),
    uniqueIndex('edits_by_key').on(table.systemId, table.editKey),
  ],
);

/** What was done, as a person sees it: one or several edits that are taken back and brought back together. */
export const changes = mysqlTable(
  'changes',
  {
    systemId: name('system_id', 64).notNull(),
    id: name('id', 64).notNull(),
    author: varchar('author', { length: 64 }).notNull(),
    label: varchar('label', { length: 200 }).notNull(),
    at: datetime('at', { fsp: 3 }).notNull(),
    /** Number of its newest edit. */
    made: bigint('made', { mode: 'number' }).notNull(),
    /** `done` or `undone`. */
    state: varchar('state', { length: 8 }).notNull(),
    /** Change or step under which the edits stand that were the last to do it, undo it or redo it; none where these cannot be taken back. */
    act: varchar('act', { length: 64 }),
    /** Number of the newest of those. */
    position: bigint('position', { mode: 'number' }).notNull(),
    /** Whose next step it may be: its author's while it is done, then that of whoever took it back; nobody's when a step was in vain. */
    holder: varchar('holder', { length: 64 }),
  },
  table => [
    primaryKey({ columns: [table.systemId, table.id] }),
    index('changes_by_holder').on(table.systemId, table.holder, table.state, table.position),
    index('changes_by_author').on(table.systemId, table.author, table.made),
    index('changes_in_order').on(table.systemId, table.made),
  ],
);
