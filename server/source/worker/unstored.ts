import type { StoredDocument } from './parsed-documents';
import type { Patched } from './patching';

/** The documents of a system with edits on top that are not stored yet. */
export class Unstored {
  constructor(
    readonly documents: ReadonlyMap<string, StoredDocument>,
    /** What those edits did, in their order. */
    readonly done: readonly Patched[] = [],
  ) {}

  with(done: readonly Patched[]): Unstored {
    const documents = new Map(this.documents);
    for (const { document } of done) documents.set(document.path, document);
    return new Unstored(documents, [...this.done, ...done]);
  }
}
