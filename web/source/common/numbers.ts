/** A count as people read it: `1,204,416`. */
export function countText(count: bigint | number): string {
  return count.toLocaleString('en');
}

export function counted(count: bigint | number, one: string, many = `${one}s`): string {
  return `${countText(count)} ${BigInt(count) === 1n ? one : many}`;
}
