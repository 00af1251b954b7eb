import { generate, parse } from 'css-tree';

/** A media query as CSS writes it; `null` for any other text. */
export function mediaQuery(text: string): string | null {
  if (/[{};<]|\/\*/.test(text) || text.trim() === '') return null;
  let faulty = false;
  const tree = parse(text, { context: 'mediaQueryList', onParseError: () => (faulty = true) });
  return faulty ? null : generate(tree);
}
