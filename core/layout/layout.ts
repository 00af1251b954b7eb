import type { Around } from './laid-box';
import type { LaidBox } from './laid-box';
import { alignOf, crossPlace, spread } from './alignment';
import { autos, edge, edges, isInFlow, margins, outside, scrolls, turned, type DrawnBox } from './drawn-box';
import { flexibleLengths, hypothetical, type FlexItem } from './flexible-lengths';
import { clampWidth, fitting, ownWidth, rowItem, shareOf, type RowItem } from './intrinsic-sizes';
import { linesIn } from './text-size';
import { guessed, guessedMost, isUnsupported } from './unsupported';

interface Line {
  readonly items: readonly RowItem[];
  readonly laid: readonly LaidBox[];
  /** Of those aligned by it: from the top of the line to their tops. */
  readonly tops: readonly (number | null)[];
  readonly needed: number;
  /** Room along the line that nothing has taken. */
  readonly free: number;
}

/** What lies in a box, from its content box. */
interface Content {
  readonly children: LaidBox[];
  readonly height: number;
  /** Of the first item in its order. */
  readonly baseline: number | null;
  readonly isUnsure?: boolean;
}

/** A height that is forced on a box; what it holds may count on a definite one. */
export interface Forced {
  readonly px: number;
  readonly isDefinite: boolean;
}

/** A border-box height as the part lets it count; `edge` is what its borders and paddings take. */
type Clamp = (px: number, edge: number) => number;

/** Lays out a box at a border-box width. */
export function lay(box: DrawnBox, width: number, forced: Forced | null, around: Around): LaidBox {
  const own = forced?.px ?? definiteHeight(box, width, around);
  const isDefinite = forced ? forced.isDefinite : own !== null;
  return layWith(box, width, own, isDefinite, around, (px, ends) =>
    clampHeight(box, px, ends, width, around),
  );
}

/** Height that a box needs for what is in it, whatever it says of its height itself. */
const contentHeight = (box: DrawnBox, width: number, around: Around): number =>
  layWith(box, width, null, false, around, px => px).height;

function layWith(
  box: DrawnBox,
  width: number,
  height: number | null,
  isDefinite: boolean,
  around: Around,
  clamp: Clamp,
): LaidBox {
  return box.part.kind.box
    ? layFlex(box, width, height, isDefinite, around, clamp)
    : layLeaf(box, width, height, around, clamp);
}

/** Elements whose text stands in the middle of their height, where they are controls. */
const CENTRED: ReadonlySet<string> = new Set(['input', 'button', 'select']);

/** How far below the top of its content box a leaf's text begins, with so much room left over: an input keeps to the middle where there is too little, others to their start. */
function lead({ part, element }: DrawnBox, room: number): number {
  if (part.kind.kind !== 'control' || !CENTRED.has(element)) return 0;
  return (element === 'input' ? room : Math.max(0, room)) / 2;
}

/** A base line within what a box shows of itself. */
const kept = (box: DrawnBox, baseline: number | null, height: number): number | null =>
  baseline !== null && scrolls(box) ? Math.max(0, Math.min(height, baseline)) : baseline;

function layLeaf(box: DrawnBox, width: number, height: number | null, around: Around, clamp: Clamp): LaidBox {
  const { style } = box;
  const [top, bottom] = edges(box, 'block', around.width);
  const line = lineOf(box);
  const inner = Math.max(0, width - edge(box, 'inline', around.width));
  const lines = linesOf(box, inner);
  const content = box.drawing ? inner / (box.drawing.ratio ?? 1) : lines * line;
  const tall = clamp(height ?? content + top + bottom, top + bottom);
  // A drawing stands on the line; it fills a height that is said, and else is as high as its width asks for, whatever limits its part has.
  const drawn = height === null ? content : tall - top - bottom;
  const { ascent, descent } = style.textHeight;
  const rise = Math.floor((line - ascent - descent) / 2) + ascent;
  const above = top + lead(box, tall - top - bottom - content);
  const ofText = lines === 0 ? null : above + rise;
  return {
    box,
    x: 0,
    y: 0,
    width,
    height: tall,
    isUnsure: isUnsupported(box),
    baseline: kept(box, box.drawing ? top + drawn : ofText, tall),
    around,
    children: [],
  };
}

