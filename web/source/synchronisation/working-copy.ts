import type { Patch } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { differenceOf } from '@periwinkle/core/patch/difference';
import { rebaseInsisting, rebase } from '@periwinkle/core/patch/rebase';
import { isSameJson } from '@periwinkle/core/json/json';
import type { StoredDocument, StoredEdit } from '@periwinkle/protocol/wire';

/** What an edit does to one document. A document that is not there is `null`: replacing that as a whole makes one, and the reverse removes it. */
export interface EditPart {
  readonly path: string;
  readonly patch: Patch;
}

/** A part as the server knows it again. */
export interface PendingPart extends EditPart {
  readonly key: string;
}

/** A step through the history: a change that is taken back or brought back. */
export interface HistoryStep {
  readonly direction: 'undo' | 'redo';
  readonly change: string;
}

/** An edit made here that the server has not confirmed: all its parts are stored, or none. */
export interface PendingEdit {
  readonly key: string;
  readonly changeId: string;
  readonly label: string;
  /** Those that are not confirmed yet, each of a document of its own. */
  readonly parts: readonly PendingPart[];
  /** Of a step: its parts are what it is taken to do, as far as that is known here; the server says what it did. */
  readonly step?: HistoryStep;
}

/** Gives a document with what it names as that is called by now; the same document where it names nothing of it. */
export type Carry = (path: string, document: unknown) => unknown;

/** An edit made here that met one made elsewhere, at the same place. */
export interface Meeting {
  readonly mine: PendingEdit;
  readonly theirs: StoredEdit;
  /** Where: the document, and the JSON Pointer in it. */
  readonly path: string;
  readonly place: string;
  /** The same edit on top of what is shown by now; `null` where what it changed is gone. */
  readonly parts: readonly PendingPart[] | null;
}

/** A document while pending edits are gone through. */
interface Line {
  /** What was shown before an edit, as it was and as it is; `remote` leads from the one to the other. */
  readonly before: unknown;
  readonly now: unknown;
  readonly remote: Patch;
}

