import type { PendingEdit } from './working-copy';

/** An edit that could not be placed, and why, in words. It is kept until whoever made it has seen to it. */
export interface Unplaced {
  readonly edit: PendingEdit;
  readonly reason: string;
}
