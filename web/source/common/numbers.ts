const ENGLISH = new Intl.NumberFormat('en');

/** A count as people read it: `1,204,416`. */
export function countText(count: bigint | number): string {
  return ENGLISH.format(count);
}

export function counted(count: bigint | number, one: string, many = `${one}s`): string {
  return `${countText(count)} ${BigInt(count) === 1n ? one : many}`;
}
