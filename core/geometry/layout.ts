import { edges, margins, type DrawnBox } from './drawn-box';
import { flexibleLengths, hypothetical, type FlexItem } from './flexible-lengths';
import { linesIn, textWidth, unbreakableWidth } from './text-size';

/** A part laid out: border box in px from the border box of the part around it. */
export interface LaidBox {
  readonly box: DrawnBox;
  x: number;
  y: number;
  readonly width: number;
  readonly height: number;
  /** Whether its place or its width follows from the width of a text. */
  estimated: boolean;
  /** From its top to the base line of its first line of text; `null` where there is none. */
  readonly baseline: number | null;
  readonly children: readonly LaidBox[];
}

/** An amount and whether the width of a text decided it. */
interface Width {
  readonly px: number;
  readonly estimated: boolean;
}

/** An item of a row before it grows or shrinks. */
interface RowItem {
  readonly child: DrawnBox;
  readonly base: Width;
  readonly item: FlexItem;
  /** How many of its margins take what is left over. */
  readonly autos: number;
}

interface Line {
  readonly items: readonly RowItem[];
  readonly widths: readonly Width[];
  readonly laid: readonly LaidBox[];
  /** Of those aligned by it. */
  readonly baselines: readonly (number | null)[];
  readonly highest: number;
  readonly needed: number;
  /** Room along the line that nothing has taken. */
  readonly free: number;
  readonly someEstimated: boolean;
}

/** A border-box height as the part lets it count; `edge` is what its borders and paddings take. */
type Clamp = (px: number, edge: number) => number;

const sure = (px: number): Width => ({ px, estimated: false });

/**
 * What an automatic margin before an absolute part takes of the room between its insets: all, or half where that after it is
 * automatic too (CSS Positioned Layout 3, section 4.3).
 */
function autoShare(
  [before, after]: readonly [number | null, number | null],
  room: number,
  start: number,
  end: number | null,
  size: number,
): number {
  if (end === null || before !== null) return 0;
  const free = Math.max(0, room - start - end - size - (after ?? 0));
  return after === null ? free / 2 : free;
}

const widestOf = (widths: readonly Width[]): Width => ({
  px: Math.max(0, ...widths.map(({ px }) => px)),
  estimated: widths.some(each => each.estimated),
});

/** How wide a box is by its content alone: where everything breaks that can be broken, or nothing does (CSS Sizing 3). */
type Extreme = 'min-content' | 'max-content';
const EXTREMES: readonly Extreme[] = ['min-content', 'max-content'];

/** Lays a tree of parts out at an outer width. */
export class Layout {
  constructor(private readonly isRtl: boolean) {}

  root(box: DrawnBox, width: number): LaidBox {
    return this.lay(box, sure(width), null, width);
  }

  /** Lays out a box at a border-box width; `height` is forced on it, or `null`. `whole`: the width that percentages are of. */
  private lay(box: DrawnBox, width: Width, height: number | null, whole: number): LaidBox {
    const own = height ?? this.definiteHeight(box, whole);
    return this.layWith(box, width, own, whole, (px, edge) => this.clampHeight(box, px, edge));
  }

  /** Height that a box needs for what is in it, whatever it says of its height itself. */
  private contentHeight(box: DrawnBox, width: Width, whole: number): number {
    return this.layWith(box, width, null, whole, px => px).height;
  }

  private layWith(box: DrawnBox, width: Width, height: number | null, whole: number, clamp: Clamp): LaidBox {
    return box.part.kind.box
      ? this.layFlex(box, width, height, whole, clamp)
      : this.layLeaf(box, width, height, whole, clamp);
  }

  private layLeaf(box: DrawnBox, width: Width, height: number | null, whole: number, clamp: Clamp): LaidBox {
    const { style, element } = box;
    const [left, right] = edges(box, 'inline', whole);
    const [top, bottom] = edges(box, 'block', whole);
    const line = style.lineHeight;
    const lines =
      box.part.kind.kind === 'control'
        ? element === 'textarea'
          ? 2
          : 1
        : linesIn(box, Math.max(0, width.px - left - right));
    const content = box.part.kind.kind === 'icon' ? 0 : lines * line;
    const tall = clamp(height ?? content + top + bottom, top + bottom);
    const { ascent, descent } = style.font;
    const size = style.fontSize;
    const rise =
      Math.floor((line - Math.round(ascent * size) - Math.round(descent * size)) / 2) +
      Math.round(ascent * size);
    const isCentred = element === 'input' || element === 'button' || element === 'select';
    const above = isCentred ? top + Math.max(0, tall - top - bottom - line) / 2 : top;
    const baseline = content === 0 ? null : above + rise;
    return {
      box,
      x: 0,
      y: 0,
      width: width.px,
      height: tall,
      estimated: width.estimated,
      baseline,
      children: [],
    };
  }

