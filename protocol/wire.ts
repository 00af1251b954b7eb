import type { Patch } from '@periwinkle/core/patch/operations';

/** What the server and those who speak with it send each other as JSON. Types alone: its OpenAPI document says the same to everybody else. */

export interface SystemSummary {
  readonly id: string;
  readonly title: string;
  readonly createdAt: string;
  readonly changedAt: string;
}

export interface StoredDocument {
  readonly path: string;
  readonly revision: number;
  readonly body: unknown;
}

/** A system with all that it holds. The server has the bodies of `Document`s as text, and sends that as it is. */
export interface WholeSystem<Document = StoredDocument> extends SystemSummary {
  readonly documents: readonly Document[];
  readonly history: HistoryEnds;
  /** Number of the newest edit that the documents contain; events go on from here. */
  readonly lastEdit: number;
  /** Key of that edit, by which one knows whether it is still the same; empty where there is none. */
  readonly lastKey: string;
}

/** An edit of one document. The server has its patch as text, and sends that as it is. */
export interface StoredEdit<PatchBody = Patch, Kind = 'edit' | 'undo' | 'redo'> {
  /** Number among the edits of its system; the next one has the next number. */
  readonly id: number;
  readonly path: string;
  readonly revision: number;
  readonly patch: PatchBody;
  readonly kind: Kind;
  readonly changeId: string;
  /** Of a step through the history: the change that it takes back or brings back. */
  readonly target: string | null;
  readonly editKey: string;
  readonly label: string;
  readonly author: string;
  readonly at: string;
}

/** A change as it is named to people. */
export interface NamedChange {
  readonly change: string;
  readonly label: string;
}

/** What a person would take back or bring back next. */
export interface HistoryEnds {
  readonly undo: NamedChange | null;
  readonly redo: NamedChange | null;
}

/** A change in the list of what was done. */
export interface ListedChange extends NamedChange {
  /** Number of its newest edit, by which the list is ordered. */
  readonly made: number;
  readonly author: string;
  readonly at: string;
  readonly state: 'done' | 'undone';
}
