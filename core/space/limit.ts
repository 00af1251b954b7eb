import type { Box } from './box';

/** A limit over a space's axes: inside `region`, each axis counts as the first allowed value when it is not allowed. */
export interface Limit {
  /** Place in the document. */
  readonly index: number;
  readonly region: Box;
  readonly holds: readonly { readonly axis: number; readonly allowed: number; readonly first: number }[];
  readonly because: string;
}

/** Limits as far as they decide. */
export type LimitRegion = Pick<Limit, 'region' | 'holds'>;
