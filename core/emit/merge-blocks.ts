import { declarationText, interfere } from './block-plan';
import type { Declaration } from './declarations';
import type { Formula } from './formula';

/** A block of one part under a condition. */
export interface PartBlock {
  readonly key: string;
  readonly part: string;
  readonly formula: Formula;
  /** The formula as text: equal conditions have equal texts. */
  readonly condition: string;
  readonly declarations: readonly Declaration[];
}

/** A block for several parts at once, by condition. */
export interface SharedBlock {
  readonly key: string;
  readonly groups: readonly { readonly parts: readonly string[]; readonly formula: Formula }[];
  readonly declarations: readonly Declaration[];
}

/**
 * Merges blocks where order allows: first those of one part and condition, then, whatever their parts, those that declare
 * the same. A block moves up to its like only past blocks that declare nothing it declares.
 */
export function mergeBlocks(blocks: readonly PartBlock[]): SharedBlock[] {
  const byCondition = gather(blocks, (a, b) => a.part === b.part && a.condition === b.condition).map(
    group => ({ ...group[0]!, declarations: joinedDeclarations(group) }),
  );
  return gather(byCondition, (a, b) => declarationText(a) === declarationText(b)).map(group => ({
    key: group.map(block => block.key).join(' '),
    groups: partsByCondition(group),
    declarations: group[0]!.declarations,
  }));
}

/** Moves each block into the last group before it that takes it, if nothing in between stands in the way. */
function gather(blocks: readonly PartBlock[], alike: (a: PartBlock, b: PartBlock) => boolean): PartBlock[][] {
  const groups: PartBlock[][] = [];
  for (const block of blocks) {
    let place = groups.length - 1;
    while (place >= 0 && !alike(groups[place]![0]!, block)) {
      // Something in the way: then the block stays where it is.
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

function partsByCondition(group: readonly PartBlock[]): SharedBlock['groups'] {
  const byCondition = new Map<string, { parts: string[]; formula: Formula }>();
  for (const { part, condition, formula } of group) {
    const known = byCondition.get(condition);
    if (known) known.parts.push(part);
    else byCondition.set(condition, { parts: [part], formula });
  }
  return [...byCondition.values()];
}
