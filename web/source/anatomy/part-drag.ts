import type { DragMoveEvent } from '@dnd-kit/core';
import type { PartPlace } from '@periwinkle/core/edits/renamed-names';
import type { PartLine } from './part-lines';

/** Where a part that is dragged would come to stand: by the line it is over. */
export interface AimedPlace {
  readonly line: string;
  readonly side: 'before' | 'after' | 'into';
  readonly place: PartPlace;
}

/** The upper share of a box's line that means before it; the rest means into it. */
const BEFORE_BOX = 0.35;

/** The place that the pointer means; none over the part itself, what is in it, or nothing. */
export function placeOver(
  {
    active,
    over,
    activatorEvent,
    delta,
  }: Pick<DragMoveEvent, 'active' | 'over' | 'activatorEvent' | 'delta'>,
  lines: readonly PartLine[],
): AimedPlace | null {
  const target = lines.find(({ name }) => name === over?.id);
  if (!over || !target || isWithin(target, String(active.id), lines)) return null;
  const y = (activatorEvent as PointerEvent).clientY + delta.y;
  const share = (y - over.rect.top) / over.rect.height;
  const { name, outer } = target;
  const isBox = target.part.kind.box && target.uses === null;
  if (outer === null) return { line: name, side: 'into', place: { into: name } };
  if (share < (isBox ? BEFORE_BOX : 0.5)) return { line: name, side: 'before', place: { before: name } };
  return isBox
    ? { line: name, side: 'into', place: { into: name } }
    : { line: name, side: 'after', place: { after: name } };
}

function isWithin({ name, outer }: PartLine, around: string, lines: readonly PartLine[]): boolean {
  if (name === around) return true;
  const next = lines.find(each => each.name === outer);
  return next !== undefined && isWithin(next, around, lines);
}