/** Height of a line of its text. An input has none lower than its font's size: it goes by its font then (HTML, 15.5.4; to the pixel as Chromium does). */
function lineOf({ style, element }: DrawnBox): number {
  const line = style.lineHeight;
  return element === 'input' && Math.floor(line) <= style.fontSize ? style.normalLineHeight : line;
}

function linesOf(box: DrawnBox, width: number): number {
  const { kind } = box.part.kind;
  if (kind === 'icon') return 0;
  if (kind !== 'control' || box.element === 'button') return linesIn(box, width);
  return box.element === 'textarea' ? 2 : 1;
}

function layFlex(
  box: DrawnBox,
  width: number,
  height: number | null,
  isDefinite: boolean,
  around: Around,
  clamp: Clamp,
): LaidBox {
  const { style } = box;
  const [left, right] = edges(box, 'inline', around.width);
  const [top, bottom] = edges(box, 'block', around.width);
  const innerHeight = height === null ? null : Math.max(0, height - top - bottom);
  const inner: Around = { width: Math.max(0, width - left - right), height: isDefinite ? innerHeight : null };
  const clampInner = (px: number): number => clamp(px + top + bottom, top + bottom) - top - bottom;
  const flow = inOrder(box.children).filter(isInFlow);
  const layContent = style.value('flex-direction').startsWith('row') ? layRow : layColumn;
  const { children, ...laid } = layContent(box, flow, inner, innerHeight, clampInner);
  for (const child of children) {
    child.x += left;
    child.y += top;
    shift(child, inner, style.isRtl);
    // All places are told from the inline start of the page.
    if (isTurned(box)) child.x = width - child.x - child.width;
  }
  const tall = height ?? clampInner(laid.height) + top + bottom;
  return {
    box,
    x: 0,
    y: 0,
    width,
    height: tall,
    isUnsure: isUnsupported(box) || laid.isUnsure === true,
    baseline: kept(box, laid.baseline === null ? null : top + laid.baseline, tall),
    around,
    children,
  };
}

/** Whether a box is written in the other direction than the page. */
export const isTurned = ({ style }: DrawnBox): boolean => style.isRtl !== (style.page.direction === 'rtl');

const inOrder = (children: readonly DrawnBox[]): DrawnBox[] =>
  // Sorting keeps those of one order as they are written.
  [...children].sort((a, b) => a.style.number('order') - b.style.number('order'));

const isReversed = ({ style }: DrawnBox): boolean => style.value('flex-direction').endsWith('-reverse');

function layRow(
  box: DrawnBox,
  flow: readonly DrawnBox[],
  inner: Around,
  innerHeight: number | null,
  clampInner: (px: number) => number,
): Content {
  const { style } = box;
  const gap = style.length('column-gap', inner.width);
  const rowGap = style.length('row-gap', inner.height ?? 0);
  const items = flow.map(child => rowItem(child, inner.width, style.isRtl));
  const wraps = style.value('flex-wrap') === 'wrap';
  const lines = (wraps ? wrapped(items, gap, inner.width) : [items]).map(line =>
    measuredLine(box, line, gap, inner),
  );
  const needed = lines.reduce((sum, line) => sum + line.needed, rowGap * (lines.length - 1));
  const height = innerHeight ?? clampInner(needed);
  // Lines share what is left over between them, unless told otherwise; a line that cannot break takes all.
  const content = style.value('align-content');
  const isShared = content === 'normal' || content === 'stretch';
  const more = isShared ? Math.max(0, height - needed) / lines.length : 0;
  const { at, between } = spread(isShared || !wraps ? 'flex-start' : content, height - needed, lines.length);
  let y = at;
  const children = lines.flatMap(line => {
    const cross = wraps ? line.needed + more : height;
    const placed = placedLine(box, line, gap, inner, y, cross);
    y += cross + rowGap + between;
    return placed;
  });
  const first = lines[0]!;
  const aligned = first.tops.findIndex(top => top !== null);
  const bearer = aligned >= 0 ? children[aligned]! : foremost(box, children.slice(0, first.items.length));
  const baseline = baselineIn(bearer);
  if (isReversed(box)) for (const child of children) child.x = inner.width - child.x - child.width;
  return { children, height: needed, baseline };
}