/** What becomes of the pending edits once something else is beneath them. */
interface Followed {
  readonly pending: readonly PendingEdit[];
  readonly meetings: readonly Omit<Meeting, 'theirs'>[];
  /** How what is shown of each document changes. */
  readonly remotes: ReadonlyMap<string, Patch>;
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
    /** Its key, by which the server sees whether it is still the same. */
    readonly lastKey: string,
    /** Edits that are known beyond it, by number, with their keys: of other documents, others may still be missing. */
    private readonly beyond: ReadonlyMap<number, string> = new Map(),
  ) {}

  static of(documents: readonly StoredDocument[], lastEdit: number, lastKey: string = ''): WorkingCopy {
    const confirmed = new Map(documents.map(document => [document.path, document]));
    const present = documents.filter(({ body }) => body !== null);
    return new WorkingCopy(
      confirmed,
      [],
      [],
      new Map(present.map(({ path, body }) => [path, body])),
      lastEdit,
      lastKey,
    );
  }

  /** A document as the server has it; one that never was there has revision 0. */
  confirmedAt(path: string): StoredDocument {
    return this.confirmed.get(path) ?? { path, revision: 0, body: null };
  }

  /** A document as shown; `null` where there is none. */
  shownAt(path: string): unknown {
    return this.documents.get(path) ?? null;
  }

  /** Adds an edit. Throws `PatchError` when it does not fit what is shown. */
  withEdit(edit: PendingEdit): WorkingCopy {
    const documents = new Map(this.documents);
    for (const { path, patch } of edit.parts)
      setDocument(documents, path, applyPatch(this.shownAt(path), patch).document);
    const remotes = new Map(edit.parts.map(({ path, patch }) => [path, patch]));
    return this.with({
      pending: [...this.pending, edit],
      meetings: this.meetingsAfter(remotes),
      documents,
    });
  }

  /** Takes up meetings that were left undecided, on the documents as they are shown. */
  withMeetings(meetings: readonly Meeting[]): WorkingCopy {
    return this.with({ meetings: [...this.meetings, ...meetings] });
  }

  /** Whether edits of the same document are missing here that were stored before one that is told. */
  lacksBefore({ path, revision }: StoredEdit): boolean {
    return revision > this.confirmedAt(path).revision + 1;
  }

  /** Takes in an edit the server tells of: a confirmation of our own, or one made elsewhere. What waits is `carried` along with names. */
  withStored(edit: StoredEdit, carry: Carry | null = null): WorkingCopy {
    return this.withStoredTogether([edit], carry);
  }

  /** Takes in edits of one document that follow one another and belong to one change, as one. */
  withStoredTogether(edits: readonly StoredEdit[], carry: Carry | null = null): WorkingCopy {
    const [first] = edits as [StoredEdit];
    const last = edits.at(-1)!;
    const { path } = first;
    const before = this.confirmedAt(path);
    const known = this.knownWith(edits);
    if (first.revision !== before.revision + 1) return known === null ? this : this.with(known);
    const patch = edits.flatMap(each => each.patch);
    const { document: body } = applyPatch(before.body, patch);
    const confirmed = new Map(this.confirmed).set(path, { path, revision: last.revision, body });
    const own = this.pending.find(each => sentPart(each, first) !== undefined);
    const isFirst = own === this.pending.find(({ parts }) => parts.some(part => part.path === path));
    const sent = own && sentPart(own, first);
    const isAsSent = (part: PendingPart): boolean =>
      isSameJson(part.patch, patch) || isSameJson(applyPatch(before.body, part.patch).document, body);
    if (sent && isFirst && isAsSent(sent)) {
      // As we made it: what is shown already has it.
      const pending = this.pending.flatMap(each => (each === own ? withoutPart(own!, sent) : [each]));
      return this.with({ ...known, confirmed, pending }).settled(path);
    }
    // Our own may also have been sent by another window that has taken it up, as it then was.
    const followed = this.followed(new Map([[path, patch]]), part => part === sent, own ? null : carry);
    return this.with({ ...known, confirmed }).following(followed, last);
  }

  /**
   * What waits on a document goes to another, in which that lies from now on: by what is confirmed of both, as if the one had been changed into
   * the other. `theirs` is the edit that takes the first away.
   */
  withMoved(theirs: StoredEdit, to: string, carry: Carry | null): WorkingCopy {
    const { path: from } = theirs;
    // Whoever moved it here did so with what waits on it.
    if (this.pending.some(each => sentPart(each, theirs))) return this;
    const isOf = (path: string) => (part: EditPart) => part.path === path;
    const waiting = [...this.pending, ...this.meetings.map(({ mine }) => mine)];
    // What waits there already has a meeting of its own.
    if (waiting.some(({ parts }) => parts.some(isOf(to)))) return this;
    const [before, after] = [this.confirmedAt(from).body, this.confirmedAt(to).body];
    if (before === null || after === null) return this;
    const change = differenceOf(before, after);
    const isConcerned = waiting.some(({ parts }) => parts.some(isOf(from)));
    const there = this.following(
      this.followed(new Map(isConcerned ? [[from, change]] : []), () => false, carry),
      theirs,
    );
    if (!isConcerned) return there;
    const moved = <Part extends EditPart>(part: Part): Part =>
      part.path === from ? { ...part, path: to } : part;
    const movedEdit = (edit: PendingEdit): PendingEdit => ({ ...edit, parts: edit.parts.map(moved) });
    const documents = new Map(there.documents);
    setDocument(documents, to, there.shownAt(from));
    setDocument(documents, from, this.confirmedAt(from).body);
    return there.with({
      documents,
      pending: there.pending.map(movedEdit),
      meetings: there.meetings.map(meeting => ({
        ...meeting,
        mine: movedEdit(meeting.mine),
        path: meeting.path === from ? to : meeting.path,
        parts: meeting.parts?.map(moved) ?? null,
      })),
    });
  }

  /** Drops an edit, and what builds on it. Gives the edits that went with it, too. */
  without(key: string): { copy: WorkingCopy; lost: readonly PendingEdit[] } {
    const edit = this.pending.find(each => each.key === key);
    if (!edit) return { copy: this, lost: [] };
    const followed = this.followed(new Map(), part => edit.parts.includes(part));
    const pending = followed.pending.filter(each => each.key !== key);
    const copy = this.following({ ...followed, pending, meetings: [] }, null);
    return { copy, lost: followed.meetings.map(({ mine }) => mine) };
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
    lastKey?: string;
    beyond?: ReadonlyMap<number, string>;
  }): WorkingCopy {
    return new WorkingCopy(
      parts.confirmed ?? this.confirmed,
      parts.pending ?? this.pending,
      parts.meetings ?? this.meetings,
      parts.documents ?? this.documents,
      parts.lastEdit ?? this.lastEdit,
      parts.lastKey ?? this.lastKey,
      parts.beyond ?? this.beyond,
    );
  }

  /** What is known with some edits more; `null` where they are known already. */
  private knownWith(
    edits: readonly StoredEdit[],
  ): { lastEdit: number; lastKey: string; beyond: ReadonlyMap<number, string> } | null {
    const fresh = edits.filter(({ id }) => id > this.lastEdit && !this.beyond.has(id));
    if (fresh.length === 0) return null;
    const beyond = new Map(this.beyond);
    for (const { id, editKey } of fresh) beyond.set(id, editKey);
    let { lastEdit, lastKey } = this;
    for (let next = beyond.get(lastEdit + 1); next !== undefined; next = beyond.get(lastEdit + 1)) {
      lastKey = next;
      beyond.delete(++lastEdit);
    }
    return { lastEdit, lastKey, beyond };
  }

  /** Nothing pending on a document any more: the confirmed object is the shown one, so that both keep one identity. */
  private settled(path: string): WorkingCopy {
    if (this.pending.some(({ parts }) => parts.some(part => part.path === path))) return this;
    const stored = this.confirmedAt(path);
    return this.with({
      confirmed: new Map(this.confirmed).set(path, { ...stored, body: this.shownAt(path) }),
    });
  }

  /**
   * The pending edits as they follow what was done elsewhere on what is confirmed, by document. An edit of which a part meets that, and
   * parts that are to be left out, are taken back for those behind: they follow the inverse as well, and meet it where they build on it.
   */
  private followed(
    theirs: ReadonlyMap<string, Patch>,
    isLeftOut: (part: PendingPart) => boolean,
    carry: Carry | null = null,
  ): Followed {
    const lines = new Map<string, Line>();
    const lineOf = (path: string): Line => {
      const known = lines.get(path);
      if (known) return known;
      const before = this.confirmedAt(path).body;
      const remote = theirs.get(path) ?? [];
      const line = { before, now: applyPatch(before, remote).document, remote };
      lines.set(path, line);
      return line;
    };
    for (const path of theirs.keys()) lineOf(path);
    const pending: PendingEdit[] = [];
    let meetings: Omit<Meeting, 'theirs'>[] = [];
    const takeBack = ({ path, patch }: EditPart): void => {
      const { before, now, remote } = lineOf(path);
      const { document, inverse } = applyPatch(before, patch);
      lines.set(path, { before: document, now, remote: [...inverse, ...remote] });
    };
    for (const edit of this.pending) {
      const kept = edit.parts.filter(part => !isLeftOut(part));
      const both = kept.map(({ path, patch }) => alongRemote(lineOf(path), patch));
      const met = both.findIndex(each => !each.ok);
      const found = both[met];
      if (found && !found.ok && edit.step) {
        // What it comes to the server says.
        pending.push({ ...edit, parts: [] });
        edit.parts.forEach(takeBack);
        continue;
      }
      if (found && !found.ok) {
        const parts = allOf(
          kept.map(part => insisted(part, lineOf(part.path).before, lineOf(part.path).remote)),
        );
        const { path } = kept[met]!;
        meetings.push({ mine: { ...edit, parts: kept }, path, place: found.meeting.path, parts });
        edit.parts.forEach(takeBack);
        continue;
      }
      edit.parts.filter(isLeftOut).forEach(takeBack);
      const parts = kept.map((part, index) => {
        const side = both[index] as { mine: Patch; theirs: Patch };
        const { before, now } = lineOf(part.path);
        const named = carry ? namedAnew(carry, part.path, applyPatch(now, side.mine).document) : [];
        const [mine, remote] = [
          [...side.mine, ...named],
          [...side.theirs, ...named],
        ];
        meetings = meetings.map(each => ({
          ...each,
          parts:
            each.parts &&
            allOf(each.parts.map(own => (own.path === part.path ? insisted(own, now, mine) : own))),
        }));
        lines.set(part.path, {
          before: applyPatch(before, part.patch).document,
          now: applyPatch(now, mine).document,
          remote,
        });
        return { ...part, patch: mine };
      });
      if (parts.length > 0 || edit.step) pending.push({ ...edit, parts });
    }
    const remotes = new Map([...lines].map(([path, { remote }]) => [path, remote]));
    return { pending, meetings, remotes };
  }

  /** Shows what has become of the pending edits; those that met something are asked about, unless `theirs` is nothing. */
  private following({ pending, meetings, remotes }: Followed, theirs: StoredEdit | null): WorkingCopy {
    const met = theirs ? meetings.map(each => ({ ...each, theirs })) : [];
    const documents = new Map(this.documents);
    for (const [path, remote] of remotes)
      if (remote.length > 0) setDocument(documents, path, applyPatch(this.shownAt(path), remote).document);
    return this.with({ pending, meetings: [...this.meetingsAfter(remotes), ...met], documents });
  }

  /** The undecided meetings on top of a change of what is shown, by document. */
  private meetingsAfter(changes: ReadonlyMap<string, Patch>): readonly Meeting[] {
    const after = (part: PendingPart): PendingPart | null => {
      const change = changes.get(part.path);
      return change ? insisted(part, this.shownAt(part.path), change) : part;
    };
    return this.meetings.map(each => ({ ...each, parts: each.parts && allOf(each.parts.map(after)) }));
  }
}

