import type { PartDocument } from '../../documents/part-document';
import { CONTROL_ELEMENTS } from '../../documents/part-kinds';

/** The option that a control makes which may be several elements. */
export const ELEMENT_AXIS = 'element';

/** All that the controls of a tree may be where one of them may be several, those of the first first. */
export function elementsIn(part: PartDocument): readonly string[] {
  const known: ReadonlySet<string> = new Set(CONTROL_ELEMENTS);
  const own = part.kind === 'control' ? (part.elements ?? []).filter(each => known.has(each)) : [];
  const all = [...(own.length > 1 ? own : []), ...(part.children ?? []).flatMap(elementsIn)];
  return [...new Set(all)];
}
