import type { Component } from '../components/component';
import { laidOver } from '../css/contrast';
import type { Outcomes } from './outcome';

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
