/** An item on a flex line, along its main axis, in px. */
export interface FlexItem {
  /** Flex base size. */
  readonly base: number;
  readonly least: number;
  readonly most: number;
  readonly grow: number;
  readonly shrink: number;
  /** Borders and paddings, which do not shrink. */
  readonly edge: number;
  /** Margins together. */
  readonly outside: number;
}

const within = (size: number, { least, most }: FlexItem): number => Math.max(least, Math.min(most, size));

const scaledShrink = ({ shrink, base, edge }: FlexItem): number => shrink * (base - edge);

/** Sizes before anything grows or shrinks. */
export const hypothetical = (item: FlexItem): number => within(item.base, item);

/** Resolves flexible lengths on one line (CSS Flexible Box 1, section 9.7). */
export function flexibleLengths(items: readonly FlexItem[], gaps: number, room: number): number[] {
  const used = (sizes: readonly number[]): number =>
    sizes.reduce((sum, size, index) => sum + size + items[index]!.outside, gaps);
  const grows = used(items.map(hypothetical)) < room;
  const factor = (item: FlexItem): number => (grows ? item.grow : item.shrink);
  const sizes = items.map(hypothetical);
  const frozen = items.map(
    item => factor(item) === 0 || (grows ? item.base > hypothetical(item) : item.base < hypothetical(item)),
  );
  const current = (): number[] => items.map((item, index) => (frozen[index] ? sizes[index]! : item.base));
  const initialFree = room - used(current());
  for (let round = 0; round <= items.length && frozen.includes(false); round++) {
    const open = items.flatMap((item, index) => (frozen[index] ? [] : [{ item, index }]));
    const sum = open.reduce((total, { item }) => total + factor(item), 0);
    let free = room - used(current());
    if (sum < 1 && Math.abs(initialFree * sum) < Math.abs(free)) free = initialFree * sum;
    const scaled = open.reduce((total, { item }) => total + scaledShrink(item), 0);
    const violations = open.map(({ item, index }) => {
      const share = grows
        ? (free * item.grow) / sum
        : scaled === 0
          ? 0
          : (free * scaledShrink(item)) / scaled;
      const wanted = item.base + share;
      sizes[index] = within(wanted, item);
      return sizes[index] - wanted;
    });
    const total = violations.reduce((sum_, each) => sum_ + each, 0);
    open.forEach(({ index }, place) => {
      const violation = violations[place]!;
      if (Math.abs(total) < 1e-9 || (total > 0 ? violation > 0 : violation < 0)) frozen[index] = true;
    });
  }
  return sizes;
}
