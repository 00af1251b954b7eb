import { QUOTAS } from '../json/quotas';
/** The shortest decimal of at most `places` places, never an exponent, never `-0`. */
export function shortDecimal(value: number, places = 4): string {
  const text = value
    .toFixed(places)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '');
  return text === '-0' ? '0' : text;
}

/** Nothing in it needs escaping. */
const PLAIN = /^-{0,2}[A-Za-z_][\w-]*$/;

/** An identifier as CSS writes it (CSSOM, "serialize an identifier"). */
export function cssIdentifier(name: string): string {
  if (PLAIN.test(name)) return name;
  let result = '';
  const chars = [...name];
  chars.forEach((char, index) => {
    const code = char.codePointAt(0)!;
    const leadingDigit = /[0-9]/.test(char) && (index === 0 || (index === 1 && chars[0] === '-'));
    if (code === 0) result += '\uFFFD';
    else if (code < 0x20 || code === 0x7f || leadingDigit) result += `\\${code.toString(16)} `;
    else if (char === '-' && chars.length === 1) result += '\\-';
    else if (code >= 0x80 || /[A-Za-z0-9_-]/.test(char)) result += char;
    else result += `\\${char}`;
  });
  return result;
}

/** A string as CSS writes it (CSSOM, "serialize a string"); `<` is escaped too, so that it can stand inside a style element. */
export function cssString(text: string): string {
  const body = [...text]
    .map(char => {
      const code = char.codePointAt(0)!;
      if (code === 0) return '\uFFFD';
      if (code < 0x20 || code === 0x7f || char === '<') return `\\${code.toString(16)} `;
      return char === '"' || char === '\\' ? `\\${char}` : char;
    })
    .join('');
  return `"${body}"`;
}

/** Whether brackets stand within one another more often than any real text of CSS has them; strings count too. */
export function isDeeplyBracketed(css: string): boolean {
  let depth = 0;
  for (const letter of css) {
    if (letter === '(' || letter === '[' || letter === '{') depth++;
    else if (letter === ')' || letter === ']' || letter === '}') depth--;
    if (depth > QUOTAS.brackets) return true;
  }
  return false;
}
