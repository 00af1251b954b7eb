import { converter, formatHex, parse, wcagContrast, type Rgb } from 'culori';
import type { Component } from '../components/component';
import type { Outcomes } from '../resolution/outcome';

const toRgb = converter('rgb');

/** Contrast ratio of two colours (WCAG 2.2, 1 to 21); the upper one may be translucent. `null` when one is no colour. */
export function contrast(above: string, beneath: string): number | null {
  const upper = parse(above);
  const lower = parse(beneath);
  if (!upper || !lower) return null;
  const below = toRgb(lower);
  return wcagContrast(mixed(toRgb(upper), below), below);
}

/**
 * The colour that is really behind a part: the surfaces of the parts around it, and its own where asked, laid over one another
 * and over the page's as far as they let it through (CSS Color 4, section 12).
 */
export function surfaceBehind(
  component: Component,
  parts: Outcomes,
  part: string,
  page: string,
  own: boolean,
): string {
  const { anatomy } = component;
  const start = anatomy.byName.get(part);
  const surfaces: string[] = [];
  for (let here = own || !start ? start : anatomy.outer(start); here; here = anatomy.outer(here)) {
    const surface = parts[here.name]?.['background-color']?.value;
    if (surface !== undefined) surfaces.unshift(surface);
  }
  return surfaces.reduce((below, above) => laidOver(above, below), page);
}

/** A colour over another, as one colour; what is no colour lets everything through. */
function laidOver(above: string, below: string): string {
  const [upper, lower] = [parse(above), parse(below)];
  if (!upper || !lower) return below;
  return formatHex(mixed(toRgb(upper), toRgb(lower)));
}

function mixed(upper: Rgb, lower: Rgb): Rgb {
  const alpha = upper.alpha ?? 1;
  const mix = (x: number, y: number): number => x * alpha + y * (1 - alpha);
  return { mode: 'rgb', r: mix(upper.r, lower.r), g: mix(upper.g, lower.g), b: mix(upper.b, lower.b) };
}
