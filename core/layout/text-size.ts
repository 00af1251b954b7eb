import { advanceOf } from './font-metrics';
import type { DrawnBox } from './drawn-box';

const CASES: Readonly<Record<string, (text: string) => string>> = {
  uppercase: text => text.toUpperCase(),
  lowercase: text => text.toLowerCase(),
};

const spacesIn = (text: string): number => text.split(' ').length - 1;

/** Width of a text on one line, estimated from the advances of its font. */
export function textWidth(text: string, { style }: DrawnBox): number {
  const setting = {
    weight: style.number('font-weight') || 400,
    isTabular: style.value('font-variant-numeric').includes('tabular-nums'),
  };
  if (text === '') return 0;
  const written = CASES[style.value('text-transform')]?.(text) ?? text;
  const spaced =
    [...text].length * style.length('letter-spacing') + spacesIn(text) * style.length('word-spacing');
  const width = advanceOf(written, style.font, setting) * style.fontSize + spaced;
  return width * style.page.guess.text(style.place, style.font.isMeasured);
}

/** Width of the widest piece of a text that no line break can take apart; `isWhole`: of the widest word. */
export function unbreakableWidth(box: DrawnBox, isWhole = false): number {
  const { text, style } = box;
  if (style.value('white-space') === 'nowrap') return textWidth(text, box);
  const isBroken =
    !isWhole &&
    (style.value('overflow-wrap') === 'anywhere' || style.value('word-break').startsWith('break-'));
  const pieces = isBroken ? [...text] : text.split(/\s+/);
  return Math.max(...pieces.map(piece => textWidth(piece, box)));
}

/** Lines that a text takes in a width, broken at spaces where it may be. */
export function linesIn(box: DrawnBox, width: number): number {
  const { text, style } = box;
  const space = style.value('white-space');
  // White space alone collapses to nothing.
  if (text === '' || (space !== 'pre-wrap' && text.trim() === '')) return 0;
  const hard = space === 'pre-wrap' ? text.split('\n') : [text];
  if (space === 'nowrap') return 1;
  const lines = hard.reduce((sum, line) => sum + softLines(line, box, width), 0);
  // Where words are taken apart, only a browser knows.
  const isTorn = mayTear(box) && ((tearsAny(box) && lines > 1) || unbreakableWidth(box, true) > width);
  return isTorn ? style.page.guess.unlaid(style.place, lines) : lines;
}

/** Whether words may be taken apart. */
const mayTear = ({ style }: DrawnBox): boolean =>
  style.value('overflow-wrap') !== 'normal' ||
  style.value('word-break') === 'break-all' ||
  style.value('hyphens') === 'auto';

/** Whether that befalls words that would fit on a line of their own, too. */
const tearsAny = ({ style }: DrawnBox): boolean =>
  style.value('word-break') === 'break-all' || style.value('hyphens') === 'auto';

/** What sums of advances may differ by where nothing else does. */
const NEARLY = 0.05;

function softLines(line: string, box: DrawnBox, width: number): number {
  let lines = 1;
  let used = 0;
  const gap = textWidth(' ', box);
  for (const word of line.split(' ')) {
    const own = textWidth(word, box);
    if (used > 0 && used + gap + own > width + NEARLY) {
      lines++;
      used = own;
    } else used += (used > 0 ? gap : 0) + own;
  }
  return lines;
}