  private layFlex(box: DrawnBox, width: Width, height: number | null, whole: number, clamp: Clamp): LaidBox {
    const { style } = box;
    const [left, right] = edges(box, 'inline', whole);
    const [top, bottom] = edges(box, 'block', whole);
    const inner: Width = { px: Math.max(0, width.px - left - right), estimated: width.estimated };
    const isRow = style.value('flex-direction').startsWith('row');
    const ordered = [...box.children]
      .map((child, index) => ({ child, index }))
      .sort((a, b) => a.child.style.number('order') - b.child.style.number('order') || a.index - b.index)
      .map(({ child }) => child);
    const flow = ordered.filter(({ style: own }) => own.value('position') !== 'absolute');
    const innerHeight = height === null ? null : Math.max(0, height - top - bottom);
    const clampInner = (px: number): number => clamp(px + top + bottom, top + bottom) - top - bottom;
    const laid = isRow
      ? this.layRow(box, flow, inner, innerHeight, clampInner)
      : this.layColumn(box, flow, inner, innerHeight, clampInner);
    const tall = height ?? clampInner(laid.height) + top + bottom;
    for (const child of laid.children) {
      child.x += left;
      child.y += top;
    }
    const held = ordered.filter(child => !flow.includes(child));
    const first = laid.children.find(child => child.baseline !== null) ?? null;
    const result: LaidBox = {
      box,
      x: 0,
      y: 0,
      width: width.px,
      height: tall,
      estimated: width.estimated,
      baseline: first === null ? null : first.y + first.baseline!,
      children: [...laid.children],
    };
    (result.children as LaidBox[]).push(...held.map(each => this.layHeld(each, result, isRow)));
    for (const child of result.children) this.shift(child, inner.px);
    // All places are told from the inline start of the page.
    if (style.isRtl !== this.isRtl)
      for (const child of result.children) child.x = width.px - child.x - child.width;
    return result;
  }

  private layRow(
    box: DrawnBox,
    flow: readonly DrawnBox[],
    inner: Width,
    innerHeight: number | null,
    clampInner: (px: number) => number,
  ): { children: LaidBox[]; height: number } {
    const { style } = box;
    const gap = style.length('column-gap', inner.px);
    const rowGap = style.length('row-gap', inner.px);
    const items = flow.map(child => ({ child, ...this.rowItem(child, inner.px) }));
    const wraps = style.value('flex-wrap') === 'wrap';
    const lines = (wraps ? wrapped(items, gap, inner.px) : [items]).map(line =>
      this.measuredLine(line, gap, inner, style.value('align-items')),
    );
    const rowGaps = rowGap * (lines.length - 1);
    const needed = lines.reduce((sum, line) => sum + line.needed, rowGaps);
    // Lines share what is left over between them, unless told otherwise.
    const content = style.value('align-content');
    const left = Math.max(0, (innerHeight ?? clampInner(needed)) - needed);
    const isShared = content === 'normal' || content === 'stretch';
    const more = isShared ? left / lines.length : 0;
    const children: LaidBox[] = [];
    let y = 0;
    for (const line of lines) {
      const cross = wraps ? line.needed + more : (innerHeight ?? clampInner(line.needed));
      children.push(...this.placedLine(box, line, gap, inner, y, cross));
      y += cross + rowGap;
    }
    return { children, height: y - rowGap };
  }

