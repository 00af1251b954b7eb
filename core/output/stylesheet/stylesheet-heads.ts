import type { System } from '../../components/system';

/**
 * Which form of a stylesheet: alone it holds against a page's resets, in layers it takes its place among others, inside a
 * shadow root it goes by what the host bears.
 */
export type Layering = 'unlayered' | 'layered' | 'host';

/** Which browsers know everything that the stylesheets use. */
export const BASELINE = 'Chrome and Edge 125, Firefox 121, Safari 16.4';

/** Three lines on how a file is used, for its head. */
export function stylesheetHead(system: System, layering: Layering, name: string): string[] {
  const { modifiers } = system.tokens;
  const contexts = modifiers.length === 0 ? 'nothing else' : 'a context by its attribute, see README.md';
  const use =
    layering === 'host'
      ? 'Use: adopt it in the shadow root, tokens.css first; the host bears contexts, options and states as attributes.'
      : name === 'index'
        ? 'Use: link this one file from the head of the page; it joins the others in order.'
        : name === 'tokens'
          ? `Use: link it first, once a page; choose ${contexts}.`
          : `Use: link it after tokens.css, or link index.css alone; the markup stands in html/${name}.html.`;
  const place =
    layering === 'host'
      ? 'Stands in no cascade layer: nothing of the page reaches into a shadow root but what is inherited.'
      : layering === 'layered'
        ? `Stands in the cascade layer ${system.prefix}: name it among your own, @layer reset, ${system.prefix}, app;`
        : 'Stands in no cascade layer: it holds against resets by elements, and yields to any selector of two classes.';
  return [use, place, `Browsers: ${BASELINE} and later.`];
}
