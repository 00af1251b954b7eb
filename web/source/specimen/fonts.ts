import type { System } from '@periwinkle/core/components/system';
import { propertyNamed } from '@periwinkle/core/css/property-registry';

/** Fonts that are there anywhere: what a browser takes in their stead is meant. */
const GENERIC: ReadonlySet<string> = new Set([
  ...['serif', 'sans-serif', 'monospace', 'cursive', 'fantasy', 'system-ui', 'math', 'emoji', 'fangsong'],
  ...['ui-serif', 'ui-sans-serif', 'ui-monospace', 'ui-rounded'],
  ...['inherit', 'initial', 'unset', 'revert', 'revert-layer'],
]);

/**
 * The faces that this application has, as rules of CSS with whole addresses: for pages of their own, such as a trial's, in which a field is to be
 * drawn with the same letters as everywhere else.
 */
export function fontFaces(): string {
  const rules = [...document.styleSheets].flatMap(sheet => {
    try {
      return [...sheet.cssRules]
        .filter(rule => rule instanceof CSSFontFaceRule)
        .map(rule => ({ rule, sheet }));
    } catch {
      // One from elsewhere, of an extension of the browser, is not ours to read.
      return [];
    }
  });
  return rules
    .map(({ rule, sheet }) => withWholeAddresses(rule.cssText, sheet.href ?? document.baseURI))
    .join('\n');
}

const withWholeAddresses = (css: string, base: string): string =>
  css.replace(/url\("([^"]*)"\)/g, (_, url: string) => `url("${new URL(url, base).href}")`);

/** The fonts that a system names first and that are not here, so that its fields are drawn with the next of their lists. */
export function missingFonts(system: System): readonly string[] {
  const tokens = [...system.tokens.usual().byKey.values()].filter(({ type }) => type === 'fontFamily');
  const written = system.components.flatMap(({ rules }) =>
    rules.flatMap(({ settings }) =>
      settings.flatMap(({ property, value }) =>
        property === propertyNamed('font-family') && value.kind === 'literal' ? [value.css] : [],
      ),
    ),
  );
  const first = new Set([...tokens.map(({ css }) => css), ...written].map(firstFamily));
  return [...first].filter(family => family !== '' && !GENERIC.has(family.toLowerCase()) && !isHere(family));
}

const firstFamily = (list: string): string =>
  /^\s*(?:"([^"]*)"|'([^']*)'|([^,]*))/
    .exec(list)
    ?.slice(1)
    .find(name => name !== undefined)
    ?.trim() ?? '';

const TEXT = 'Wharf quay 0123 imWl';
const known = new Map<string, boolean>();

/** Whether a browser draws a family: it is then as wide whatever would be taken in its stead, or has been loaded. */
function isHere(family: string): boolean {
  const before = known.get(family);
  if (before !== undefined) return before;
  const context = document.createElement('canvas').getContext('2d');
  if (!context) return true;
  const quoted = `"${family.replace(/["\\]/g, '\\$&')}"`;
  const width = (font: string): number => {
    context.font = `40px ${font}`;
    return context.measureText(TEXT).width;
  };
  const isLoaded = [...document.fonts].some(face => face.family.replace(/^["']|["']$/g, '') === family);
  const found =
    isLoaded || ['serif', 'monospace'].some(other => width(`${quoted}, ${other}`) !== width(other));
  known.set(family, found);
  return found;
}
