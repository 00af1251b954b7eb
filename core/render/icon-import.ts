import { plainLetters } from '../text/transliteration';
import { iconProblems, plainIcon } from './icon';

/** A drawing as it is taken in. */
export type ImportedIcon =
  | { readonly ok: true; readonly name: string; readonly svg: string; readonly leftOut: readonly string[] }
  | { readonly ok: false; readonly name: string; readonly reason: string };

/** Larger ones are no icons. */
const MAX_ICON_BYTES = 100_000;

/**
 * Takes a drawing in: plain shapes alone, without scripts, handlers, entities and whatever else would be fetched, in the colour of the
 * text around unless it is to keep its own. `file` is the name that it came under. What was left out is told.
 */
export function importedIcon(file: string, text: string, keepsColours = false): ImportedIcon {
  const name = iconName(file);
  if (text.length > MAX_ICON_BYTES) {
    const size = `${Math.ceil(text.length / 1000)} kB`;
    return {
      ok: false,
      name,
      reason: `${size} are too much for an icon; ${MAX_ICON_BYTES / 1000} kB are allowed.`,
    };
  }
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return { ok: false, name, reason: 'It declares entities, which an icon has no use for.' };
  const plain = plainIcon(text);
  if (plain === null) return { ok: false, name, reason: 'This is not an SVG drawing.' };
  if (!/<(?:path|circle|ellipse|line|polyline|polygon|rect)\b/.test(plain))
    return { ok: false, name, reason: 'Nothing in it can be drawn: an icon holds plain shapes.' };
  const svg = keepsColours ? plain : inCurrentColor(plain);
  const leftOut = iconProblems(text).map(({ message }) => message);
  return { ok: true, name, svg: `${withNamespace(svg)}\n`, leftOut: [...new Set(leftOut)] };
}

/** Fills and strokes in the colour of the text around; what is not painted stays so. */
const inCurrentColor = (svg: string): string =>
  svg.replace(/ (fill|stroke)="([^"]*)"/g, (whole, paint: string, color: string) =>
    /^(none|currentcolor|transparent)$/i.test(color) ? whole : ` ${paint}="currentColor"`,
  );

const withNamespace = (svg: string): string =>
  svg.includes('xmlns=') ? svg : svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"');

/** A name that a document can have, from that of a file. */
export function iconName(file: string): string {
  const name = plainLetters(file.replace(/^.*[\\/]/, '').replace(/\.svg$/i, ''))
    .replace(/[^A-Za-z0-9_-]+/g, '-')
    .replace(/-{2,}/g, '-')
    .replace(/^[^A-Za-z0-9]+|[^A-Za-z0-9]+$/g, '')
    .slice(0, 60);
  return name || 'icon';
}
