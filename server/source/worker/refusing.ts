import { newErrors } from '@periwinkle/core/checks/new-errors';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { Problem } from '@periwinkle/core/json/problem';
import { Refusal } from '../http/refusal';
import { bodiesOf, type StoredDocument } from './parsed-documents';

/** Documents with errors, the first of them told one by one. */
export function invalid(title: string, errors: readonly Problem[]): Refusal {
  const problems = errors.slice(0, QUOTAS.problemsTold);
  const rest = errors.length - problems.length;
  return new Refusal(422, 'invalid-document', title, errors[0]!.message, {
    problems,
    ...(rest > 0 ? { more: rest } : {}),
  });
}

/** Refuses documents that would bring in an error that was not there before, or be too many. */
export function refuseNewErrors(
  before: ReadonlyMap<string, StoredDocument>,
  changed: readonly StoredDocument[],
): void {
  const now = new Map(before);
  for (const document of changed) now.set(document.path, document);
  refuseMore(sizeOf(before.values()), sizeOf(now.values()));
  const added = newErrors(bodiesOf(before.values()), bodiesOf(now.values()));
  if (added.length > 0) throw invalid('The edit would break the system', added);
}

export interface Size {
  readonly documents: number;
  readonly letters: number;
}

export const sizeOf = (all: Iterable<StoredDocument>): Size => {
  const present = [...all].filter(({ body }) => body !== null);
  return { documents: present.length, letters: present.reduce((sum, { letters }) => sum + letters, 0) };
};

/** Refuses a system that grows beyond the documents that one may have. */
export function refuseMore(before: Size, now: Size): void {
  if (now.documents > QUOTAS.documents && now.documents > before.documents)
    throw new Refusal(
      413,
      'too-many-documents',
      'Too many documents',
      `A system may have ${QUOTAS.documents} documents; this would make ${now.documents}.`,
    );
}

/** Refuses a system whose documents grow beyond the letters that they may have. */
export function refuseLonger(before: Size, now: Size): void {
  if (now.letters > QUOTAS.systemLetters && now.letters > before.letters)
    throw new Refusal(
      413,
      'too-large',
      'Too large',
      `The documents of a system may have ${QUOTAS.systemLetters} letters together; this would make ${now.letters}.`,
    );
}
