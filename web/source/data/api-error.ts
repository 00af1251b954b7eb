import type { Problem } from '@periwinkle/core/json/problem';
import type { StoredEdit } from '@periwinkle/protocol/wire';

/** Refusals that say no more than: later. */
const LATER = new Set([408, 425, 429]);

/** An answer that is an error (RFC 9457), or no answer at all (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly body: {
      readonly type?: string;
      readonly detail?: string;
      readonly problems?: readonly Problem[];
      readonly since?: readonly StoredEdit[];
      /** The change that stands in the way; `null` where it was not found. */
      readonly obstacle?: { readonly label: string } | null;
    } = {},
  ) {
    super(detail);
    this.name = 'ApiError';
  }

  /** Whether trying again later may help: whatever is no refusal with a reason. */
  get passing(): boolean {
    const isRefusal = this.status >= 400 && this.status < 500 && !LATER.has(this.status);
    return !isRefusal || this.body.detail === undefined;
  }
}