/** What one sees first of a line: the last where its order is reversed. */
const foremost = (box: DrawnBox, children: readonly LaidBox[]): LaidBox | undefined =>
  children.at(isReversed(box) ? -1 : 0);

/** What has no text stands on the line with its bottom. */
const baselineIn = (bearer: LaidBox | undefined): number | null =>
  bearer ? bearer.y + (bearer.baseline ?? bearer.height) : null;

/** Margins along the line in the order in which its items are laid. */
const alongLine = (box: DrawnBox, child: DrawnBox, inner: Around): ReturnType<typeof margins> =>
  turned(margins(child, 'inline', inner.width, box.style.isRtl), isReversed(box));

/** The items of one line at their widths, and the height that they need. */
function measuredLine(box: DrawnBox, items: readonly RowItem[], gap: number, inner: Around): Line {
  const gaps = gap * Math.max(0, items.length - 1);
  const sizes = flexibleLengths(
    items.map(({ item }) => item),
    gaps,
    inner.width,
  );
  const laid = items.map(({ child }, index) => lay(child, sizes[index]!, null, inner));
  const across = items.map(({ child }) => margins(child, 'block', inner.width, false));
  const isAligned = items.map(
    ({ child }, index) =>
      alignOf(child, box.style.value('align-items')) === 'baseline' && autos(across[index]!) === 0,
  );
  // From the outer top of an item to its base line.
  const rises = laid.map(({ baseline, height }, index) => (across[index]![0] ?? 0) + (baseline ?? height));
  const highest = Math.max(-Infinity, ...rises.filter((_, index) => isAligned[index]));
  const heights = laid.map(({ height }, index) => {
    const own = height + outside(across[index]!);
    return isAligned[index] ? highest - rises[index]! + own : own;
  });
  const taken = items.reduce((sum, { item }, index) => sum + sizes[index]! + item.outside, gaps);
  return {
    items,
    laid,
    tops: laid.map((_, index) =>
      isAligned[index] ? highest - rises[index]! + (across[index]![0] ?? 0) : null,
    ),
    needed: Math.max(0, ...heights),
    free: inner.width - taken,
  };
}

function placedLine(
  box: DrawnBox,
  { items, laid, tops, free }: Line,
  gap: number,
  inner: Around,
  y: number,
  cross: number,
): LaidBox[] {
  const { style } = box;
  const sharing = items.reduce((sum, { autos: own }) => sum + own, 0);
  const spare = sharing > 0 && free > 0 ? free / sharing : 0;
  const { at: start, between } = spread(style.value('justify-content'), spare > 0 ? 0 : free, items.length);
  let at = start;
  return items.map(({ child }, index) => {
    const [before, after] = alongLine(box, child, inner);
    const across = margins(child, 'block', inner.width, false);
    const align = alignOf(child, style.value('align-items'));
    const { width } = laid[index]!;
    const stretches = align === 'stretch' && autos(across) === 0 && child.style.value('height') === 'auto';
    const forced = stretches ? stretched(child, cross - outside(across), width, inner) : null;
    const each = forced ? lay(child, width, forced, inner) : laid[index]!;
    at += before ?? spare;
    each.x = at;
    each.y = y + (tops[index] ?? crossPlace(align, cross - each.height, across));
    at += each.width + (after ?? spare) + gap + between;
    return each;
  });
}

