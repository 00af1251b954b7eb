import type { System } from '../components/system';
import { inFile, ProblemList, type Problem } from '../json/problem';
import { Suggestions } from '../text/suggestions';

/** Colours of the page that are no tokens. */
export function pageProblems({ page, tokens }: System): Problem[] {
  const { byKey, unresolved } = tokens.usual();
  return (['surface', 'ink'] as const).flatMap(name => {
    const key = page[name];
    const token = key === null ? undefined : byKey.get(key);
    if (key === null || token?.type === 'color' || unresolved.has(key)) return [];
    const list = new ProblemList();
    const near = token
      ? undefined
      : new Suggestions([...byKey.values()].flatMap(each => (each.type === 'color' ? each.key : []))).nearest(
          key,
        );
    const fault = token ? `{${key}} is a ${token.type}, no color.` : `There is no token {${key}}.`;
    list.error(`/page/${name}`, token ? 'wrong-type' : 'unknown-token', fault, near && `{${near}}`, key);
    return inFile('system.json', list.problems);
  });
}
