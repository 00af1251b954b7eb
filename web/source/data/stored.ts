import type { Patch } from '@periwinkle/core/patch/operations';

/** What the server stores and tells; see its OpenAPI document. */
export interface StoredDocument {
  readonly path: string;
  readonly revision: number;
  readonly body: unknown;
}

export interface StoredEdit {
  /** Number among the edits of its system; the next one has the next number. */
  readonly id: number;
  readonly path: string;
  readonly revision: number;
  readonly patch: Patch;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly changeId: string;
  /** Of a step through the history: the change that it takes back or brings back. */
  readonly target: string | null;
  readonly editKey: string;
  readonly label: string;
  readonly author: string;
  readonly at: string;
}