/** What is stretched has a definite height. */
export const stretched = (child: DrawnBox, tall: number, width: number, inner: Around): Forced => ({
  px: clampHeight(child, tall, edge(child, 'block', inner.width), width, inner),
  isDefinite: true,
});

function layColumn(
  box: DrawnBox,
  flow: readonly DrawnBox[],
  inner: Around,
  innerHeight: number | null,
  clampInner: (px: number) => number,
): Content {
  const { style } = box;
  const gap = style.length('row-gap', inner.height ?? 0);
  const gaps = gap * Math.max(0, flow.length - 1);
  const wraps = style.value('flex-wrap') === 'wrap';
  const placed = flow.map(child => {
    const align = alignOf(child, style.value('align-items'));
    const beside = margins(child, 'inline', inner.width, style.isRtl);
    const room = inner.width - outside(beside);
    const stretches = align === 'stretch' && autos(beside) === 0;
    // Where columns could be broken, how wide one is shows only once its items are measured.
    const width = crossWidth(child, room, inner, stretches && !wraps);
    const natural = lay(child, width, null, inner);
    const item = columnItem(child, natural.height, width, inner);
    return { child, align, beside, stretches, width, natural, item };
  });
  const cross = wraps
    ? Math.max(inner.width, ...placed.map(({ width, beside }) => width + outside(beside)))
    : inner.width;
  const items = placed.map(({ item }) => item);
  const sum = items.reduce((total, item) => total + hypothetical(item) + item.outside, gaps);
  const height = innerHeight ?? clampInner(sum);
  const sizes = flexibleLengths(items, gaps, height);
  const free = height - sizes.reduce((total, size, index) => total + size + items[index]!.outside, gaps);
  const along = flow.map(child => turned(margins(child, 'block', inner.width, false), isReversed(box)));
  const sharing = along.reduce((total, ends) => total + autos(ends), 0);
  const spare = sharing > 0 && free > 0 ? free / sharing : 0;
  const spreading = spread(style.value('justify-content'), spare > 0 ? 0 : free, flow.length);
  let { at } = spreading;
  const children = placed.map(({ child, align, beside, stretches, width: own, natural }, index) => {
    const width = stretches && wraps ? crossWidth(child, cross - outside(beside), inner, true) : own;
    const [before, after] = along[index]!;
    const px = sizes[index]!;
    const isDefinite = inner.height !== null || isBased(child, inner);
    const isNatural = !isDefinite && width === natural.width && Math.abs(px - natural.height) < 1e-6;
    const each = isNatural ? natural : lay(child, width, { px, isDefinite }, inner);
    at += before ?? spare;
    each.y = at;
    each.x = crossPlace(align, cross - each.width, beside);
    at += each.height + (after ?? spare) + gap + spreading.between;
    return each;
  });
  if (isReversed(box)) for (const child of children) child.y = height - child.y - child.height;
  const baseline = baselineIn(foremost(box, children));
  return { children, height: sum, baseline, isUnsure: hasSideways(box, flow, inner) };
}

/** Whether an item of a column says itself from what height it grows or shrinks, which makes its height a definite one. */
const isBased = ({ style }: DrawnBox, inner: Around): boolean =>
  style.px(style.value('flex-basis') === 'auto' ? 'height' : 'flex-basis', inner.height) !== null;

/** Whether something in a column is aligned by base lines, which no text has there, and so does not lie at its start. */
const hasSideways = ({ style }: DrawnBox, flow: readonly DrawnBox[], inner: Around): boolean => {
  const aligned = flow.filter(child => alignOf(child, style.value('align-items')) === 'baseline');
  const beside = (child: DrawnBox): number =>
    Math.abs(margins(child, 'inline', inner.width, style.isRtl)[0] ?? 0);
  return aligned.length > 0 && (style.isRtl || aligned.some(child => beside(child) > 0));
};

