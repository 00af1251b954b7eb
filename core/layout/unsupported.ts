import type { DrawnBox } from './drawn-box';
import type { LaidBox } from './laid-box';

/** What is said of a box that is not laid out, so that its own measures are guessed: one row each. */
const UNLAID: readonly ((box: DrawnBox) => boolean)[] = [
  ({ style }) => style.value('aspect-ratio') !== 'auto',
  // Scroll bars take room, on some systems.
  ({ style }) => style.value('overflow') === 'scroll',
  ({ style, element }) => style.value('field-sizing') === 'content' && FIELDS.has(element),
  // Columns that are broken into several are as wide as only a layout of them shows.
  ({ part, style }) =>
    part.kind.box &&
    style.value('flex-wrap') === 'wrap' &&
    style.value('flex-direction').startsWith('column'),
  // Of a share of what is not known a browser makes an input as high as its font, whatever is said of its lines.
  ({ style, element }) => element === 'input' && style.value('height').includes('%'),
  ({ style, text }) => text !== '' && style.px('text-indent', 0) !== 0,
  // How high a box that lays out others would be by its content hangs on what a browser has laid out before.
  ({ part, style }) =>
    part.kind.display === 'flex' && ['min-height', 'max-height'].some(name => isOfContent(style.value(name))),
  isOpenDrawing,
];

/** What makes its measures depend on more than the box itself. */
const HEIGHTS = ['flex-basis', 'min-height', 'max-height', 'padding-block-start', 'padding-block-end'];

const WIDTHS = ['min-width', 'max-width'];

const isOfContent = (value: string): boolean => value.endsWith('content');

/** A drawing that is given neither measure, or one and limits that hang on others, takes whatever its surroundings leave it. */
function isOpenDrawing({ style, drawing }: DrawnBox): boolean {
  if (!drawing) return false;
  const values = HEIGHTS.map(name => style.value(name));
  if ([...values, ...WIDTHS.map(name => style.value(name))].some(isOfContent)) return true;
  const [width, height] = [style.px('width'), style.px('height')];
  // As wide as the height asks for that it has in the end.
  if (width === null && (style.number('flex-grow') > 0 || style.value('flex-basis') !== 'auto')) return true;
  const said = [width, height].filter(px => px !== null).length;
  return said < (drawing.ratio === null || values.some(value => value.includes('%')) ? 2 : 1);
}

const FIELDS: ReadonlySet<string> = new Set(['input', 'textarea', 'select']);

const found = new WeakMap<DrawnBox, boolean>();

/** Whether measures of a box are only guessed, and all that lies in it. */
export function isUnsupported(box: DrawnBox): boolean {
  let is = found.get(box);
  if (is === undefined) found.set(box, (is = UNLAID.some(row => row(box))));
  return is;
}

/** A measure of a box, in px: taken for more and for less where it is only guessed. */
export const guessed = (box: DrawnBox, px: number): number =>
  isUnsupported(box) ? box.style.page.guess.unlaid(box.style.place, px) : px;

/** The most that a box may have: where its measures are guessed, nothing holds them but the guess. */
export const guessedMost = (box: DrawnBox, most: number): number =>
  isUnsupported(box) && !box.style.page.guess.isLikely ? Infinity : most;

/** Whether scroll bars may have come, which take room from what is in a box. */
export const isScrolled = ({ box: { style }, width, height, children }: LaidBox): boolean =>
  style.value('overflow') === 'auto' &&
  children.some(
    child => child.y + child.height > height || child.x + child.width > width || child.x < 0 || child.y < 0,
  );

/** Whether a box is turned or scaled where it lies, which moves nothing else. */
export const isTransformed = ({ style }: DrawnBox): boolean =>
  style.value('rotate') !== 'none' || style.value('scale') !== 'none';
