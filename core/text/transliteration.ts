/** Latin letters that are no letter with a mark, as those who cannot type them write them. */
const LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ł: 'l',
  ħ: 'h',
  ı: 'i',
  ŋ: 'ng',
};
const UNMARKED = new RegExp(`[${Object.keys(LETTERS).join('')}]`, 'gi');

/** A text with its Latin letters as those of ASCII: marks go, and what stands for two letters becomes two. Other letters stay. */
export const plainLetters = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(UNMARKED, letter => {
      const plain = LETTERS[letter.toLowerCase()]!;
      return letter === letter.toLowerCase() ? plain : plain[0]!.toUpperCase() + plain.slice(1);
    });
