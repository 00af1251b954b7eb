/** How bad: an `error` makes some output wrong or impossible, a `warning` is worth a look. */
export type Severity = 'error' | 'warning';

/** Something wrong in a document, at a place one can go to. */
export interface Problem {
  /** Path of the document inside the system's folder, e.g. `components/text-field.component.json`. */
  readonly file: string;
  /** JSON Pointer (RFC 6901) into that document; `""` for the whole. */
  readonly pointer: string;
  readonly severity: Severity;
  /** Stable name of the kind of problem, e.g. `unknown-property`. */
  readonly code: string;
  readonly message: string;
  /** What was probably meant, ready to put in the place of what is there. */
  readonly suggestion?: string;
  /** The name that is missing or not known, by which problems that only follow from others are recognised. */
  readonly about?: string;
}

/** A problem before it is known which document it stands in. */
export type LocalProblem = Omit<Problem, 'file'>;

/** Puts a list of local problems into a document. */
export function inFile(file: string, problems: readonly LocalProblem[]): Problem[] {
  return problems.map(problem => ({ file, ...problem }));
}

/** Collects problems for one document; each method returns nothing so that checks read as statements. */
export class ProblemList {
  readonly problems: LocalProblem[] = [];

  error(pointer: string, code: string, message: string, suggestion?: string, about?: string): void {
    this.add('error', pointer, code, message, suggestion, about);
  }

  warning(pointer: string, code: string, message: string, suggestion?: string, about?: string): void {
    this.add('warning', pointer, code, message, suggestion, about);
  }

  /** Takes over problems that another list has found. */
  take(problems: readonly LocalProblem[]): void {
    // One by one: a call takes only so many arguments.
    for (const problem of problems) this.problems.push(problem);
  }

  private add(
    severity: Severity,
    pointer: string,
    code: string,
    message: string,
    suggestion: string | undefined,
    about: string | undefined,
  ): void {
    this.problems.push({
      pointer,
      severity,
      code,
      message,
      ...(suggestion === undefined ? {} : { suggestion }),
      ...(about === undefined ? {} : { about }),
    });
  }
}

/** `a, b or c`, for messages that list what would have been right; `nothing` where nothing would. */
export function oneOf(names: readonly string[], most = 8): string {
  if (names.length === 0) return 'nothing';
  const shown = names.slice(0, most);
  if (names.length > most) return `${shown.join(', ')} and ${names.length - most} more`;
  return shown.length < 2 ? shown.join('') : `${shown.slice(0, -1).join(', ')} or ${shown.at(-1)}`;
}

/** A value that was written, as a message quotes it. */
export function brief(value: unknown): string {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
