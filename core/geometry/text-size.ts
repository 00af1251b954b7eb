import { advanceOf } from './font-metrics';
import type { DrawnBox } from './drawn-box';

/** Width of a text on one line, estimated from the advances of its font. */
export function textWidth(text: string, { style }: DrawnBox): number {
  const setting = {
    weight: style.number('font-weight') || 400,
    isTabular: style.value('font-variant-numeric').includes('tabular-nums'),
  };
  const upper = style.value('text-transform') === 'uppercase' ? text.toUpperCase() : text;
  return (
    advanceOf(upper, style.font, setting) * style.fontSize + [...text].length * style.length('letter-spacing')
  );
}

/** Width of the widest piece of a text that no line break can take apart. */
export function unbreakableWidth(box: DrawnBox): number {
  const { text, style } = box;
  if (style.value('white-space') === 'nowrap') return textWidth(text, box);
  const isBroken =
    style.value('overflow-wrap') === 'anywhere' || style.value('word-break').startsWith('break-');
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
  return hard.reduce((sum, line) => sum + softLines(line, box, width), 0);
}

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
