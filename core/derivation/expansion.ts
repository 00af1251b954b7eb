import type { Documents } from '../documents/document-kinds';

/** Where something stands: a document by its path in the system's folder, and a JSON Pointer into it. */
export interface SourcePlace {
  readonly file: string;
  readonly pointer: string;
}

/**
 * Documents as they are compiled. They come from those that people wrote in steps, each from documents to documents; whatever a
 * step takes out, moves or puts together, it can say of each thing where it was written.
 */
export interface Expansion {
  readonly documents: Documents;
  /** Leads a place in `documents` back to where it was written. */
  readonly origin: (place: SourcePlace) => SourcePlace;
}

/** Documents that are compiled just as they were written. */
export const asWritten = (documents: Documents): Expansion => ({ documents, origin: place => place });