  /** The items of one line at their widths, and the height that they need. */
  private measuredLine(items: readonly RowItem[], gap: number, inner: Width, align: string): Line {
    const gaps = gap * Math.max(0, items.length - 1);
    const sizes = flexibleLengths(
      items.map(({ item }) => item),
      gaps,
      inner.px,
    );
    const someEstimated = items.some(({ base }) => base.estimated);
    const widths = items.map(({ base, item }, index): Width => ({
      px: sizes[index]!,
      // What grows or shrinks takes or leaves what texts need.
      estimated: inner.estimated || base.estimated || (someEstimated && sizes[index] !== item.base),
    }));
    const laid = items.map(({ child }, index) => this.lay(child, widths[index]!, null, inner.px));
    const baselines = laid.map((each, index) =>
      alignOf(items[index]!.child, align) === 'baseline' ? (each.baseline ?? each.height) : null,
    );
    const highest = Math.max(0, ...baselines.map(each => each ?? 0));
    const heights = laid.map((each, index) => {
      const [above, below] = margins(items[index]!.child, 'block', inner.px);
      const own = each.height + (above ?? 0) + (below ?? 0);
      return baselines[index] === null ? own : highest - baselines[index]! + own;
    });
    const outside = items.reduce((sum, { item }) => sum + item.outside, gaps);
    const free = inner.px - sizes.reduce((sum, size) => sum + size, outside);
    return { items, widths, laid, baselines, highest, needed: Math.max(0, ...heights), free, someEstimated };
  }

  private placedLine(
    { style }: DrawnBox,
    { items, widths, laid, baselines, highest, free, someEstimated }: Line,
    gap: number,
    inner: Width,
    y: number,
    cross: number,
  ): LaidBox[] {
    const autos = items.reduce((sum, { autos: own }) => sum + own, 0);
    const spare = autos > 0 && free > 0 ? free / autos : 0;
    const { at: start, between } = spread(style.value('justify-content'), spare > 0 ? 0 : free, items.length);
    let at = start;
    let isEstimated = inner.estimated || (someEstimated && (start !== 0 || between !== 0 || spare > 0));
    return items.map(({ child }, index) => {
      const [before, after] = margins(child, 'inline', inner.px);
      const [above, below] = margins(child, 'block', inner.px);
      const align = alignOf(child, style.value('align-items'));
      const isStretched =
        align === 'stretch' &&
        this.definiteHeight(child, inner.px) === null &&
        above !== null &&
        below !== null;
      const tall = cross - (above ?? 0) - (below ?? 0);
      const each = isStretched
        ? this.lay(child, widths[index]!, this.clampHeight(child, tall, 0), inner.px)
        : laid[index]!;
      at += before ?? spare;
      each.x = at;
      each.y =
        y +
        (baselines[index] === null
          ? crossPlace(align, cross - each.height, above, below)
          : highest - baselines[index]! + (above ?? 0));
      each.estimated = isEstimated || widths[index]!.estimated;
      isEstimated ||= widths[index]!.estimated;
      at += each.width + (after ?? spare) + gap + between;
      return each;
    });
  }

  private layColumn(
    box: DrawnBox,
    flow: readonly DrawnBox[],
    inner: Width,
    innerHeight: number | null,
    clampInner: (px: number) => number,
  ): { children: LaidBox[]; height: number } {
    const { style } = box;
    const gap = style.length('row-gap', inner.px);
    const gaps = gap * Math.max(0, flow.length - 1);
    const placed = flow.map(child => {
      const align = alignOf(child, style.value('align-items'));
      const [before, after] = margins(child, 'inline', inner.px);
      const room = inner.px - (before ?? 0) - (after ?? 0);
      const width = this.crossWidth(
        child,
        room,
        inner,
        align === 'stretch' && before !== null && after !== null,
      );
      const natural = this.lay(child, width, null, inner.px);
      return { child, align, width, natural, item: this.columnItem(child, natural.height, width, inner.px) };
    });
    const items = placed.map(({ item }) => item);
    const sum = items.reduce((total, item) => total + hypothetical(item) + item.outside, gaps);
    const height = innerHeight ?? clampInner(sum);
    const sizes = flexibleLengths(items, gaps, height);
    const free = height - sizes.reduce((total, size, index) => total + size + items[index]!.outside, gaps);
    const autos = placed.reduce((total, { child }) => total + autosOf(child, 'block', inner.px), 0);
    const spare = autos > 0 && free > 0 ? free / autos : 0;
    const spreading = spread(style.value('justify-content'), spare > 0 ? 0 : free, flow.length);
    const { between } = spreading;
    let { at } = spreading;
    const children = placed.map(({ child, align, width, natural }, index) => {
      const [above, below] = margins(child, 'block', inner.px);
      const [before, after] = margins(child, 'inline', inner.px);
      const each =
        Math.abs(sizes[index]! - natural.height) < 1e-6
          ? natural
          : this.lay(child, width, sizes[index]!, inner.px);
      at += above ?? spare;
      each.y = at;
      const left = inner.px - each.width;
      each.x = crossPlace(align, left, before, after);
      each.estimated = width.estimated || (inner.estimated && align !== 'stretch' && align !== 'flex-start');
      at += each.height + (below ?? spare) + gap + between;
      return each;
    });
    return { children, height };
  }

