/** The ten digits of a locale's own numbering, in order. */
export function digitsOf(locale: string): readonly string[] {
  const format = new Intl.NumberFormat(locale, { useGrouping: false });
  return [...'0123456789'].map(digit => format.format(Number(digit)));
}

/** A text with a locale's own digits written as those of ASCII. */
export function withPlainDigits(text: string, locale: string): string {
  const digits = digitsOf(locale);
  return [...text].map(each => (digits.includes(each) ? String(digits.indexOf(each)) : each)).join('');
}

/** Whether there is such a locale (BCP 47). */
export function isLocale(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}
