import type { Component, Rule } from '../../components/component';
import { leavesOf } from '../../css/property-registry';
import { EVERYWHERE, NOWHERE, type Extent } from '../../space/extent';
import type { Declaration } from './css-value';

/** Declarations of some rules on one part, before it is decided how to select for them. */
export interface PlannedBlock {
  readonly rules: readonly Rule[];
  readonly part: string;
  readonly declarations: readonly Declaration[];
  /** The declarations as one text, to find equal ones. */
  readonly text: string;
  /** All raw combinations in which they must hold. */
  readonly where: Extent;
  /** Raw combinations in which they may hold as well, because later blocks say everything anew there. */
  readonly free: Extent;
}

/** A block as a rule states it. */
export type StatedBlock = Omit<PlannedBlock, 'free' | 'text'>;

/**
 * Leaves out declarations that never win anywhere, and joins blocks of a part that declare the same as far as the order
 * allows. One pass from the last block to the first, with one union and one difference a declaration.
 */
export function planBlocks(component: Component, stated: readonly StatedBlock[]): PlannedBlock[] {
  const { extents } = component.space;
  const later = new Map<string, Extent>();
  const coverOf = (part: string, name: string): Extent =>
    leavesOf(name).reduce<Extent>(
      (cover, leaf) => extents.and(cover, later.get(`${part}.${leaf}`) ?? NOWHERE),
      EVERYWHERE,
    );
  const planned: PlannedBlock[] = [];
  const lastAlike = new Map<string, number>();
  for (const block of [...stated].reverse()) {
    const alive = block.declarations.filter(
      ([name]) => extents.minus(block.where, coverOf(block.part, name)) !== NOWHERE,
    );
    if (alive.length === 0) continue;
    const free = alive.reduce<Extent>(
      (all, [name]) => extents.and(all, coverOf(block.part, name)),
      EVERYWHERE,
    );
    const here = { ...block, declarations: alive, text: declarationText(alive), free };
    const likeness = `${here.part} ${here.text}`;
    const alike = lastAlike.get(likeness) ?? -1;
    // `planned` runs from the last block to the first: those in between are the ones before the alike in it.
    if (alike >= 0 && planned.slice(alike + 1).every(other => !interfere(other, here))) {
      const other = planned[alike]!;
      planned[alike] = {
        ...other,
        rules: [...block.rules, ...other.rules],
        where: extents.or(other.where, block.where),
      };
    } else {
      lastAlike.set(likeness, planned.length);
      planned.push(here);
    }
    for (const [name] of alive) {
      for (const leaf of leavesOf(name)) {
        const slot = `${block.part}.${leaf}`;
        later.set(slot, extents.or(later.get(slot) ?? NOWHERE, block.where));
      }
    }
  }
  return planned.reverse();
}

export const declarationText = (declarations: readonly Declaration[]): string =>
  declarations.map(declaration => declaration.join(': ')).join('; ');

/** Whether it matters which of two blocks comes first: they declare something in common on one part. */
export function interfere(a: Interfering, b: Interfering): boolean {
  if (a.part !== b.part) return false;
  return b.declarations.some(([name]) =>
    leavesOf(name).some(leaf =>
      a.declarations.some(([other]) => other === leaf || leavesOf(other).includes(leaf)),
    ),
  );
}

interface Interfering {
  readonly part: string;
  readonly declarations: readonly Declaration[];
}
