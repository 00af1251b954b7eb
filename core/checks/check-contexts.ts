import { dependences, MAX_TOGETHER } from '../output/tokens/context-dependence';
import { usedVariables } from '../output/tokens/token-variables';
import { ProblemList, type Problem } from '../json/problem';
import type { System } from '../components/system';

/** Tokens in which so many modifiers have a say together that no stylesheet can hold all their contexts. */
export function contextProblems(system: System): Problem[] {
  const { tokens } = system;
  if (tokens.contextCount() <= MAX_TOGETHER) return [];
  const graph = usedVariables(system, tokens.everyContext());
  const { byKey } = tokens.usual();
  const told = new Set<string>();
  return dependences(tokens, graph, system.prefix).flatMap(({ variable, differsBy, tooMany }) => {
    const token = byKey.get(variable.key);
    // Several members of a composite token may be in use.
    if (!tooMany || !token || told.has(token.key)) return [];
    told.add(token.key);
    const list = new ProblemList();
    list.error(
      token.origin.pointer,
      'too-many-contexts',
      `${token.key} depends on ${differsBy.length} modifiers together (${differsBy.join(', ')}), in more than ` +
        `${MAX_TOGETHER.toLocaleString('en')} contexts, which no stylesheet can hold. Let fewer of them declare it.`,
    );
    return [{ file: token.origin.file, ...list.problems[0]! }];
  });
}
