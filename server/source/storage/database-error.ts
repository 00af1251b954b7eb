/** The database cannot be used; the message is one line that says what to do. */
export class DatabaseError extends Error {}

/** What the database said went wrong, by its name there. */
export const causeCode = (error: unknown): string | undefined => causeOf(error).code;

export const causeOf = (error: unknown) =>
  ((error as { cause?: unknown }).cause ?? error) as { readonly code?: string; readonly message?: string };