  /** Width of an item across a column. */
  private crossWidth(child: DrawnBox, room: number, inner: Width, stretches: boolean): Width {
    const said = child.style.px('width', inner.px);
    if (said !== null) return this.clampWidth(child, { px: said, estimated: false }, inner.px);
    if (stretches) return this.clampWidth(child, { px: room, estimated: inner.estimated }, inner.px);
    return this.clampWidth(
      child,
      this.fitting(child, { px: room, estimated: inner.estimated }, inner.px),
      inner.px,
    );
  }

  private rowItem(child: DrawnBox, whole: number | null): Omit<RowItem, 'child'> {
    const { style } = child;
    const basis = style.value('flex-basis');
    const said = basis === 'auto' ? style.px('width', whole) : style.px('flex-basis', whole);
    const [left, right] = edges(child, 'inline', whole);
    const base =
      said === null ? this.ofContent(child, whole, 'max-content') : sure(Math.max(said, left + right));
    const [before, after] = margins(child, 'inline', whole);
    const asked = style.value('min-width');
    const extreme = EXTREMES.find(each => each === asked);
    const least = style.px('min-width', whole) ?? (extreme ? this.ofContent(child, whole, extreme).px : 0);
    return {
      base,
      autos: autosOf(child, 'inline', whole),
      item: {
        base: base.px,
        edge: left + right,
        least: Math.max(least, left + right),
        most: style.px('max-width', whole) ?? Infinity,
        grow: style.number('flex-grow'),
        shrink: style.number('flex-shrink'),
        outside: (before ?? 0) + (after ?? 0),
      },
    };
  }

  private columnItem(child: DrawnBox, natural: number, width: Width, whole: number): FlexItem {
    const { style } = child;
    const height = style.px('height');
    const [least, most] = [style.px('min-height'), style.px('max-height')];
    const isFree = height === null && least === null && most === null;
    const content = isFree ? natural : this.contentHeight(child, width, whole);
    const basis = style.px('flex-basis');
    // A text area scrolls of itself (HTML, 15.5.5).
    const scrolls = child.element === 'textarea' || !['visible', 'clip'].includes(style.value('overflow'));
    const [top, bottom] = edges(child, 'block', whole);
    const [above, below] = margins(child, 'block', whole);
    return {
      base: Math.max(basis ?? height ?? content, top + bottom),
      edge: top + bottom,
      // What holds something does not shrink below it of itself.
      least: Math.max(
        least ?? (scrolls ? 0 : Math.min(content, height ?? Infinity, most ?? Infinity)),
        top + bottom,
      ),
      most: most ?? Infinity,
      grow: style.number('flex-grow'),
      shrink: style.number('flex-shrink'),
      outside: (above ?? 0) + (below ?? 0),
    };
  }

  /** As wide as its content in one line, where there is room for that, else as the room, and never less than what cannot be broken. */
  private fitting(box: DrawnBox, room: Width, whole: number | null): Width {
    const most = this.intrinsic(box, whole, 'max-content');
    if (most.px <= room.px) return most;
    const least = this.intrinsic(box, whole, 'min-content');
    return least.px > room.px ? least : { px: room.px, estimated: room.estimated || most.estimated };
  }

  /** Width that a box has by what it says of it, else by its content. */
  private intrinsic(box: DrawnBox, whole: number | null, extreme: Extreme): Width {
    const said = box.style.px('width', whole);
    return this.clampWidth(box, said === null ? this.ofContent(box, whole, extreme) : sure(said), whole);
  }

  /** The same, whatever the box itself says of its width. */
  private ofContent(box: DrawnBox, whole: number | null, extreme: Extreme): Width {
    const [left, right] = edges(box, 'inline', whole);
    const inside = box.part.kind.box ? this.contentWidth(box, extreme) : this.leafWidth(box, extreme);
    return { px: inside.px + left + right, estimated: inside.estimated };
  }

