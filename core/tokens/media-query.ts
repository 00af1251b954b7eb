import { generate, parse } from 'css-tree';
import { isDeeplyBracketed } from '../text/css-text';
import { QUOTAS } from '../json/quotas';

/** A media query as CSS writes it; `null` for any other text. */
export function mediaQuery(text: string): string | null {
  if (/[{};<]|\/\*/.test(text) || text.trim() === '') return null;
  if (text.length > QUOTAS.mediaQueryLetters || isDeeplyBracketed(text)) return null;
  try {
    let faulty = false;
    const tree = parse(text, { context: 'mediaQueryList', onParseError: () => (faulty = true) });
    return faulty ? null : generate(tree);
  } catch {
    // Where it cannot go on at all, the parser throws.
    return null;
  }
}
