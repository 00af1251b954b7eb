import type { Documents } from '../documents/document-kinds';
import { QUOTAS } from '../json/quotas';
import type { Problem } from '../json/problem';
import { completeInput, ContextError, type ContextInput, type Modifier } from './contexts';
import { mergedTree, readResolver, type ResolverDocument } from './resolver';
import { declarationsOf, type TokenDeclarations } from './token-declarations';
import { resolveTokens, type TokenSet } from './token-set';

/** So many contexts are looked at one by one. */
const MAX_CONTEXTS = 64;

/** The tokens of a system in all its contexts; each context is resolved when first asked for, then kept. */
export class TokenModel {
  private readonly resolver: ResolverDocument;
  private readonly sets = new Map<string, TokenSet>();
  private faults: readonly Problem[] | null = null;
  private all: readonly TokenSet[] | null = null;
  private usualSet: TokenSet | null = null;
  /** What was resolved last: most tokens of another context are declared as in this one, and taken over from it. */
  private latest: TokenSet | undefined;
  private declarations: TokenDeclarations | null = null;
  private readonly setsBefore: ReadonlyMap<string, TokenSet>;

  constructor(
    documents: Documents,
    resolverPath: string | undefined,
    /** An earlier state, whose tokens are taken over where nothing that they depend on has changed. */
    before?: TokenModel,
  ) {
    this.setsBefore = before?.sets ?? new Map();
    this.resolver = readResolver(documents, resolverPath);
  }

  get modifiers(): readonly Modifier[] {
    return this.resolver.modifiers;
  }

  /** Tokens of a context; missing modifiers take their default. Throws `ContextError`. */
  in(input: ContextInput = {}): TokenSet {
    const complete = completeInput(this.modifiers, input);
    const key = JSON.stringify(complete);
    let set = this.sets.get(key);
    if (!set) {
      set = resolveTokens(mergedTree(this.resolver, complete), this.setsBefore.get(key) ?? this.latest);
      this.latest = set;
      this.sets.set(key, set);
    }
    return set;
  }

  /** The default context; a modifier without a default takes its first context here. */
  usual(): TokenSet {
    return (this.usualSet ??= this.in(this.usualInput()));
  }

  usualInput(): ContextInput {
    return Object.fromEntries(
      this.modifiers.map(({ name, contexts, default: preset }) => [name, preset ?? contexts[0] ?? '']),
    );
  }

  /** For one modifier: the token set of each of its contexts, all others as usual or as given. */
  along(modifier: Modifier, others: ContextInput = this.usualInput()): Map<string, TokenSet> {
    return new Map(
      modifier.contexts.map(context => [context, this.in({ ...others, [modifier.name]: context })]),
    );
  }

  /** The usual token set and those that differ from it in one modifier, each once. */
  alongEach(): readonly TokenSet[] {
    return [
      ...new Set([this.usual(), ...this.modifiers.flatMap(modifier => [...this.along(modifier).values()])]),
    ];
  }

  /** The token sets of all contexts; where these are too many, along each modifier only. */
  everyContext(): readonly TokenSet[] {
    this.all ??= this.everyInput().map(input => this.in(input));
    return this.all;
  }

  private everyInput(): ContextInput[] {
    return this.contextCount() <= MAX_CONTEXTS
      ? this.modifiers.reduce<ContextInput[]>(
          (inputs, { name, contexts }) =>
            inputs.flatMap(input => contexts.map(context => ({ ...input, [name]: context }))),
          [{}],
        )
      : this.modifiers.flatMap(({ name, contexts }) =>
          contexts.map(context => ({ ...this.usualInput(), [name]: context })),
        );
  }

  /** The modifiers some context of which declares a token, or a token or group that it has its value from by `$extends`. */
  declaredBy(key: string): ReadonlySet<string> {
    this.declarations ??= declarationsOf(this.resolver.layers);
    return this.declarations.by(key);
  }

  /** How many contexts there are in all. */
  contextCount(): number {
    return this.modifiers.reduce((product, modifier) => product * modifier.contexts.length, 1);
  }

  /** Everything wrong in any context, each problem once. */
  problems(): readonly Problem[] {
    return (this.faults ??= this.findProblems());
  }

  private findProblems(): Problem[] {
    const found = new Map<string, Problem>();
    const add = (problem: Problem): void => {
      found.set(`${problem.file} ${problem.pointer} ${problem.code} ${problem.message}`, problem);
    };
    this.resolver.problems.forEach(add);
    // What is wrong only where two modifiers meet is wrong too.
    const looked = new Set<TokenSet>();
    for (const input of this.everyInput()) {
      if (found.size > QUOTAS.problemsFound) break;
      if (!this.usable(input)) continue;
      const set = this.in(input);
      if (!looked.has(set)) set.problems.forEach(add);
      looked.add(set);
    }
    return [...found.values()];
  }

  private usable(input: ContextInput): boolean {
    try {
      completeInput(this.modifiers, input);
      return true;
    } catch (error) {
      if (error instanceof ContextError) return false;
      throw error;
    }
  }
}
