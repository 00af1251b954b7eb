/** An error as it passes between threads, with what tells the database's errors from others. */
export interface PlainError {
  readonly name: string;
  readonly message: string;
  readonly stack: string;
  readonly code?: string;
  readonly sqlState?: string;
  readonly syscall?: string;
  readonly fatal?: boolean;
  readonly cause?: PlainError;
}

const MEMBERS = ['code', 'sqlState', 'syscall', 'fatal'] as const;

export function plainError(error: unknown): PlainError {
  if (!(error instanceof Error)) return { name: typeof error, message: '', stack: '' };
  const { name, message, stack = '', cause } = error;
  const said = MEMBERS.flatMap(member => {
    const value = (error as unknown as Record<string, unknown>)[member];
    return value === undefined ? [] : [[member, value] as const];
  });
  return {
    name,
    message,
    stack,
    ...Object.fromEntries(said),
    ...(cause === undefined ? {} : { cause: plainError(cause) }),
  };
}

export function errorOf({ cause, ...members }: PlainError): Error {
  const error = Object.assign(new Error(members.message), members);
  return cause ? Object.assign(error, { cause: errorOf(cause) }) : error;
}
