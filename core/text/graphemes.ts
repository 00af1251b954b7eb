const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** What people count as characters, in any script, one after the other. */
export const graphemesOf = (text: string): string[] =>
  [...segmenter.segment(text)].map(({ segment }) => segment);

/** How many there are. */
export const lengthOf = (text: string): number => graphemesOf(text).length;

/** The first of them; empty where there is none. Does not look at the rest. */
export const firstGrapheme = (text: string): string =>
  segmenter.segment(text)[Symbol.iterator]().next().value?.segment ?? '';
