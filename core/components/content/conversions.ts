/** How what a source gives becomes text, by the names that `as` knows (ECMA-402 does the work; English, as samples are). */
export const CONVERSIONS: Readonly<Record<string, (given: string) => string>> = {
  'currency-sign': code => {
    try {
      const format = new Intl.NumberFormat('en', {
        style: 'currency',
        currency: code,
        currencyDisplay: 'narrowSymbol',
      });
      return format.formatToParts(0).find(({ type }) => type === 'currency')?.value ?? code;
    } catch {
      // What is no currency's code stands as it is.
      return code;
    }
  },
  'upper-case': text => text.toLocaleUpperCase('en'),
  count: text => (isNumber(text) ? new Intl.NumberFormat('en').format(Number(text)) : text),
  'time-12': text => {
    const time = readTime(text);
    if (!time) return text;
    const [hours, minutes] = time;
    return `${hours % 12 === 0 ? 12 : hours % 12}:${two(minutes)} ${hours < 12 ? 'am' : 'pm'}`;
  },
  'time-24': text => {
    const time = readTime(text);
    return time ? `${two(time[0])}:${two(time[1])}` : text;
  },
};

const isNumber = (text: string): boolean => text.trim() !== '' && Number.isFinite(Number(text));

const two = (number: number): string => String(number).padStart(2, '0');

/** Hours from 0 to 23 and minutes, written either way; `null` for anything else. */
function readTime(text: string): readonly [hours: number, minutes: number] | null {
  const found = /^\s*(\d{1,2}):(\d{2})(?::\d{2}(?:\.\d+)?)?\s*(am|pm)?\s*$/i.exec(text);
  if (!found) return null;
  const [, written, minutes, half] = found;
  const hours = Number(written);
  if (Number(minutes) > 59 || hours > (half ? 12 : 23) || (half && hours === 0)) return null;
  if (!half) return [hours, Number(minutes)];
  return [(hours % 12) + (half.toLowerCase() === 'pm' ? 12 : 0), Number(minutes)];
}
