import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import type { Token, TokenSet } from '@periwinkle/core/tokens/token-set';
import type { TokenModel } from '@periwinkle/core/tokens/token-model';

interface ContextColumn {
  readonly title: string;
  readonly set: TokenSet;
}

/** A modifier with a column for each of its contexts, all other modifiers as they are chosen for the previews. */
export interface ContextColumns {
  /** Empty where a system has no modifiers, and a single column. */
  readonly modifier: string;
  readonly columns: readonly ContextColumn[];
}

export function contextColumns(tokens: TokenModel, chosen: ContextInput): readonly ContextColumns[] {
  if (tokens.modifiers.length === 0)
    return [{ modifier: '', columns: [{ title: 'value', set: tokens.usual() }] }];
  return tokens.modifiers.map(modifier => ({
    modifier: modifier.name,
    columns: [...tokens.along(modifier, chosen)].map(([title, set]) => ({ title, set })),
  }));
}

/** A cell of a token's line: in what column it begins, over how many it goes, and what stands in it. */
export interface TokenCell {
  readonly key: string;
  readonly width: number;
  readonly token: Token | null;
  /** The context that it is about; empty where it is about all. */
  readonly context: string;
}

/**
 * A token in each context: only the modifiers that choose among its declarations have cells of their own. Where none does,
 * one cell goes over all.
 */
export function tokenCells(key: string, groups: readonly ContextColumns[]): readonly TokenCell[] {
  const valued = groups.map(({ modifier, columns }) => {
    const tokens = columns.map(({ set }) => set.byKey.get(key) ?? null);
    return { modifier, columns, tokens, chooses: tokens.some(token => !sameDeclaration(token, tokens[0]!)) };
  });
  if (!valued.some(({ chooses }) => chooses)) {
    const width = groups.reduce((sum, { columns }) => sum + columns.length, 0);
    return [{ key: '', width, token: valued[0]?.tokens[0] ?? null, context: '' }];
  }
  return valued.flatMap(({ modifier, columns, tokens, chooses }): TokenCell[] =>
    chooses
      ? columns.map(({ title }, index) => ({
          key: `${modifier} ${title}`,
          width: 1,
          token: tokens[index]!,
          context: title,
        }))
      : [{ key: modifier, width: columns.length, token: null, context: '' }],
  );
}

const sameDeclaration = (a: Token | null, b: Token | null): boolean =>
  a?.origin.file === b?.origin.file && a?.origin.pointer === b?.origin.pointer;
