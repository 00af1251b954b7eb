import { edge, isInFlow, margins, outside, scrolls, autos, type DrawnBox } from './drawn-box';
import type { FlexItem } from './flexible-lengths';
import { textWidth, unbreakableWidth } from './text-size';
import { guessed, guessedMost } from './unsupported';

/** How wide a box is by its content alone: where everything breaks that can be broken, or nothing does (CSS Sizing 3). */
export type Extreme = 'min-content' | 'max-content';
const EXTREMES: readonly Extreme[] = ['min-content', 'max-content'];

/** Widths of content are the same however often they are asked for, and are asked for from every level above. */
const known = new WeakMap<DrawnBox, Map<string, number>>();

function once(box: DrawnBox, key: string, width: () => number): number {
  let own = known.get(box);
  if (!own) known.set(box, (own = new Map()));
  let found = own.get(key);
  if (found === undefined) own.set(key, (found = width()));
  return found;
}

/** A least measure that is a share of what is not known yet is a share of nothing (CSS Sizing 3, section 5.2.1). */
export const shareOf = (property: string, whole: number | null): number | null =>
  whole ?? (property.startsWith('min-') ? 0 : null);

/** Border-box width that a box says itself, `null` where that is left to others; `whole`: what percentages are of. */
export function ownWidth(box: DrawnBox, whole: number | null, property = 'width'): number | null {
  const said = box.style.value(property);
  const extreme = EXTREMES.find(each => each === said);
  if (extreme === 'min-content' && property !== 'width' && givesWay(box)) return edge(box, 'inline', whole);
  return extreme ? ofContent(box, whole, extreme) : box.style.px(property, shareOf(property, whole));
}

/** A width as the least and the greatest of its box let it count. */
export function clampWidth(box: DrawnBox, px: number, whole: number | null): number {
  const most = ownWidth(box, whole, 'max-width') ?? Infinity;
  const least = Math.max(edge(box, 'inline', whole), ownWidth(box, whole, 'min-width') ?? 0);
  return guessed(box, Math.max(least, Math.min(most, px)));
}

/** As wide as its content in one line, where there is room for that, else as the room, and never less than what cannot be broken. */
export function fitting(box: DrawnBox, room: number, whole: number | null): number {
  const most = intrinsic(box, whole, 'max-content');
  return most <= room ? most : Math.max(room, intrinsic(box, whole, 'min-content'));
}

/** Elements that give way where a share of what is around them is asked of them (CSS Sizing 3, section 5.2.2). */
const COMPRESSIBLE: ReadonlySet<string> = new Set(['input', 'select', 'textarea', 'button']);

const givesWay = ({ element, style }: DrawnBox): boolean =>
  COMPRESSIBLE.has(element) && ['width', 'max-width'].some(name => style.value(name).includes('%'));

/** Width that a box has by what it says of it, else by its content. */
function intrinsic(box: DrawnBox, whole: number | null, extreme: Extreme): number {
  if (extreme === 'min-content' && whole === null && givesWay(box)) return clampWidth(box, 0, whole);
  return clampWidth(box, ownWidth(box, whole) ?? ofContent(box, whole, extreme), whole);
}

/** The same, whatever the box itself says of its width. */
const ofContent = (box: DrawnBox, whole: number | null, extreme: Extreme): number =>
  edge(box, 'inline', whole) +
  once(box, extreme, () => (box.part.kind.box ? contentWidth(box, extreme) : leafWidth(box, extreme)));

function leafWidth(box: DrawnBox, extreme: Extreme): number {
  const { kind } = box.part.kind;
  if (kind === 'icon') return drawingWidth(box, extreme);
  if (kind === 'control' && box.element !== 'button') return fieldWidth(box);
  if (box.text === '') return 0;
  return extreme === 'min-content' ? unbreakableWidth(box) : textWidth(box.text, box);
}

/** Characters that a field has room for where nothing is said of its width (HTML, 4.10.5.3.2). */
const FIELD_LETTERS = 20;

/** A select is as wide as the widest of its options, other fields as a number of characters that browsers reckon in ways of their own. */
function fieldWidth({ element, style }: DrawnBox): number {
  const { place, fontSize, page } = style;
  const width = FIELD_LETTERS * 0.5 * fontSize;
  return element === 'select' ? page.guess.unlaid(place, width) : width * page.guess.text(place, false);
}

