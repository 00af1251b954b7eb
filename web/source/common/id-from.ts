import { plainLetters } from '@periwinkle/core/text/transliteration';

/** An id that says what a title says; empty where none of its letters can stand in one. */
export const idFrom = (title: string): string =>
  plainLetters(title)
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 40);
