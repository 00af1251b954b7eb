import { rawObject } from './raw-json';
import type { Refusal } from './refusal';

/** A refusal as a problem document (RFC 9457); with the id under which the log has more, where it does. */
export const problemText = (refusal: Refusal, id: string | null = null): string =>
  rawObject({
    type: `urn:periwinkle:problem:${refusal.kind}`,
    title: refusal.title,
    status: refusal.status,
    detail: refusal.detail,
    ...(id === null ? {} : { instance: `urn:uuid:${id}` }),
    ...refusal.extra,
  }).text;
