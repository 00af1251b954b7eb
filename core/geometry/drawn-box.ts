import type { Part } from '../anatomy/anatomy';
import type { PartStyle } from './part-style';

/** A part as it is drawn in a combination, with the text that it shows. */
export interface DrawnBox {
  /** As cells and output address it: `entry:2/frame`. */
  readonly name: string;
  readonly part: Part;
  readonly style: PartStyle;
  readonly text: string;
  /** The element that stands for it: an `input` keeps one line, a `textarea` two. */
  readonly element: string;
  readonly children: readonly DrawnBox[];
}

/** Borders and paddings of a box along one axis, in px, at the start and at the end. */
export function edges(
  { style }: DrawnBox,
  axis: 'inline' | 'block',
  whole: number | null,
): readonly [start: number, end: number] {
  const [start, end] =
    axis === 'block'
      ? (['top', 'bottom'] as const)
      : style.isRtl
        ? (['right', 'left'] as const)
        : (['left', 'right'] as const);
  return [
    style.border(start) + style.length(`padding-${axis}-start`, whole),
    style.border(end) + style.length(`padding-${axis}-end`, whole),
  ];
}

/** Margins along one axis; `null` for `auto`. */
export const margins = (
  { style }: DrawnBox,
  axis: 'inline' | 'block',
  whole: number | null,
): readonly [start: number | null, end: number | null] => [
  style.px(`margin-${axis}-start`, whole),
  style.px(`margin-${axis}-end`, whole),
];