  private leafWidth(box: DrawnBox, extreme: Extreme): Width {
    const { kind } = box.part.kind;
    if (kind === 'icon') return sure(0);
    if (kind === 'control') return { px: 20 * textWidth('n', box), estimated: true };
    if (box.text === '') return sure(0);
    return {
      px: extreme === 'min-content' ? unbreakableWidth(box) : textWidth(box.text, box),
      estimated: true,
    };
  }

  /** Width of what is in a box; percentages of it are of what is not known yet, and count as `auto`. */
  private contentWidth(box: DrawnBox, extreme: Extreme): Width {
    const children = box.children.filter(({ style }) => style.value('position') !== 'absolute');
    const isRow = box.style.value('flex-direction').startsWith('row');
    // What breaks into lines, or stands one below the other, is as wide as the widest.
    const widest = (): Width =>
      widestOf(children.map(child => this.outer(child, this.intrinsic(child, null, extreme))));
    if (!isRow) return widest();
    const wraps = box.style.value('flex-wrap') === 'wrap';
    if (wraps && extreme === 'min-content') return widest();
    const widths = children.map(child => this.outer(child, this.contribution(child, extreme)));
    const gaps = box.style.length('column-gap') * Math.max(0, widths.length - 1);
    const inOneLine = {
      px: widths.reduce((sum, { px }) => sum + px, gaps),
      estimated: widths.some(each => each.estimated),
    };
    return widestOf(wraps ? [inOneLine, this.contentWidth(box, 'min-content')] : [inOneLine]);
  }

  /** A width with the margins beside it. */
  private outer(child: DrawnBox, { px, estimated }: Width): Width {
    const [before, after] = margins(child, 'inline', null);
    return { px: px + (before ?? 0) + (after ?? 0), estimated };
  }

  /** What an item adds to the width that its row would have (CSS Flexible Box 1, section 9.9.3). */
  private contribution(child: DrawnBox, extreme: Extreme): Width {
    const { base, item } = this.rowItem(child, null);
    const own = this.intrinsic(child, null, extreme);
    const atMost = item.grow === 0 ? Math.min(own.px, base.px) : own.px;
    const px = item.shrink === 0 ? Math.max(atMost, base.px) : atMost;
    return { px: Math.max(item.least, Math.min(item.most, px)), estimated: own.estimated || base.estimated };
  }

  /** A part that is placed absolutely, in the padding box of the nearest positioned part around it: here that around it. */
  private layHeld(box: DrawnBox, around: LaidBox, isRow: boolean): LaidBox {
    const { style } = box;
    const frame = around.box.style;
    const [startSide, endSide] = frame.isRtl ? (['right', 'left'] as const) : (['left', 'right'] as const);
    const room = around.width - frame.border(startSide) - frame.border(endSide);
    const tallRoom = around.height - frame.border('top') - frame.border('bottom');
    const [start, end] = [style.px('inset-inline-start', room), style.px('inset-inline-end', room)];
    const [top, bottom] = [style.px('inset-block-start', tallRoom), style.px('inset-block-end', tallRoom)];
    const sides = { inline: margins(box, 'inline', room), block: margins(box, 'block', room) };
    const [before, after] = sides.inline.map(each => each ?? 0) as [number, number];
    const [above, below] = sides.block.map(each => each ?? 0) as [number, number];
    const said = style.px('width', room);
    const between = Math.max(0, room - (start ?? 0) - (end ?? 0)) - before - after;
    const width =
      said !== null
        ? sure(said)
        : start !== null && end !== null
          ? { px: between, estimated: around.estimated }
          : this.fitting(box, { px: between, estimated: around.estimated }, room);
    const fixed = this.definiteHeight(box, room, tallRoom);
    const height =
      fixed ??
      (top !== null && bottom !== null
        ? Math.max(0, Math.max(0, tallRoom - top - bottom) - above - below)
        : null);
    const laid = this.lay(box, this.clampWidth(box, width, room), height, room);
    // Without insets it lies where it would as the only item (CSS Flexible Box 1, section 4.1).
    const align = alignOf(box, frame.value('align-items'));
    const justify = frame.value('justify-content');
    const [padStart, padEnd] = edges(around.box, 'inline', room);
    const [padTop, padBottom] = edges(around.box, 'block', room);
    const wide = around.width - padStart - padEnd - laid.width - before - after;
    const tall = around.height - padTop - padBottom - laid.height - above - below;
    laid.x =
      start !== null
        ? frame.border(startSide) + start + before + autoShare(sides.inline, room, start, end, laid.width)
        : end !== null
          ? around.width - frame.border(endSide) - end - after - laid.width
          : padStart + before + alone(isRow ? justify : align, wide);
    laid.y =
      top !== null
        ? frame.border('top') + top + above + autoShare(sides.block, tallRoom, top, bottom, laid.height)
        : bottom !== null
          ? around.height - frame.border('bottom') - bottom - below - laid.height
          : padTop + above + alone(isRow ? align : justify, tall);
    laid.estimated = width.estimated;
    return laid;
  }

