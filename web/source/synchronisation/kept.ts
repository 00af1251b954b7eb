import { identified } from '@periwinkle/core/patch/identity';
import { relocated } from '@periwinkle/core/patch/relocate';
import type { StoredDocument, StoredEdit } from '@periwinkle/protocol/wire';
import { makingFirst, movedDocuments } from './moved-documents';
import type { Unplaced } from './unplaced';
import { WorkingCopy, type Meeting, type PendingEdit, type PendingPart } from './working-copy';

/** What a window keeps of what is not stored or not decided, so that another can go on with it. */
export interface Kept {
  readonly pending: readonly PendingEdit[];
  readonly meetings: readonly Meeting[];
  /** Not there in what earlier versions have kept. */
  readonly unplaced?: readonly Unplaced[];
  /** The documents it was made on, as they are confirmed. */
  readonly bases: readonly StoredDocument[];
  readonly lastEdit: number;
  readonly lastKey?: string;
}

/** What is to be kept of a working copy; `null` where all is stored and decided. */
export function keptOf(
  { pending, meetings, confirmed, lastEdit, lastKey }: WorkingCopy,
  unplaced: readonly Unplaced[] = [],
): Kept | null {
  if (pending.length + meetings.length + unplaced.length === 0) return null;
  const paths = pathsOf({ pending, meetings });
  const bases = [...confirmed.values()]
    .filter(({ path }) => paths.has(path))
    .map(({ path, revision, body }) => ({ path, revision, body }));
  return { pending, meetings, unplaced, bases, lastEdit, lastKey };
}

/** The documents that are edited; one that is only made has no base. */
function pathsOf({ pending, meetings }: Pick<Kept, 'pending' | 'meetings'>): ReadonlySet<string> {
  const edits = [...pending, ...meetings.map(({ mine }) => mine)];
  return new Set(edits.flatMap(({ parts }) => parts).map(({ path }) => path));
}

/** Edits as they follow by now, edits that met what was stored since, and edits that have lost their place. */
export interface Left {
  readonly pending: readonly PendingEdit[];
  readonly meetings: readonly Meeting[];
  readonly lost: readonly PendingEdit[];
}

/**
 * What was kept, as it follows all that was stored `since`. Where the server has an earlier state than the one it was made on, as after
 * a backup was put back, it is placed by what it means. `null` as long as the copy it is for has edits of its own under way, or has
 * heard of more than `since` tells.
 */
export function broughtUpToDate(kept: Kept, since: readonly StoredEdit[], copy: WorkingCopy): Left | null {
  if (copy.pending.length > 0) return null;
  const { bases } = kept;
  const isLater = bases.some(({ path, revision }) => revision > copy.confirmedAt(path).revision);
  if (isLater) return placedOn(copy, kept);
  const start = WorkingCopy.of(bases, kept.lastEdit);
  const moves = movedDocuments(since);
  const there = makingFirst(since, moves).reduce(
    (now, edit) => {
      const move = moves.find(({ removal }) => removal === edit);
      return (move ? now.withMoved(edit, move.to, null) : now).withStored(edit);
    },
    kept.pending.reduce((now, edit) => now.withEdit(edit), start).withMeetings(kept.meetings),
  );
  const isBehind = [...pathsOf(kept)].some(
    path => there.confirmedAt(path).revision !== copy.confirmedAt(path).revision,
  );
  return isBehind ? null : { pending: there.pending, meetings: there.meetings, lost: [] };
}

/** What was kept, placed on another state by what it means. */
export function placedOn(copy: WorkingCopy, { pending, meetings }: Kept): Left {
  let there = copy;
  const fitting: PendingEdit[] = [];
  const lost: PendingEdit[] = [];
  for (const edit of pending) {
    const parts = placedParts(there, edit.parts);
    if (!parts && !edit.step) {
      lost.push(edit);
      continue;
    }
    fitting.push({ ...edit, parts: parts ?? [] });
    there = there.withEdit(fitting.at(-1)!);
  }
  return { pending: fitting, meetings, lost };
}

/** Parts of an edit placed on what is shown by what they mean; `null` where one of them has no place. */
export function placedParts(copy: WorkingCopy, parts: readonly PendingPart[]): readonly PendingPart[] | null {
  const fitting: PendingPart[] = [];
  for (const part of parts) {
    const document = copy.shownAt(part.path);
    const found = relocated(document, part.patch);
    if (!found.ok) return null;
    fitting.push({ ...part, patch: identified(document, found.patch) });
  }
  return fitting;
}
