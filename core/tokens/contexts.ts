import { nearest } from '../text/suggestions';
import { type DeclaredGroup } from './token-tree';

/** A modifier and its contexts, in the document's order. */
export interface Modifier {
  readonly name: string;
  readonly contexts: readonly string[];
  /** `null` when the document gives none: then every input must name a context. */
  readonly default: string | null;
  /** Media query in which a context holds where the page names none, by context. */
  readonly media: ReadonlyMap<string, string>;
  /** Whether a context is light or dark, where that is known: it is stated, or its media query asks for it. */
  readonly colorScheme: ReadonlyMap<string, ColorScheme>;
}

export type ColorScheme = 'light' | 'dark';

/** One context for each modifier: `{ theme: 'night' }`. */
export interface ContextInput {
  readonly [modifier: string]: string;
}

/** A modifier that cannot be chosen as asked. */
export class ContextError extends Error {
  constructor(
    message: string,
    readonly suggestion?: string,
  ) {
    super(message);
    this.name = 'ContextError';
  }
}

/** Fills in defaults. Throws `ContextError` for an unknown modifier or context, or one that is missing with no default. */
export function completeInput(modifiers: readonly Modifier[], input: ContextInput): ContextInput {
  const names = modifiers.map(modifier => modifier.name);
  for (const name of Object.keys(input)) {
    if (!names.includes(name))
      throw new ContextError(`There is no modifier “${name}”.`, nearest(name, names));
  }
  return Object.fromEntries(
    modifiers.map(modifier => {
      const chosen = input[modifier.name] ?? modifier.default;
      if (chosen === null)
        throw new ContextError(`“${modifier.name}” has no default: name one of its contexts.`);
      if (!modifier.contexts.includes(chosen)) {
        throw new ContextError(
          `“${chosen}” is no context of ${modifier.name}.`,
          nearest(chosen, modifier.contexts),
        );
      }
      return [modifier.name, chosen];
    }),
  );
}

/** One step of the order in which tokens are merged. */
export interface Layer {
  /** The modifier this layer belongs to, or `null` for a plain set. */
  readonly modifier: string | null;
  /** Trees per context; the empty name for a plain set. */
  readonly trees: ReadonlyMap<string, DeclaredGroup>;
}
