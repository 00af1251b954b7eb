import { converter, formatHex, formatHex8, inGamut, parse, type Color } from 'culori';

export type { Color };

/** A colour of the tokens format (colour module 2025.10). */
export interface TokenColor {
  readonly colorSpace: string;
  readonly components: readonly (number | 'none')[];
  readonly alpha?: number;
  readonly hex?: string;
}

interface SpaceRow {
  /** culori's name for the space and its channels, in the format's order. */
  readonly mode: string;
  readonly channels: readonly [string, string, string];
  /** What one unit of the format is in culori's units, per channel. */
  readonly scale: readonly [number, number, number];
  /** Least and greatest value of each component, `null` where there is none. */
  readonly ranges: readonly (ComponentRange | null)[];
  readonly css: (components: readonly string[], alpha: string) => string;
}

/** `isOpen`: whether the greatest is no value any more, as a hue of 360 is one of 0. */
type ComponentRange = readonly [least: number, most: number, isOpen?: boolean];

const UNIT: ComponentRange = [0, 1];
const PERCENT: ComponentRange = [0, 100];
const HUE: ComponentRange = [0, 360, true];
const CHROMA: ComponentRange = [0, Infinity];

const call =
  (name: string, units: readonly string[] = ['', '', '']) =>
  (components: readonly string[], alpha: string): string =>
    `${name}(${components.map((text, i) => (text === 'none' ? text : text + units[i])).join(' ')}${alpha})`;
function colorIn(space: string): SpaceRow['css'] {
  return (components, alpha) => `color(${space} ${components.join(' ')}${alpha})`;
}
/** A space whose units are culori's, unless told; its channels are named by a letter each. */
const space = (
  mode: string,
  [first = '', second = '', third = '']: string,
  ranges: SpaceRow['ranges'],
  css: SpaceRow['css'],
  scale: SpaceRow['scale'] = [1, 1, 1],
): SpaceRow => ({ mode, channels: [first, second, third], scale, ranges, css });
const OF_HUNDREDTHS = [1, 0.01, 0.01] as const;
const rgb = (mode: string, css: SpaceRow['css']): SpaceRow => space(mode, 'rgb', [UNIT, UNIT, UNIT], css);

/** The colour spaces of the format, one row each; ranges and CSS forms follow CSS Color 4. */
export const COLOR_SPACES: Readonly<Record<string, SpaceRow>> = {
  srgb: rgb('rgb', colorIn('srgb')),
  'srgb-linear': rgb('lrgb', colorIn('srgb-linear')),
  hsl: space('hsl', 'hsl', [HUE, PERCENT, PERCENT], call('hsl', ['', '%', '%']), OF_HUNDREDTHS),
  hwb: space('hwb', 'hwb', [HUE, PERCENT, PERCENT], call('hwb', ['', '%', '%']), OF_HUNDREDTHS),
  lab: space('lab', 'lab', [PERCENT, null, null], call('lab')),
  lch: space('lch', 'lch', [PERCENT, CHROMA, HUE], call('lch')),
  oklab: space('oklab', 'lab', [UNIT, null, null], call('oklab')),
  oklch: space('oklch', 'lch', [UNIT, CHROMA, HUE], call('oklch')),
  'display-p3': rgb('p3', colorIn('display-p3')),
  'a98-rgb': rgb('a98', colorIn('a98-rgb')),
  'prophoto-rgb': rgb('prophoto', colorIn('prophoto-rgb')),
  rec2020: rgb('rec2020', colorIn('rec2020')),
  'xyz-d65': space('xyz65', 'xyz', [null, null, null], colorIn('xyz-d65')),
  'xyz-d50': space('xyz50', 'xyz', [null, null, null], colorIn('xyz-d50')),
};

const toRgb = converter('rgb');

/** At most six decimals, no trailing zeros, never an exponent. */
function decimal(value: number): string {
  const text = value.toFixed(6).replace(/\.?0+$/, '');
  return text === '-0' ? '0' : text;
}

/** The colour as CSS text in its own space; sRGB that 8 bits hold exactly is written as hex. */
export function colorCss(value: TokenColor): string {
  const hex = exactHex(value);
  if (hex) return hex;
  const components = value.components.map(part => (part === 'none' ? 'none' : decimal(part)));
  const alpha = value.alpha === undefined || value.alpha === 1 ? '' : ` / ${decimal(value.alpha)}`;
  return COLOR_SPACES[value.colorSpace]!.css(components, alpha);
}

function exactHex(value: TokenColor): string | null {
  if (value.colorSpace !== 'srgb') return null;
  const channels = [...value.components, value.alpha ?? 1];
  const exact = channels.every(
    part => part !== 'none' && part >= 0 && part <= 1 && Math.abs(part * 255 - Math.round(part * 255)) < 0.02,
  );
  return exact ? colorHex(value) : null;
}

/** The colour's coordinates. */
export function tokenColor(value: TokenColor): Color {
  const row = COLOR_SPACES[value.colorSpace]!;
  const color: Record<string, unknown> = { mode: row.mode, alpha: value.alpha ?? 1 };
  row.channels.forEach((channel, index) => {
    const part = value.components[index];
    color[channel] = part === 'none' || part === undefined ? 0 : part * row.scale[index]!;
  });
  return color as unknown as Color;
}

/** Lower-case `#rrggbb`, or `#rrggbbaa` when not opaque; what lies outside sRGB is clipped, as browsers do. */
export function colorHex(value: TokenColor): string {
  return hexOf(tokenColor(value));
}

/** The coordinates of CSS colour text (CSS Color 4), or `null` for what has no fixed colour, such as `currentcolor`. */
export const cssColor = (text: string): Color | null => parse(text) ?? null;

const fitsRgb = inGamut('rgb');

/** Whether a display of the sRGB kind cannot show a colour as it is. */
export const isWideGamut = (value: TokenColor): boolean => !fitsRgb(tokenColor(value));

/** A colour as `colorHex` writes it. */
export function hexOf(color: Color): string {
  const { r, g, b, alpha = 1 } = toRgb(color);
  const clip = (part: number): number => Math.min(1, Math.max(0, part));
  const clipped = { mode: 'rgb', r: clip(r), g: clip(g), b: clip(b), alpha: clip(alpha) } as const;
  return clipped.alpha < 1 ? dropOpaque(formatHex8(clipped)) : formatHex(clipped);
}

const dropOpaque = (hex: string): string => (hex.endsWith('ff') ? hex.slice(0, 7) : hex);

/** Reads CSS colour text into the format's sRGB form, for values that people type. `null` when it is no colour. */
export function tokenColorFromCss(text: string): TokenColor | null {
  const color = parse(text.trim());
  if (!color) return null;
  const row = Object.entries(COLOR_SPACES).find(
    ([space, { mode }]) => mode === color.mode && space.startsWith('ok'),
  );
  const round = (part: number, digits: number): number => Number(part.toFixed(digits));
  const alpha = color.alpha !== undefined && color.alpha < 1 ? { alpha: round(color.alpha, 4) } : {};
  if (row) {
    const parts = color as unknown as Record<string, number | undefined>;
    return {
      colorSpace: row[0],
      components: row[1].channels.map(channel => round(parts[channel] ?? 0, 4)),
      ...alpha,
      hex: hexOf(color).slice(0, 7),
    };
  }
  const { r, g, b } = toRgb(color);
  return {
    colorSpace: 'srgb',
    components: [r, g, b].map(part => round(Math.min(1, Math.max(0, part)), 4)),
    ...alpha,
    hex: hexOf(color).slice(0, 7),
  };
}
