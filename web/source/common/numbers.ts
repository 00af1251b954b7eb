const ENGLISH = new Intl.NumberFormat('en');
/** The same counts are said again with every edit, and large ones are slow to write. */
const written = new Map<bigint | number, string>();
const MOST_WRITTEN = 1000;

/** A count as people read it: `1,204,416`. */
export function countText(count: bigint | number): string {
  let text = written.get(count);
  if (text === undefined) {
    if (written.size >= MOST_WRITTEN) written.clear();
    written.set(count, (text = ENGLISH.format(count)));
  }
  return text;
}

export function counted(count: bigint | number, one: string, many = `${one}s`): string {
  return `${countText(count)} ${BigInt(count) === 1n ? one : many}`;
}