const withoutPart = (edit: PendingEdit, part: PendingPart): PendingEdit[] => {
  const parts = edit.parts.filter(each => each !== part);
  return parts.length > 0 || edit.step ? [{ ...edit, parts }] : [];
};

/** The part of an edit made here that a stored edit is; of a step, what it does to the document. */
function sentPart({ parts, step, changeId }: PendingEdit, stored: StoredEdit): PendingPart | undefined {
  if (!step) return parts.find(({ key }) => key === stored.editKey);
  return changeId === stored.changeId ? parts.find(({ path }) => path === stored.path) : undefined;
}

/** What is still to be done to a document so that it names everything as that is called by now. */
function namedAnew(carry: Carry, path: string, document: unknown): Patch {
  const named = carry(path, document);
  return named === document ? [] : differenceOf(document, named);
}

const alongRemote = ({ before, remote }: Line, patch: Patch) =>
  remote.length === 0 ? ({ ok: true, mine: patch, theirs: remote } as const) : rebase(before, patch, remote);

function insisted(part: PendingPart, document: unknown, change: Patch): PendingPart | null {
  if (change.length === 0) return part;
  const patch = rebaseInsisting(document, part.patch, change);
  return patch && { ...part, patch };
}

const allOf = (parts: readonly (PendingPart | null)[]): readonly PendingPart[] | null =>
  parts.every(part => part !== null) ? parts : null;

function setDocument(documents: Map<string, unknown>, path: string, body: unknown): void {
  if (body === null) documents.delete(path);
  else documents.set(path, body);
}