/** px that a drawing without any measure is wide (CSS 2, section 10.3.2). */
const DRAWING_WIDTH = 300;

/** A drawing is as wide as its height asks for. */
function drawingWidth(box: DrawnBox, extreme: Extreme): number {
  const { drawing, style } = box;
  // It gives way wherever it is asked to.
  if (!drawing || extreme === 'min-content') return 0;
  const said = style.px('height');
  if (said === null) return DRAWING_WIDTH;
  const tall = Math.max(style.length('min-height'), Math.min(style.px('max-height') ?? Infinity, said));
  return Math.max(0, tall - edge(box, 'block', null)) * (drawing.ratio ?? 1);
}

/** Width of what is in a box; percentages of it are of what is not known yet, and count as `auto`. */
function contentWidth(box: DrawnBox, extreme: Extreme): number {
  const { style } = box;
  const children = box.children.filter(isInFlow);
  const isRow = style.value('flex-direction').startsWith('row');
  const around = (child: DrawnBox): number => outside(margins(child, 'inline', null, style.isRtl));
  // What breaks into lines, or stands one below the other, is as wide as the widest.
  const widest = (): number =>
    Math.max(0, ...children.map(child => around(child) + intrinsic(child, null, extreme)));
  if (!isRow) return widest();
  const wraps = style.value('flex-wrap') === 'wrap';
  if (wraps && extreme === 'min-content') return widest();
  const gaps = style.length('column-gap', 0) * Math.max(0, children.length - 1);
  const inOneLine = children.reduce(
    (sum, child) => sum + around(child) + contribution(child, style.isRtl, extreme),
    gaps,
  );
  return wraps ? Math.max(inOneLine, contentWidth(box, 'min-content')) : inOneLine;
}

/** What an item adds to the width that its row would have (CSS Flexible Box 1, section 9.9.1). */
function contribution(child: DrawnBox, isRtl: boolean, extreme: Extreme): number {
  const { base, least, most, grow, shrink } = rowItem(child, null, isRtl, extreme).item;
  const own = intrinsic(child, null, extreme);
  // Browsers go by its width then, and lay it out by its content all the same.
  if (child.style.value('flex-basis') === 'content') return own;
  const cannotMove = (own > base && grow === 0) || (own < base && shrink === 0);
  return cannotMove ? Math.max(least, Math.min(most, base)) : own;
}

/** An item of a row before it grows or shrinks. */
export interface RowItem {
  readonly child: DrawnBox;
  readonly item: FlexItem;
  /** How many of its margins take what is left over. */
  readonly autos: number;
}

/** `extreme`: how narrow or wide its row is being taken (CSS Flexible Box 1, section 9.2, step 3E). */
export function rowItem(
  child: DrawnBox,
  whole: number | null,
  isRtl: boolean,
  extreme: Extreme = 'max-content',
): RowItem {
  const { style } = child;
  const basis = style.value('flex-basis');
  const isOpen = basis === 'auto' || (whole === null && basis.includes('%'));
  const said = isOpen ? ownWidth(child, whole) : style.px('flex-basis', whole);
  const edges = edge(child, 'inline', whole);
  const beside = margins(child, 'inline', whole, isRtl);
  const most = ownWidth(child, whole, 'max-width') ?? Infinity;
  const least =
    style.value('min-width') === 'auto'
      ? leastOfContent(child, whole, most)
      : (ownWidth(child, whole, 'min-width') ?? 0);
  return {
    child,
    autos: autos(beside),
    item: {
      base: guessed(child, Math.max(said ?? ofContent(child, whole, extreme), edges)),
      edge: edges,
      least: guessed(child, Math.max(least, edges)),
      most: guessedMost(child, most),
      grow: style.number('flex-grow'),
      shrink: style.number('flex-shrink'),
      outside: outside(beside),
    },
  };
}

/** What holds something does not shrink below it of itself (CSS Flexible Box 1, section 4.5). */
function leastOfContent(child: DrawnBox, whole: number | null, most: number): number {
  if (scrolls(child)) return 0;
  const content = givesWay(child) ? 0 : Math.min(most, ofContent(child, whole, 'min-content'));
  return Math.min(content, ownWidth(child, whole) ?? Infinity);
}
