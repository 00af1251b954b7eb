import type { Watched } from './computing';
import type { PlainError } from './plain-errors';
import type { TaskName } from './tasks';

/** What passes between the server and its threads; plain data all of it. */

export interface WorkerSettings {
  readonly databaseUrl: string;
  readonly watched: Watched;
  /** Whether it is for what may take long, and gives way to others. */
  readonly isHeavy: boolean;
}

export interface WorkRequest {
  readonly id: number;
  readonly name: TaskName;
  /** Whether it may take long, so that it is to hold nobody up. */
  readonly isHeavy: boolean;
  /** Whether it is worked out by itself before its system is held. */
  readonly isAlone: boolean;
  readonly input: unknown;
}

/** What has come of it, and how long it was computed for, in milliseconds. */
export type WorkAnswer = { readonly id: number; readonly ms: number } & (
  | { readonly done: object }
  /** Answered with a problem document that is written already. */
  | { readonly refused: { readonly status: number; readonly text: string } }
  /** Not done: it is to be asked as heavy, or whatever is asked of its system. */
  | { readonly tooHeavy: 'request' | 'system' }
  | { readonly failed: PlainError }
);
