import type { ContextInput, Modifier } from '../../tokens/contexts';
import type { TokenModel } from '../../tokens/token-model';
import type { TokenSet } from '../../tokens/token-set';
import { variableName, variableText, type TokenVariable, type VariableGraph } from './token-variables';

/** How a custom property depends on the modifiers. */
export interface Dependence {
  readonly name: string;
  /** Modifiers by which its own text differs, in their order. */
  readonly differsBy: readonly string[];
  /** Those, and the ones by which anything it refers to differs, however indirectly. */
  readonly dependsOn: readonly string[];
  /** Whether its text refers to another custom property. */
  readonly refers: boolean;
  /** Whether the contexts of `differsBy` are so many together that they cannot be written one by one. */
  readonly tooMany: boolean;
  readonly variable: TokenVariable;
  /** Its text in a context; `null` where the token is not there. */
  readonly text: (input: ContextInput) => string | null;
  readonly usual: ContextInput;
}

/**
 * More contexts than these are neither compared nor written one by one; where there may be more, every modifier that may
 * matter counts as one that does.
 */
export const MAX_TOGETHER = 1024;

/** The dependence of each variable of a graph, in its order. */
export function dependences(tokens: TokenModel, graph: VariableGraph, prefix: string): Dependence[] {
  const usual = tokens.usualInput();
  const sets = tokens.everyContext();
  const differing = new Map<string, readonly string[]>();
  for (const [id, { variable }] of graph) {
    const candidates = candidateModifiers(tokens, variable.key, sets);
    const own = tokens.modifiers.filter(({ name }) => candidates.has(name));
    differing.set(id, differsBy(variable, own, tokens, prefix));
  }
  const depending = spread(graph, id => new Set(differing.get(id)));
  return [...graph].flatMap(([id, { variable, refersTo }]) => {
    const name = someName(variable, tokens, prefix);
    if (name === null) return [];
    return [
      {
        name,
        differsBy: differing.get(id)!,
        refers: refersTo.length > 0,
        tooMany:
          contextsOf(tokens.modifiers.filter(each => differing.get(id)!.includes(each.name))) > MAX_TOGETHER,
        variable,
        dependsOn: tokens.modifiers
          .map(modifier => modifier.name)
          .filter(each => depending.get(id)!.has(each)),
        text: input => variableText(variable, tokens.in(input), prefix),
        usual,
      },
    ];
  });
}

/** How many contexts some modifiers make together. */
const contextsOf = (modifiers: readonly Modifier[]): number =>
  modifiers.reduce((product, { contexts }) => product * contexts.length, 1);

/** A variable's name; a token may be there in some contexts only. */
function someName(variable: TokenVariable, tokens: TokenModel, prefix: string): string | null {
  for (const set of tokens.everyContext()) {
    const name = variableName(variable, set, prefix);
    if (name !== null) return name;
  }
  return null;
}

/** Modifiers that may have a say in a variable's text: those that declare its token, or anything that it refers to. */
function candidateModifiers(tokens: TokenModel, key: string, sets: readonly TokenSet[]): Set<string> {
  const keys = new Set([key]);
  // A set hands out what is added while it is walked through.
  for (const each of keys)
    for (const set of sets) for (const target of set.byKey.get(each)?.refersTo ?? []) keys.add(target);
  return new Set([...keys].flatMap(each => [...tokens.declaredBy(each)]));
}

/** For each variable the union of what it has itself and what all have that it refers to. */
function spread(graph: VariableGraph, own: (id: string) => Set<string>): Map<string, Set<string>> {
  const all = new Map([...graph.keys()].map(id => [id, own(id)]));
  for (let grown = true; grown;) {
    grown = false;
    for (const [id, { refersTo }] of graph) {
      const mine = all.get(id)!;
      const before = mine.size;
      for (const other of refersTo) all.get(other)?.forEach(name => mine.add(name));
      grown ||= mine.size > before;
    }
  }
  return all;
}

/** Which of some modifiers make a difference to a variable's text in some context. */
function differsBy(
  variable: TokenVariable,
  modifiers: readonly Modifier[],
  tokens: TokenModel,
  prefix: string,
): string[] {
  if (contextsOf(modifiers) > MAX_TOGETHER) return modifiers.map(modifier => modifier.name);
  const inputs = modifiers.reduce<ContextInput[]>(
    (all, { name, contexts }) =>
      all.flatMap(input => contexts.map(context => ({ ...input, [name]: context }))),
    [tokens.usualInput()],
  );
  const textOf = new Map(
    inputs.map(input => [JSON.stringify(input), variableText(variable, tokens.in(input), prefix)]),
  );
  return modifiers
    .filter(({ name, contexts }) =>
      inputs.some(input => {
        const here = textOf.get(JSON.stringify(input));
        return contexts.some(context => textOf.get(JSON.stringify({ ...input, [name]: context })) !== here);
      }),
    )
    .map(modifier => modifier.name);
}
