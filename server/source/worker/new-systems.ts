import { eq } from 'drizzle-orm';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { isObject } from '@periwinkle/core/json/json';
import type { Database } from '../storage/open-database';
import { inTransaction, snapshot } from '../storage/database';
import { Refusal } from '../http/refusal';
import { documents, systems } from '../storage/schema';
import type { SystemSummary } from '@periwinkle/protocol/wire';
import { refuseOneMore, requireSystem, summary } from '../storage/systems';
import { computing } from './computing';
import { inPieces } from './pieces';
import { invalid, refuseLonger, refuseMore } from './refusing';
import { bodiesOf, bodyText, readDocuments } from './parsed-documents';

/** First parts of addresses that lead to the application itself. */
const RESERVED_IDS: ReadonlySet<string> = new Set(['api', 'assets']);

/** Puts a new system in. Documents with errors are refused as a whole, with every problem. */
export async function createSystem(
  db: Database,
  bodies: ReadonlyMap<string, unknown>,
): Promise<SystemSummary> {
  const unknown = [...bodies.keys()].filter(path => !documentKind(path));
  if (unknown.length > 0) {
    throw new Refusal(
      422,
      'unknown-file',
      'Files that are no documents',
      `“${unknown[0]}” is no document of a system.`,
    );
  }
  const rows = computing(() => checkedRows(bodies));
  const manifest = bodies.get('system.json');
  if (!isObject(manifest))
    throw new Refusal(422, 'missing-file', 'No system.json', 'A system needs a system.json.');
  const id = String(manifest['id']);
  if (RESERVED_IDS.has(id))
    throw new Refusal(
      422,
      'reserved-id',
      'The id is reserved',
      `“${id}” is an address of the application itself; choose another id.`,
    );
  const now = new Date();
  const row = { id, title: String(manifest['title']), createdAt: now, changedAt: now };
  await inTransaction(db, async transaction => {
    const [twin] = await transaction
      .select({ removedAt: systems.removedAt })
      .from(systems)
      .where(eq(systems.id, id))
      .for('update');
    if (twin) {
      const words = twin.removedAt
        ? 'was removed and can be brought back; choose another id'
        : 'is there already; choose another id';
      throw new Refusal(409, 'duplicate-id', 'The id is taken', `A system “${id}” ${words}.`);
    }
    await refuseOneMore(transaction);
    await transaction.insert(systems).values({ ...row, removedAt: null });
    for (const some of inPieces(rows, ({ body }) => body?.length ?? 0))
      await transaction.insert(documents).values(some.map(each => ({ ...each, systemId: id })));
  });
  return summary(row);
}

interface NewRow {
  readonly path: string;
  readonly revision: number;
  readonly body: string | null;
}

/** Documents as they are stored. Throws `Refusal` where they have errors, or are more than a system may hold. */
function checkedRows(bodies: ReadonlyMap<string, unknown>): NewRow[] {
  const rows = [...bodies].map(([path, body]) => ({ path, revision: 1, body: bodyText(path, body) }));
  const letters = rows.reduce((sum, { body }) => sum + (body?.length ?? 0), 0);
  const nothing = { documents: 0, letters: 0 };
  refuseMore(nothing, { documents: rows.length, letters });
  refuseLonger(nothing, { documents: rows.length, letters });
  const errors = checkSystem(bodies).problems.filter(({ severity }) => severity === 'error');
  if (errors.length > 0) throw invalid('The system has errors', errors);
  return rows;
}

/** Copies the documents of a system under another id and title; the history begins anew. */
export async function duplicateSystem(
  db: Database,
  from: string,
  id: string,
  title: string,
): Promise<SystemSummary> {
  const stored = await snapshot(db, async transaction => {
    await requireSystem(transaction, from);
    return readDocuments(transaction, from);
  });
  const bodies = bodiesOf(stored.values());
  bodies.set('system.json', { ...(bodies.get('system.json') as object), id, title });
  return createSystem(db, bodies);
}
