import type { Outcome } from '../cascade/outcome';
import type { Rect } from './callouts';

/** A length of a part, as a drawing gives it: between two places along an axis. */
export interface Dimension {
  readonly axis: 'x' | 'y';
  /** px, where the part's rectangle is given. */
  readonly from: number;
  readonly to: number;
  readonly kind: 'size' | 'inset' | 'gap';
  /** Path of the token that it is, or what is written, where some rule says it. */
  readonly said: string | null;
}

/** By axis: the names under which a part's lengths are said, those that mean one side first. */
const NAMES = {
  x: {
    size: ['width'],
    gap: ['column-gap', 'gap'],
    start: ['left', 'inline-start', 'inline'],
    end: ['right', 'inline-end', 'inline'],
  },
  y: {
    size: ['height', 'min-height'],
    gap: ['row-gap', 'gap'],
    start: ['top', 'block-start', 'block'],
    end: ['bottom', 'block-end', 'block'],
  },
} as const;

/** Less counts as nothing, px. */
const NOTHING = 0.01;

/**
 * The lengths of a part: its size, its paddings, and between its children, one of each length; in the outcomes of a combination. Rectangles in px;
 * lines run from left to right.
 */
export function dimensionsOf(
  place: Rect,
  children: readonly Rect[],
  outcomes: Readonly<Record<string, Outcome>>,
): Dimension[] {
  return (['x', 'y'] as const).flatMap(axis => {
    const { from, to } = spanOf(place, axis);
    const names = NAMES[axis];
    const size: Dimension = { axis, from, to, kind: 'size', said: saidOf(outcomes, names.size) };
    const insetAt = (side: 'start' | 'end'): Dimension[] => {
      const border = lengthOf(outcomes, [...names[side].map(each => `border-${each}-width`), 'border-width']);
      const padding = [...names[side].map(each => `padding-${each}`), 'padding'];
      const length = lengthOf(outcomes, padding);
      if (length < NOTHING) return [];
      const said = saidOf(outcomes, padding);
      return side === 'start'
        ? [{ axis, from: from + border, to: from + border + length, kind: 'inset', said }]
        : [{ axis, from: to - border - length, to: to - border, kind: 'inset', said }];
    };
    return [size, ...insetAt('start'), ...gapsOf(children, axis, outcomes), ...insetAt('end')];
  });
}

const spanOf = ({ x, y, width, height }: Rect, axis: 'x' | 'y'): { from: number; to: number } =>
  axis === 'x' ? { from: x, to: x + width } : { from: y, to: y + height };

/** Between children that stand one behind the other along an axis. */
function gapsOf(
  children: readonly Rect[],
  axis: 'x' | 'y',
  outcomes: Readonly<Record<string, Outcome>>,
): Dimension[] {
  const across = axis === 'x' ? 'y' : 'x';
  const inLine = [...children].sort((a, b) => a[axis] - b[axis]);
  const found: Dimension[] = [];
  const { gap } = NAMES[axis];
  const length = lengthOf(outcomes, gap);
  for (const [index, after] of inLine.slice(1).entries()) {
    const before = inLine[index]!;
    const [from, to] = [spanOf(before, axis).to, after[axis]];
    const one = spanOf(before, across);
    const other = spanOf(after, across);
    if (to - from < NOTHING || one.to <= other.from || other.to <= one.from) continue;
    if (found.some(each => Math.abs(each.to - each.from - (to - from)) < NOTHING)) continue;
    const said = Math.abs(length - (to - from)) < NOTHING ? saidOf(outcomes, gap) : null;
    found.push({ axis, from, to, kind: 'gap', said });
  }
  return found;
}

const firstOf = (
  outcomes: Readonly<Record<string, Outcome>>,
  names: readonly string[],
): Outcome | undefined => names.map(name => outcomes[name]).find(Boolean);

function saidOf(outcomes: Readonly<Record<string, Outcome>>, names: readonly string[]): string | null {
  const outcome = firstOf(outcomes, names);
  return outcome ? (outcome.token ?? outcome.trail.at(-1)?.text ?? null) : null;
}

const lengthOf = (outcomes: Readonly<Record<string, Outcome>>, names: readonly string[]): number =>
  Number(/^(-?[\d.]+)px$/.exec(firstOf(outcomes, names)?.value ?? '')?.[1] ?? 0);
