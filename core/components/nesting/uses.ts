import type { PartDocument } from '../../documents/part-document';

/** A part that embeds another component, as written. */
export interface Use {
  readonly document: PartDocument;
  /** Id of the component; empty where none is named. */
  readonly component: string;
  /** JSON Pointer of the part in the document. */
  readonly pointer: string;
}

/** The parts of an anatomy that embed other components, in document order. */
export function usesIn(part: PartDocument, pointer = '/anatomy'): Use[] {
  const children = (part.children ?? []).flatMap((child, index) =>
    usesIn(child, `${pointer}/children/${index}`),
  );
  return part.kind === 'use'
    ? [{ document: part, component: part.component ?? '', pointer }, ...children]
    : children;
}
