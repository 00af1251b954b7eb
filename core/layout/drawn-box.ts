import type { Part } from '../components/anatomy/part';
import type { PartStyle } from './part-style';

/** A part as it is drawn in a combination, with the text that it shows. */
export interface DrawnBox {
  /** As cells and output address it: `entry:2/frame`. */
  readonly name: string;
  readonly part: Part;
  readonly style: PartStyle;
  readonly text: string;
  /** Of the drawing that it shows: width by height, `null` where it shows none or it does not say so. */
  readonly drawing: { readonly ratio: number | null } | null;
  /** The element that stands for it: an `input` keeps one line, a `textarea` two. */
  readonly element: string;
  readonly children: readonly DrawnBox[];
}

export type Axis = 'inline' | 'block';

/** Two amounts along an axis, at its start and at its end. */
export type Ends<T> = readonly [start: T, end: T];

/** Of two amounts by the direction of one box, those by another's. */
export const turned = <T>([start, end]: Ends<T>, isTurned: boolean): Ends<T> =>
  isTurned ? [end, start] : [start, end];

/** Sides of a box along an axis, as its own direction of writing has them. */
const SIDES = {
  block: ['top', 'bottom'],
  ltr: ['left', 'right'],
  rtl: ['right', 'left'],
} as const;

/** Borders of a box along one axis, in px. */
export function borders({ style }: DrawnBox, axis: Axis): Ends<number> {
  const [start, end] = SIDES[axis === 'block' ? 'block' : style.isRtl ? 'rtl' : 'ltr'];
  return [style.border(start), style.border(end)];
}

/** Borders and paddings of a box along one axis, in px; shares of what is not known yet are nothing (CSS Sizing 3, section 5.2.1). */
export function edges(box: DrawnBox, axis: Axis, whole: number | null): Ends<number> {
  const [start, end] = borders(box, axis);
  return [
    start + box.style.length(`padding-${axis}-start`, whole ?? 0),
    end + box.style.length(`padding-${axis}-end`, whole ?? 0),
  ];
}

/** Both together. */
export function edge(box: DrawnBox, axis: Axis, whole: number | null): number {
  const [start, end] = edges(box, axis, whole);
  return start + end;
}

/** Margins along one axis as the box around it has its direction of writing; `null` for `auto`. */
export const margins = (
  { style }: DrawnBox,
  axis: Axis,
  whole: number | null,
  isRtl: boolean,
): Ends<number | null> =>
  turned(
    [style.px(`margin-${axis}-start`, whole ?? 0), style.px(`margin-${axis}-end`, whole ?? 0)],
    axis === 'inline' && style.isRtl !== isRtl,
  );

/** Margins together, without those that take what is left over. */
export const outside = ([start, end]: Ends<number | null>): number => (start ?? 0) + (end ?? 0);

/** How many margins take what is left over. */
export const autos = (ends: Ends<number | null>): number => ends.filter(margin => margin === null).length;

/** Whether a box keeps what overflows it to itself, so that its content holds it to no least size (CSS Flexible Box 1, section 4.5). */
export const scrolls = ({ element, style }: DrawnBox): boolean => {
  // A text area scrolls of itself; an input and a select never do, whatever is said (HTML, 15.5).
  if (element === 'input' || element === 'select') return false;
  const overflow = style.value('overflow');
  return overflow !== 'clip' && (overflow !== 'visible' || element === 'textarea');
};

/** Whether it takes part in the line or the column in which it stands. */
export const isInFlow = ({ style }: DrawnBox): boolean => style.value('position') !== 'absolute';
