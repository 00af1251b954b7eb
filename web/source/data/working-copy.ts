import { applyPatch, PatchError, type Patch } from '@periwinkle/core/formats/patch';
import { rebasePatch } from '@periwinkle/core/formats/rebase';
import type { StoredDocument, StoredEdit } from './api';

/** An edit made here that the server has not confirmed. */
export interface PendingEdit {
  readonly key: string;
  readonly changeId: string;
  readonly path: string;
  readonly patch: Patch;
  readonly label: string;
}

/** An edit made here that met one made elsewhere, at the same place. */
export interface Meeting {
  readonly mine: PendingEdit;
  readonly theirs: StoredEdit;
  /** JSON Pointer of the place. */
  readonly place: string;
}

/**
 * What the server has, and what was done here on top of it. Pure: each method returns a new copy. What is shown is
 * always the confirmed documents with the pending edits applied in order.
 */
export class WorkingCopy {
  private constructor(
    readonly confirmed: ReadonlyMap<string, StoredDocument>,
    readonly pending: readonly PendingEdit[],
    readonly meetings: readonly Meeting[],
    /** Documents as shown, by path. */
    readonly documents: ReadonlyMap<string, unknown>,
    readonly lastEdit: number,
  ) {}

  static of(documents: readonly StoredDocument[], lastEdit: number): WorkingCopy {
    const confirmed = new Map(documents.map(document => [document.path, document]));
    return new WorkingCopy(
      confirmed,
      [],
      [],
      new Map(documents.map(({ path, body }) => [path, body])),
      lastEdit,
    );
  }

  /** Adds an edit. Throws `PatchError` when it does not fit what is shown. */
  withEdit(edit: PendingEdit): WorkingCopy {
    const { document } = applyPatch(this.documents.get(edit.path), edit.patch);
    const documents = new Map(this.documents).set(edit.path, document);
    return new WorkingCopy(this.confirmed, [...this.pending, edit], this.meetings, documents, this.lastEdit);
  }

  /** Takes in an edit the server tells of: a confirmation of our own, or one made elsewhere. */
  withStored(edit: StoredEdit): WorkingCopy {
    const before = this.confirmed.get(edit.path);
    const lastEdit = Math.max(this.lastEdit, edit.id);
    if (!before || edit.revision <= before.revision) return this.with({ lastEdit });
    const { document } = applyPatch(before.body, edit.patch);
    const confirmed = new Map(this.confirmed).set(edit.path, {
      path: edit.path,
      revision: edit.revision,
      body: document,
    });
    const [first] = this.pending.filter(pending => pending.path === edit.path);
    if (first?.key === edit.editKey) {
      // Our own, as we made it: what is shown already has it.
      const pending = this.pending.filter(each => each !== first);
      return this.with({ confirmed, pending, lastEdit }).settled(edit.path);
    }
    return this.rebased(before.body, edit, confirmed, lastEdit);
  }

  /** Drops an edit the server refused; what builds on it goes too when it no longer fits. */
  without(key: string): WorkingCopy {
    const path = this.pending.find(each => each.key === key)?.path;
    const next = this.with({ pending: this.pending.filter(each => each.key !== key) });
    return path === undefined ? next : next.replayed(path);
  }

  withoutMeeting(meeting: Meeting): WorkingCopy {
    return this.with({ meetings: this.meetings.filter(each => each !== meeting) });
  }

  private with(parts: {
    confirmed?: ReadonlyMap<string, StoredDocument>;
    pending?: readonly PendingEdit[];
    meetings?: readonly Meeting[];
    documents?: ReadonlyMap<string, unknown>;
    lastEdit?: number;
  }): WorkingCopy {
    return new WorkingCopy(
      parts.confirmed ?? this.confirmed,
      parts.pending ?? this.pending,
      parts.meetings ?? this.meetings,
      parts.documents ?? this.documents,
      parts.lastEdit ?? this.lastEdit,
    );
  }

  /** Nothing pending on a document any more: the confirmed object is the shown one, so that both keep one identity. */
  private settled(path: string): WorkingCopy {
    if (this.pending.some(each => each.path === path)) return this;
    const shown = this.documents.get(path);
    const stored = this.confirmed.get(path)!;
    return this.with({ confirmed: new Map(this.confirmed).set(path, { ...stored, body: shown }) });
  }

  private rebased(
    base: unknown,
    theirs: StoredEdit,
    confirmed: ReadonlyMap<string, StoredDocument>,
    lastEdit: number,
  ): WorkingCopy {
    const pending: PendingEdit[] = [];
    const meetings = [...this.meetings];
    let document = base;
    let remote = theirs.patch;
    for (const edit of this.pending) {
      if (edit.path !== theirs.path) {
        pending.push(edit);
        continue;
      }
      const mine = rebasePatch(document, edit.patch, remote);
      const other = rebasePatch(document, remote, edit.patch);
      if (!mine.ok || !other.ok) {
        const place = mine.ok ? theirs.path : mine.meetings[0]!.path;
        meetings.push({ mine: edit, theirs, place });
        continue;
      }
      document = applyPatch(document, edit.patch).document;
      pending.push({ ...edit, patch: mine.patch });
      remote = other.patch;
    }
    return this.with({ confirmed, pending, meetings, lastEdit }).replayed(theirs.path);
  }

  /** Applies the pending edits of a document anew; those that no longer fit are dropped. */
  private replayed(path: string): WorkingCopy {
    let document = this.confirmed.get(path)!.body;
    const pending = this.pending.filter(edit => {
      if (edit.path !== path) return true;
      try {
        document = applyPatch(document, edit.patch).document;
        return true;
      } catch (error) {
        if (error instanceof PatchError) return false;
        throw error;
      }
    });
    return this.with({ pending, documents: new Map(this.documents).set(path, document) });
  }
}
