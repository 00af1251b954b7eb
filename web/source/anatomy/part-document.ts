import type { Component } from '@periwinkle/core/components/component';
import type { PartDocument } from '@periwinkle/core/documents/part-document';

/** A part as it is written, whatever it comes from. */
export function partDocument({ document }: Component, name: string): PartDocument | undefined {
  const find = (part: PartDocument): PartDocument | undefined =>
    part.part === name ? part : (part.children ?? []).map(find).find(Boolean);
  return find(document.anatomy);
}
