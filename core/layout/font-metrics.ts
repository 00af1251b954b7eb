/** What of a font decides how text is laid out, as shares of the font size. */
export interface FontMetrics {
  /** Whether they are those of the very font; else they are what most fonts come to. */
  readonly isMeasured: boolean;
  readonly ascent: number;
  readonly descent: number;
  readonly lineGap: number;
  /** Mean advance of a character of running text, for those that are not listed. */
  readonly advance: number;
  /** What kerning leaves of a running text, on average. */
  readonly kerned: number;
  /** Advance of every figure where they are of one width. */
  readonly figure: number;
  /** Advances of the printable characters of ASCII in thousandths of the font size, by weight. */
  readonly advances: Readonly<Record<number, readonly number[]>>;
}

const generic = (advance: number): FontMetrics => ({
  isMeasured: false,
  ascent: 0.928,
  descent: 0.236,
  lineGap: 0,
  advance,
  kerned: 1,
  figure: 0.636,
  advances: {},
});

const ATKINSON_HYPERLEGIBLE_NEXT: FontMetrics = {
  isMeasured: true,
  ascent: 0.984,
  descent: 0.316,
  lineGap: 0,
  advance: 0.47,
  kerned: 0.9955,
  figure: 0.632,
  advances: {
    400: [
      280, 286, 301, 651, 592, 919, 731, 160, 299, 299, 485, 606, 210, 362, 210, 387, 648, 407, 548, 576, 614,
      588, 598, 510, 615, 595, 210, 210, 553, 628, 553, 480, 778, 626, 613, 645, 669, 569, 552, 694, 694, 392,
      512, 631, 541, 824, 693, 714, 592, 724, 614, 592, 558, 690, 593, 856, 623, 575, 607, 317, 387, 344, 552,
      372, 243, 525, 566, 485, 564, 538, 314, 558, 550, 252, 245, 492, 262, 845, 550, 548, 566, 574, 349, 471,
      326, 540, 461, 684, 481, 449, 460, 344, 237, 344, 555,
    ],
    600: [
      303, 298, 362, 730, 604, 953, 727, 195, 324, 324, 485, 598, 252, 369, 253, 424, 656, 430, 569, 592, 621,
      602, 617, 529, 621, 578, 253, 253, 564, 617, 564, 526, 780, 662, 634, 654, 683, 589, 562, 711, 699, 415,
      546, 654, 548, 848, 710, 737, 617, 747, 639, 604, 592, 687, 628, 877, 666, 627, 615, 333, 424, 344, 573,
      391, 274, 544, 587, 502, 586, 555, 349, 582, 565, 285, 255, 536, 301, 870, 565, 567, 587, 591, 368, 497,
      360, 559, 509, 723, 522, 499, 492, 370, 249, 370, 543,
    ],
  },
};

/** Measured once in a browser, by family; what is not listed is reckoned as its generic family, or as the last resort. */
const MEASURED: Readonly<Record<string, FontMetrics>> = {
  'atkinson hyperlegible next variable': ATKINSON_HYPERLEGIBLE_NEXT,
  'atkinson hyperlegible next': ATKINSON_HYPERLEGIBLE_NEXT,
  'system-ui': generic(0.53),
  'sans-serif': generic(0.53),
  serif: generic(0.53),
  monospace: generic(0.602),
};
const LAST_RESORT = MEASURED['sans-serif']!;

/** Metrics of the first family in a list that is known. */
export function metricsOf(families: string): FontMetrics {
  for (const family of families.split(',')) {
    const name = family
      .trim()
      .replace(/^["']|["']$/g, '')
      .toLowerCase();
    const known = Object.hasOwn(MEASURED, name) ? MEASURED[name] : undefined;
    if (known) return known;
  }
  return LAST_RESORT;
}

const FIRST = 32;

/** How a text is set, as far as its width follows from it. */
export interface Setting {
  readonly weight: number;
  /** Whether all figures are of one width. */
  readonly isTabular: boolean;
}

/** Advance of a text, as a share of the font size. */
export function advanceOf(
  text: string,
  { advance, advances, kerned, figure }: FontMetrics,
  { weight, isTabular }: Setting,
): number {
  const weights = Object.keys(advances).map(Number);
  const nearest = weights.sort((a, b) => Math.abs(a - weight) - Math.abs(b - weight))[0];
  const table = nearest === undefined ? [] : advances[nearest]!;
  let sum = 0;
  for (const character of text) {
    const known = table[character.codePointAt(0)! - FIRST];
    const own = known === undefined ? advance : known / 1000;
    sum += isTabular && /\d/.test(character) ? figure : own;
  }
  return sum * kerned;
}
