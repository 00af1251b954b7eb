import { converter, parse, wcagContrast } from 'culori';
import type { Part } from '../anatomy/anatomy';
import type { Component } from '../rules/component';
import type { Outcomes } from '../rules/resolve';

const toRgb = converter('rgb');

/** Contrast ratio of two colours (WCAG 2.2, 1 to 21); the upper one may be translucent. `null` when one is no colour. */
export function contrast(above: string, below: string): number | null {
  const upper = parse(above);
  const lower = parse(below);
  if (!upper || !lower) return null;
  const a = toRgb(upper);
  const b = toRgb(lower);
  const alpha = a.alpha ?? 1;
  const mix = (x: number, y: number): number => x * alpha + y * (1 - alpha);
  return wcagContrast({ mode: 'rgb', r: mix(a.r, b.r), g: mix(a.g, b.g), b: mix(a.b, b.b) }, b);
}

/** The colour that is really behind a part: its own surface or that of the nearest part around it, else the page's. */
export function surfaceBehind(
  component: Component,
  parts: Outcomes,
  part: string,
  page: string,
  own: boolean,
): string {
  const chain = ancestors(component.anatomy.root, part) ?? [];
  const around = own ? chain : chain.slice(0, -1);
  for (const name of around.reverse()) {
    const surface = parts[name]?.['background-color']?.value;
    if (surface !== undefined && surface !== 'transparent' && !/^#[0-9a-f]{6}00$/.test(surface))
      return surface;
  }
  return page;
}

/** Names from the outermost part down to the one wanted. */
function ancestors(here: Part, name: string): string[] | null {
  if (here.name === name) return [name];
  for (const child of here.children) {
    const below = ancestors(child, name);
    if (below) return [here.name, ...below];
  }
  return null;
}
