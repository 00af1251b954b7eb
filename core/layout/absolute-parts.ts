import { alignOf, alone } from './alignment';
import { autos, borders, edges, isInFlow, margins, turned, type DrawnBox, type Ends } from './drawn-box';
import { clampWidth, fitting, ownWidth } from './intrinsic-sizes';
import type { LaidBox, Around } from './laid-box';
import { definiteHeight, isTurned, lay, stretched, translation } from './layout';

/** A part with where its border box lies, from the inline start and the top of the root's. */
interface Frame {
  readonly laid: LaidBox;
  readonly x: number;
  readonly y: number;
}

/** What makes a part the frame of absolute ones within it, besides its position (CSS Transforms 2; Filter Effects 1). */
const FRAMING = ['translate', 'rotate', 'scale', 'filter'];

const isFrame = ({ style }: DrawnBox): boolean =>
  style.value('position') !== 'static' || FRAMING.some(name => style.value(name) !== 'none');

/**
 * Lays out what is placed absolutely and so moves nothing else: in the padding box of the nearest part around it that is positioned
 * (CSS Positioned Layout 3).
 */
export function layAbsolutes(laid: LaidBox, x = 0, y = 0, outer: readonly Frame[] = []): void {
  const own: Frame = { laid, x, y };
  const frames = isFrame(laid.box) || outer.length === 0 ? [own, ...outer] : outer;
  const held = laid.box.children
    .filter(child => !isInFlow(child))
    .map(child => layHeld(child, own, frames[0]!));
  laid.children.push(...held);
  for (const child of laid.children) layAbsolutes(child, x + child.x, y + child.y, frames);
}

function layHeld(box: DrawnBox, around: Frame, frame: Frame): LaidBox {
  const { style } = box;
  const outer = frame.laid.box;
  const isRtl = outer.style.isRtl;
  const [startLine, endLine] = borders(outer, 'inline');
  const [topLine, bottomLine] = borders(outer, 'block');
  const room: Around = {
    width: frame.laid.width - startLine - endLine,
    height: frame.laid.height - topLine - bottomLine,
  };
  const sides = turned(
    [style.px('inset-inline-start', room.width), style.px('inset-inline-end', room.width)],
    style.isRtl !== isRtl,
  );
  const ends: Ends<number | null> = [
    style.px('inset-block-start', room.height),
    style.px('inset-block-end', room.height),
  ];
  const beside = margins(box, 'inline', room.width, isRtl);
  const across = margins(box, 'block', room.width, false);
  const isOpen = sides.every(side => side === null);
  // Without insets there is room from where it stands to the end of the frame.
  const before = isOpen
    ? around.x - frame.x + edges(around.laid.box, 'inline', around.laid.around.width)[0] - startLine
    : 0;
  const wide = Math.max(0, between(room.width, sides, beside) - before);
  const fixed = ownWidth(box, room.width);
  const isStretched = sides.every(side => side !== null);
  const width = clampWidth(box, fixed ?? (isStretched ? wide : fitting(box, wide, room.width)), room.width);
  const align = style.value('align-self');
  const isTall = ends.every(end => end !== null) && ['auto', 'stretch'].includes(align);
  const tall = between(room.height!, ends, across);
  const isSaid = definiteHeight(box, width, room) !== null || style.value('height').endsWith('-content');
  const laid = lay(box, width, isSaid || !isTall ? null : stretched(box, tall, width, room), room);
  const itsOwn = margins(box, 'inline', room.width, around.laid.box.style.isRtl);
  const byItself = asOnlyItem(laid, around, [itsOwn, across]);
  const inFrame = placeBetween(sides, beside, room.width, laid.width, 'auto');
  laid.x = inFrame === null ? byItself.x : fromStart(frame, around, startLine + inFrame, laid.width);
  const inColumn = placeBetween(ends, across, room.height!, laid.height, align);
  laid.y = inColumn === null ? byItself.y : frame.y + topLine + inColumn - around.y;
  const [right, down] = translation(laid);
  laid.x += style.page.direction === 'rtl' ? -right : right;
  laid.y += down;
  // Outside of every positioned part the page itself is the frame; and how much room there is around what is not at the start is not reckoned.
  const atStart = before + frame.x - around.x + startLine;
  laid.isUnsure ||= !isFrame(outer) || (isOpen && fixed === null && Math.abs(laid.x - atStart) > 0.01);
  return laid;
}

/** Room between two insets and the margins within them. */
const between = (
  room: number,
  [start, end]: Ends<number | null>,
  [before, after]: Ends<number | null>,
): number => Math.max(0, room - (start ?? 0) - (end ?? 0) - (before ?? 0) - (after ?? 0));

/** Place of a border box between its insets; `null` where it has none. */
function placeBetween(
  [start, end]: Ends<number | null>,
  beside: Ends<number | null>,
  room: number,
  size: number,
  align: string,
): number | null {
  const [before, after] = beside.map(each => each ?? 0) as [number, number];
  if (start === null && end === null) return null;
  if (end === null) return start! + before;
  if (start === null) return room - end - after - size;
  // Insets that leave nothing between them give way at the end.
  const within = Math.max(0, room - start - end);
  const free = within - size - before - after;
  if (align === 'auto' || autos(beside) > 0) return start + before + autoShare(beside, free);
  // What is aligned and larger than that is moved to where it lies within the frame (CSS Box Alignment 3, section 4.4).
  const furthest = Math.max(room, start + within) - size - before - after;
  return before + Math.max(Math.min(0, start), Math.min(furthest, start + alone(align, free)));
}

/**
 * What an automatic margin before an absolute part takes of the room between its insets: all, or half where that after it is
 * automatic too (CSS Positioned Layout 3, section 4.3).
 */
function autoShare([before, after]: Ends<number | null>, free: number): number {
  if (before !== null) return 0;
  return Math.max(0, free) / (after === null ? 2 : 1);
}

/** A place from the inline start of the frame, as from the inline start of the page in the part around. */
function fromStart(frame: Frame, around: Frame, x: number, width: number): number {
  const fromPage = isTurned(frame.laid.box) ? frame.laid.width - x - width : x;
  return frame.x + fromPage - around.x;
}

/** Without insets it lies where it would as the only item of what is around it (CSS Flexible Box 1, section 4.1). */
function asOnlyItem(
  { box, width, height }: LaidBox,
  { laid }: Frame,
  ends: readonly Ends<number | null>[],
): { x: number; y: number } {
  const { style } = laid.box;
  const [beside, across] = ends.map(([start, end]) => [start ?? 0, end ?? 0] as const) as [
    Ends<number>,
    Ends<number>,
  ];
  const [left, right] = edges(laid.box, 'inline', laid.around.width);
  const [top, bottom] = edges(laid.box, 'block', laid.around.width);
  const [free, freeDown] = [
    laid.width - left - right - width - beside[0] - beside[1],
    laid.height - top - bottom - height - across[0] - across[1],
  ];
  const align = alignOf(box, style.value('align-items'));
  const justify = style.value('justify-content');
  const [kind, order] = style.value('flex-direction').split('-');
  const main = order === 'reverse' ? (REVERSED[justify] ?? justify) : justify;
  const [along, down] = kind === 'row' ? [main, align] : [align, main];
  const x = left + beside[0] + alone(along, free);
  return {
    x: isTurned(laid.box) ? laid.width - x - width : x,
    y: top + across[0] + alone(down, freeDown),
  };
}

/** Where a reversed line begins. */
const REVERSED: Readonly<Record<string, string>> = {
  'flex-start': 'flex-end',
  'flex-end': 'flex-start',
  'space-between': 'flex-end',
};
