import { converter, formatHex, parse, wcagContrast, type Rgb } from 'culori';

const toRgb = converter('rgb');

/** Contrast ratio of two colours (WCAG 2.2, 1 to 21); the upper one may be translucent. `null` when one is no colour. */
export function contrast(above: string, beneath: string): number | null {
  const upper = parse(above);
  const lower = parse(beneath);
  if (!upper || !lower) return null;
  const below = toRgb(lower);
  return wcagContrast(mixed(toRgb(upper), below), below);
}

/** A colour over another, as one colour; what is no colour lets everything through. */
export function laidOver(above: string, below: string): string {
  const [upper, lower] = [parse(above), parse(below)];
  if (!upper || !lower) return below;
  return formatHex(mixed(toRgb(upper), toRgb(lower)));
}

function mixed(upper: Rgb, lower: Rgb): Rgb {
  const alpha = upper.alpha ?? 1;
  const mix = (x: number, y: number): number => x * alpha + y * (1 - alpha);
  return { mode: 'rgb', r: mix(upper.r, lower.r), g: mix(upper.g, lower.g), b: mix(upper.b, lower.b) };
}
