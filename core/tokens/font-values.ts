import { cssIdentifier, cssString } from '../text/css-text';

/** Names of weights and their numbers (CSS Fonts 4). */
export const FONT_WEIGHTS: Readonly<Record<string, number>> = {
  thin: 100,
  hairline: 100,
  'extra-light': 200,
  'ultra-light': 200,
  light: 300,
  normal: 400,
  regular: 400,
  book: 400,
  medium: 500,
  'semi-bold': 600,
  'demi-bold': 600,
  bold: 700,
  'extra-bold': 800,
  'ultra-bold': 800,
  black: 900,
  heavy: 900,
  'extra-black': 950,
  'ultra-black': 950,
};

const GENERIC_FAMILIES = new Set(
  'serif sans-serif monospace cursive fantasy system-ui ui-serif ui-sans-serif ui-monospace ui-rounded math emoji'.split(
    ' ',
  ),
);

/** The name of a family as CSS writes it. */
export function family(name: string): string {
  return GENERIC_FAMILIES.has(name) || /^[A-Za-z][A-Za-z0-9-]*$/.test(name)
    ? cssIdentifier(name)
    : cssString(name);
}
