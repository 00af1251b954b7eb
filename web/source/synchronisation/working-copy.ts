import { applyPatch, type Patch } from '@periwinkle/core/formats/patch';
import { insist, rebase } from '@periwinkle/core/formats/rebase';
import { isSameJson } from '@periwinkle/core/formats/json';
import type { StoredDocument, StoredEdit } from '../data/stored';

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
  /** The same edit on top of what is shown by now; `null` where what it changed is gone. */
  readonly patch: Patch | null;
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
    /** Number of the edit up to which all are known. */
    readonly lastEdit: number,
    /** Numbers of edits that are known beyond it: of other documents, others may still be missing. */
    private readonly beyond: ReadonlySet<number> = new Set(),
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
    return this.with({
      pending: [...this.pending, edit],
      meetings: this.meetingsAfter(edit.path, edit.patch),
      documents: new Map(this.documents).set(edit.path, document),
    });
  }

  /** Takes up meetings that were left undecided, on the documents as they are shown. */
  withMeetings(meetings: readonly Meeting[]): WorkingCopy {
    return this.with({ meetings: [...this.meetings, ...meetings] });
  }

  /** Whether edits of the same document are missing here that were stored before one that is told. */
  lacksBefore(edit: StoredEdit): boolean {
    const known = this.confirmed.get(edit.path);
    return known !== undefined && edit.revision > known.revision + 1;
  }

  /** Takes in an edit the server tells of: a confirmation of our own, or one made elsewhere. */
  withStored(edit: StoredEdit): WorkingCopy {
    const before = this.confirmed.get(edit.path);
    const known = this.knownWith(edit.id);
    if (!before || edit.revision <= before.revision) return known === null ? this : this.with(known);
    const { document } = applyPatch(before.body, edit.patch);
    const confirmed = new Map(this.confirmed).set(edit.path, {
      path: edit.path,
      revision: edit.revision,
      body: document,
    });
    const own = this.pending.find(({ key }) => key === edit.editKey);
    const [first] = this.pending.filter(pending => pending.path === edit.path);
    if (own && own === first && isSameJson(own.patch, edit.patch)) {
      // As we made it: what is shown already has it.
      const pending = this.pending.filter(each => each !== first);
      return this.with({ ...known, confirmed, pending }).settled(edit.path);
    }
    // Our own may also have been sent by another window that has taken it up, as it then was.
    const isOwn = (pending: PendingEdit): boolean => pending === own;
    const { pending, meetings, remote } = this.pendingAfter(edit.path, before.body, edit.patch, isOwn);
    const met = meetings.map(each => ({ ...each, theirs: edit }));
    return this.with({
      ...known,
      confirmed,
      pending,
      meetings: [...this.meetingsAfter(edit.path, remote), ...met],
    }).shownAnew(edit.path, remote);
  }

  /** Drops an edit the server refused, and what builds on it. Gives the edits that went with it, too. */
  without(key: string): { copy: WorkingCopy; lost: readonly PendingEdit[] } {
    const path = this.pending.find(each => each.key === key)?.path;
    if (path === undefined) return { copy: this, lost: [] };
    const { body } = this.confirmed.get(path)!;
    const { pending, meetings, remote } = this.pendingAfter(path, body, [], each => each.key === key);
    const copy = this.with({ pending, meetings: this.meetingsAfter(path, remote) });
    return { copy: copy.shownAnew(path, remote), lost: meetings.map(({ mine }) => mine) };
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
    beyond?: ReadonlySet<number>;
  }): WorkingCopy {
    return new WorkingCopy(
      parts.confirmed ?? this.confirmed,
      parts.pending ?? this.pending,
      parts.meetings ?? this.meetings,
      parts.documents ?? this.documents,
      parts.lastEdit ?? this.lastEdit,
      parts.beyond ?? this.beyond,
    );
  }

  /** What is known with one edit more; `null` where it is known already. */
  private knownWith(id: number): { lastEdit: number; beyond: ReadonlySet<number> } | null {
    if (id <= this.lastEdit || this.beyond.has(id)) return null;
    const beyond = new Set(this.beyond).add(id);
    let { lastEdit } = this;
    while (beyond.delete(lastEdit + 1)) lastEdit++;
    return { lastEdit, beyond };
  }

  /** Nothing pending on a document any more: the confirmed object is the shown one, so that both keep one identity. */
  private settled(path: string): WorkingCopy {
    if (this.pending.some(each => each.path === path)) return this;
    const shown = this.documents.get(path);
    const stored = this.confirmed.get(path)!;
    return this.with({ confirmed: new Map(this.confirmed).set(path, { ...stored, body: shown }) });
  }

  /**
   * The pending edits of a document as they follow what was done elsewhere on what is confirmed. An edit that meets that, or that is
   * to be left out, is taken back for those behind it: they follow its inverse as well, and meet it where they build on it.
   */
  private pendingAfter(
    path: string,
    base: unknown,
    theirs: Patch,
    isLeftOut: (edit: PendingEdit) => boolean,
  ): { pending: PendingEdit[]; meetings: Omit<Meeting, 'theirs'>[]; remote: Patch } {
    const pending: PendingEdit[] = [];
    let meetings: Omit<Meeting, 'theirs'>[] = [];
    // What was shown before an edit, as it was and as it is; `remote` leads from the one to the other.
    let before = base;
    let now = applyPatch(base, theirs).document;
    let remote = theirs;
    for (const edit of this.pending) {
      if (edit.path !== path) {
        pending.push(edit);
        continue;
      }
      const both = isLeftOut(edit) ? null : rebase(before, edit.patch, remote);
      const { document, inverse } = applyPatch(before, edit.patch);
      if (both?.ok) {
        pending.push({ ...edit, patch: both.mine });
        meetings = meetings.map(each => ({
          ...each,
          patch: each.patch && insist(now, each.patch, both.mine),
        }));
        now = applyPatch(now, both.mine).document;
        remote = both.theirs;
      } else {
        if (both) {
          const patch = insist(before, edit.patch, remote);
          meetings.push({ mine: edit, place: both.meeting.path, patch });
        }
        remote = [...inverse, ...remote];
      }
      before = document;
    }
    return { pending, meetings, remote };
  }

  /** The undecided meetings on top of a change of what is shown of a document. */
  private meetingsAfter(path: string, change: Patch): readonly Meeting[] {
    return this.meetings.map(meeting =>
      meeting.mine.path === path && meeting.patch
        ? { ...meeting, patch: insist(this.documents.get(path), meeting.patch, change) }
        : meeting,
    );
  }

  /** Shows a document with a change that was made elsewhere on top of what is shown. */
  private shownAnew(path: string, change: Patch): WorkingCopy {
    const { document } = applyPatch(this.documents.get(path), change);
    return this.with({ documents: new Map(this.documents).set(path, document) });
  }
}