/** Width of an item across a column. */
function crossWidth(child: DrawnBox, room: number, inner: Around, stretches: boolean): number {
  const own = ownWidth(child, inner.width) ?? (stretches ? room : fitting(child, room, inner.width));
  return clampWidth(child, own, inner.width);
}

function columnItem(child: DrawnBox, natural: number, width: number, inner: Around): FlexItem {
  const { style } = child;
  const edges = edge(child, 'block', inner.width);
  const said = (name: string): number | null => ownHeight(child, name, width, inner);
  const [height, least, most] = [said('height'), said('min-height'), said('max-height')];
  const isFree = height === null && least === null && most === null;
  const content = isFree ? natural : contentHeight(child, width, inner);
  const basis = style.value('flex-basis');
  const asked = basis === 'auto' ? height : style.px('flex-basis', inner.height);
  const ofContent = scrolls(child) ? 0 : Math.min(content, height ?? Infinity, most ?? Infinity);
  return {
    base: guessed(child, Math.max(asked ?? content, edges)),
    edge: edges,
    least: guessed(child, Math.max(least ?? ofContent, edges)),
    most: guessedMost(child, most ?? Infinity),
    grow: style.number('flex-grow'),
    shrink: style.number('flex-shrink'),
    outside: outside(margins(child, 'block', inner.width, false)),
  };
}

/** What moves a part without moving others. */
function shift(laid: LaidBox, inner: Around, isRtl: boolean): void {
  const { box } = laid;
  const { style } = box;
  if (style.value('position') === 'relative') {
    const sides = [
      style.px('inset-inline-start', inner.width),
      style.px('inset-inline-end', inner.width),
    ] as const;
    const [start, end] = turned(sides, style.isRtl !== isRtl);
    const [top, bottom] = [
      style.px('inset-block-start', inner.height),
      style.px('inset-block-end', inner.height),
    ];
    laid.x += start ?? (end === null ? 0 : -end);
    laid.y += top ?? (bottom === null ? 0 : -bottom);
  }
  const [right, down] = translation(laid);
  laid.x += isRtl ? -right : right;
  laid.y += down;
}

/** How far a part is moved to the right and down by `translate`, in px. */
export function translation({ box: { style }, width, height }: LaidBox): readonly [number, number] {
  const text = style.value('translate');
  if (text === 'none') return [0, 0];
  const [right = '0px', down = '0px'] = text.split(/ (?![^(]*\))/);
  return [style.pxOf(right, width) ?? 0, style.pxOf(down, height) ?? 0];
}

/** A height, least or greatest height that a box says of itself, as of its border box; `null` where it does not. */
function ownHeight(box: DrawnBox, property: string, width: number, around: Around): number | null {
  const said = box.style.value(property);
  if (said === 'min-content' || said === 'max-content') return contentHeight(box, width, around);
  return box.style.px(property, shareOf(property, around.height));
}

/** Border-box height that a part says itself; `null` where its content decides. */
export function definiteHeight(box: DrawnBox, width: number, around: Around): number | null {
  const said = box.style.px('height', around.height);
  return said === null ? null : clampHeight(box, said, edge(box, 'block', around.width), width, around);
}

function clampHeight(box: DrawnBox, px: number, ends: number, width: number, around: Around): number {
  const most = ownHeight(box, 'max-height', width, around) ?? Infinity;
  const least = ownHeight(box, 'min-height', width, around) ?? 0;
  return guessed(box, Math.max(ends, least, Math.min(most, px)));
}

/** px by which sums of the same amounts may differ only because they were added up in another order. */
const NEARLY = 1e-6;

function wrapped(items: readonly RowItem[], gap: number, room: number): RowItem[][] {
  const lines: RowItem[][] = [];
  let used = 0;
  for (const each of items) {
    const own = hypothetical(each.item) + each.item.outside;
    const line = lines.at(-1);
    if (line && used + gap + own <= room + NEARLY) {
      line.push(each);
      used += gap + own;
    } else {
      lines.push([each]);
      used = own;
    }
  }
  return lines.length === 0 ? [[]] : lines;
}
