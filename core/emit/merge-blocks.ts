import { declarationText, interfere } from './block-plan';
import type { Declaration } from './declarations';

/** A block of one part with its selector written. */
export interface PartBlock {
  readonly key: string;
  readonly part: string;
  readonly selector: string;
  readonly declarations: readonly Declaration[];
}

/** A block for several parts at once. */
export interface SharedBlock {
  readonly key: string;
  readonly selectors: readonly string[];
  readonly declarations: readonly Declaration[];
}

/**
 * Merges blocks where order allows: first those with the same selector, then, whatever their parts, those that declare the
 * same. A block moves up to its like only past blocks that declare nothing it declares.
 */
export function mergeBlocks(blocks: readonly PartBlock[]): SharedBlock[] {
  const bySelector = gather(blocks, (group, block) => group[0]!.selector === block.selector).map(group => ({
    ...group[0]!,
    declarations: joinedDeclarations(group),
  }));
  return gather(bySelector, (group, block) => declarationText(group[0]!) === declarationText(block)).map(
    group => ({
      key: group.map(block => block.key).join(' '),
      selectors: group.map(block => block.selector),
      declarations: group[0]!.declarations,
    }),
  );
}

/** Moves each block into the last group before it that takes it, if nothing in between stands in the way. */
function gather(
  blocks: readonly PartBlock[],
  takes: (group: readonly PartBlock[], block: PartBlock) => boolean,
): PartBlock[][] {
  const groups: PartBlock[][] = [];
  for (const block of blocks) {
    let place = groups.length - 1;
    while (place >= 0 && !takes(groups[place]!, block)) {
      // Groups in the way: then the block stays where it is.
      place = groups[place]!.some(other => interfere(other, block)) ? -1 : place - 1;
    }
    if (place >= 0) groups[place]!.push(block);
    else groups.push([block]);
  }
  return groups;
}

/** Declarations of blocks with one selector; of one name declared twice the later counts. */
function joinedDeclarations(group: readonly PartBlock[]): Declaration[] {
  const all = group.flatMap(block => block.declarations);
  return all.filter(([name], place) => !all.some(([other], later) => later > place && other === name));
}