  /** What moves a part without moving others. */
  private shift(laid: LaidBox, whole: number): void {
    const { style } = laid.box;
    if (style.value('position') !== 'relative') return;
    const [start, end] = [style.px('inset-inline-start', whole), style.px('inset-inline-end', whole)];
    const [top, bottom] = [style.px('inset-block-start'), style.px('inset-block-end')];
    laid.x += start ?? (end === null ? 0 : -end);
    laid.y += top ?? (bottom === null ? 0 : -bottom);
  }

  /** Border-box height that a part says itself; `null` where its content decides. */
  private definiteHeight(box: DrawnBox, whole: number, tall: number | null = null): number | null {
    const said = box.style.px('height', tall);
    if (said === null) return null;
    const [top, bottom] = edges(box, 'block', whole);
    return this.clampHeight(box, said, top + bottom);
  }

  private clampHeight({ style }: DrawnBox, px: number, edge: number): number {
    const most = style.px('max-height') ?? Infinity;
    return Math.max(edge, style.px('min-height') ?? 0, Math.min(most, px));
  }

  private clampWidth(box: DrawnBox, { px, estimated }: Width, whole: number | null): Width {
    const { style } = box;
    const [left, right] = edges(box, 'inline', whole);
    const most = style.px('max-width', whole) ?? Infinity;
    const least = Math.max(left + right, style.px('min-width', whole) ?? 0);
    const clamped = Math.max(least, Math.min(most, px));
    return { px: clamped, estimated: estimated && clamped === px };
  }
}

const alignOf = ({ style }: DrawnBox, around: string): string => {
  const own = style.value('align-self');
  return own === 'auto' ? around : own;
};

/** Place across the line of what is aligned there, with so much room left over around it. */
function crossPlace(align: string, room: number, before: number | null, after: number | null): number {
  const left = room - (before ?? 0) - (after ?? 0);
  if (before === null && after === null) return Math.max(0, left) / 2;
  if (before === null) return Math.max(0, left);
  if (after === null) return before;
  if (align === 'center') return before + left / 2;
  return align === 'flex-end' || align === 'end' ? before + left : before;
}

/** Where items begin along their line, and what lies between them. */
function spread(justify: string, free: number, items: number): { at: number; between: number } {
  if (justify === 'center') return { at: free / 2, between: 0 };
  if (justify === 'flex-end' || justify === 'end') return { at: free, between: 0 };
  if (justify === 'space-between' && items > 1 && free > 0) return { at: 0, between: free / (items - 1) };
  return { at: 0, between: 0 };
}

/** How many margins of a box take what is left over along an axis. */
const autosOf = (box: DrawnBox, axis: 'inline' | 'block', whole: number | null): number =>
  margins(box, axis, whole).filter(margin => margin === null).length;

/** Where the only item lies on an axis, with so much room around it. */
const alone = (alignment: string, room: number): number =>
  alignment === 'center' ? room / 2 : alignment === 'flex-end' ? room : 0;

function wrapped<Item extends { readonly item: FlexItem }>(
  items: readonly Item[],
  gap: number,
  room: number,
): Item[][] {
  const lines: Item[][] = [];
  let used = 0;
  for (const each of items) {
    const own = hypothetical(each.item) + each.item.outside;
    const line = lines.at(-1);
    if (line && used + gap + own <= room) {
      line.push(each);
      used += gap + own;
    } else {
      lines.push([each]);
      used = own;
    }
  }
  return lines.length === 0 ? [[]] : lines;
}
