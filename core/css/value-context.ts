import type { TokenSet } from '../tokens/token-set';

/** What values are worked out against. */
export interface ValueContext {
  readonly tokens: TokenSet;
  /** CSS px per rem. */
  readonly rootFontSize: number;
}
