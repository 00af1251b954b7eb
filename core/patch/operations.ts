/** An operation of a JSON Patch (RFC 6902). */
export type PatchOperation =
  | { readonly op: 'add' | 'replace'; readonly path: string; readonly value: unknown }
  | { readonly op: 'remove'; readonly path: string }
  | MoveOperation
  | { readonly op: 'copy'; readonly path: string; readonly from: string }
  | TestOperation;

/** What must be there for the rest of the patch to be applied. */
export interface TestOperation {
  readonly op: 'test';
  readonly path: string;
  readonly value: unknown;
}

export interface MoveOperation {
  readonly op: 'move';
  readonly path: string;
  readonly from: string;
}

export type Patch = readonly PatchOperation[];

/** A patch that cannot be applied: which operation, where, and why. */
export class PatchError extends Error {
  constructor(
    readonly index: number,
    readonly path: string,
    reason: string,
  ) {
    super(`Operation ${index} at “${path}”: ${reason}`);
    this.name = 'PatchError';
  }
}
