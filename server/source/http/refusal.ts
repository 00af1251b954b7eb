import type { Problem } from '@periwinkle/core/json/problem';

/** A request that is answered with an error, in the terms of RFC 9457 (problem details). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    /** Last part of the problem's type URI. */
    readonly kind: string,
    readonly title: string,
    readonly detail: string,
    readonly extra: { readonly problems?: readonly Problem[]; readonly [member: string]: unknown } = {},
  ) {
    super(detail);
    this.name = 'Refusal';
  }
}

export const notFound = (detail: string): Refusal => new Refusal(404, 'not-found', 'Not found', detail);

export const busy = (): Refusal =>
  new Refusal(
    503,
    'busy',
    'Too much at once',
    'So much was asked at the same time that this was not begun. Ask again in a moment.',
  );

/** What was thrown, where it is a refusal; anything else is thrown again. */
export function asRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  throw error;
}

/** A refusal from another thread, where its problem document has been written. */
export class WrittenRefusal extends Error {
  constructor(
    readonly status: number,
    readonly text: string,
  ) {
    super('Refused');
  }
}
