/** The last work that waits or is done, by what it is on. */
const last = new Map<string, Promise<unknown>>();

/**
 * Does work on one thing after another, that on different things side by side. Edits of a system wait here for their turn, so that
 * they hold no connection to the database meanwhile that others could use.
 */
export function inTurn<T>(key: string, work: () => Promise<T>): Promise<T> {
  const result = (last.get(key) ?? Promise.resolve()).then(work);
  const over = result
    .catch(() => {})
    .then(() => {
      if (last.get(key) === over) last.delete(key);
    });
  last.set(key, over);
  return result;
}
