/** A longer pattern is nobody's own any more. */
const MOST_LETTERS = 500;

/**
 * A repeated group that may match one text in many ways, as `(a+)+`, `(a*)*` or `(a|a)*`: trying it on a text that does not fit can take longer than
 * anybody waits. Told by what repetition within repetition needs: a group, in which something is repeated or chosen between, repeated without end.
 */
const REPEATED_REPETITION = /\((?:[^()\\]|\\.)*(?:[*+|]|\{\d+,\d*\})(?:[^()\\]|\\.)*\)(?:[*+]|\{\d+,\})/u;

/** Repetitions without an end multiply with each other over the length of a text. */
const OPEN_REPETITION = /(?:[^\\]|^)(?:[*+]|\{\d+,\})/g;
const MOST_REPETITIONS = 3;

/** What is wrong with a pattern of a check; `null` where it can be tried on anything. */
export function patternFault(pattern: string): string | null {
  if (pattern.length > MOST_LETTERS) return `A pattern has ${MOST_LETTERS} letters at most.`;
  try {
    new RegExp(pattern, 'u');
  } catch (error) {
    const reason = (error as Error).message.replace(/^Invalid regular expression: /, '');
    return `This is no pattern: ${reason}.`;
  }
  if (/\\[1-9]|\\k</.test(pattern))
    return 'A pattern that refers to its own groups can take exponential time.';
  if ([...pattern.matchAll(OPEN_REPETITION)].length > MOST_REPETITIONS)
    return `More than ${MOST_REPETITIONS} parts that repeat without end can take longer than anybody waits.`;
  return REPEATED_REPETITION.test(pattern)
    ? 'Repeating what itself repeats or chooses can take exponential time.'
    : null;
}
