import { applyPatch, type Patch } from '@periwinkle/core/formats/patch';
import { insist, rebase } from '@periwinkle/core/formats/rebase';
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
  /** The same edit on top of what is shown by now; `null` where what it changed is gone. */
  readonly patch: Patch | null;
}

/** A document as the server has it, with the id of the last edit known of it. */
interface ConfirmedDocument extends StoredDocument {
  readonly edit: number;
}

/**
 * What the server has, and what was done here on top of it. Pure: each method returns a new copy. What is shown is
 * always the confirmed documents with the pending edits applied in order.
 */
export class WorkingCopy {
  private constructor(
    readonly confirmed: ReadonlyMap<string, ConfirmedDocument>,
    readonly pending: readonly PendingEdit[],
    readonly meetings: readonly Meeting[],
    /** Documents as shown, by path. */
    readonly documents: ReadonlyMap<string, unknown>,
    readonly lastEdit: number,
  ) {}

  static of(documents: readonly StoredDocument[], lastEdit: number): WorkingCopy {
    const confirmed = new Map(documents.map(document => [document.path, { ...document, edit: lastEdit }]));
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

  /**
   * Id of the edit from which on edits of the same document are missing here that were stored before one that is told; `null` where
   * none is. Edits of other documents may have been told since.
   */
  lacksBefore(edit: StoredEdit): number | null {
    const known = this.confirmed.get(edit.path);
    return known !== undefined && edit.revision > known.revision + 1 ? known.edit : null;
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
      edit: edit.id,
    });
    const [first] = this.pending.filter(pending => pending.path === edit.path);
    if (first?.key === edit.editKey) {
      // Our own, as we made it: what is shown already has it.
      const pending = this.pending.filter(each => each !== first);
      return this.with({ confirmed, pending, lastEdit }).settled(edit.path);
    }
    const { pending, meetings, remote } = this.pendingAfter(edit.path, before.body, edit.patch, () => false);
    const met = meetings.map(each => ({ ...each, theirs: edit }));
    return this.with({
      confirmed,
      pending,
      lastEdit,
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
    confirmed?: ReadonlyMap<string, ConfirmedDocument>;
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
