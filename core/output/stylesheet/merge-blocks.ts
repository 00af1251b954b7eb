import { isPseudo } from '../../components/anatomy/pseudo-parts';
import { declarationText, interfere } from './block-plan';
import type { Rule } from '../../components/component';
import type { Declaration } from './css-value';
import type { Condition } from './condition';

/** A block of one part under a condition. */
export interface PartBlock {
  readonly rules: readonly Rule[];
  readonly part: string;
  readonly condition: Condition;
  /** Equal conditions have equal texts. */
  readonly conditionText: string;
  readonly declarations: readonly Declaration[];
  /** The declarations as one text: equal ones have equal texts. */
  readonly text: string;
}

/** A block for several parts at once, by condition. */
export interface SharedBlock {
  /** Those that say so, each once. */
  readonly rules: readonly Rule[];
  readonly groups: readonly { readonly parts: readonly string[]; readonly condition: Condition }[];
  readonly declarations: readonly Declaration[];
}

/**
 * Merges blocks where order allows: first those of one part and condition, then, whatever their parts, those that declare
 * the same. A block moves up to its like only past blocks that declare nothing it declares.
 */
export function mergeBlocks(blocks: readonly PartBlock[]): SharedBlock[] {
  const byCondition = gather(blocks, block => `${block.part} ${block.conditionText}`).map(group => {
    const declarations = joinedDeclarations(group);
    return { ...group[0]!, rules: rulesOf(group), declarations, text: declarationText(declarations) };
  });
  // Where a browser does not know one selector of a list it drops the block: pseudo-parts stand alone.
  return gather(byCondition, ({ part, text }) => (isPseudo(part) ? `${part} ${text}` : text)).map(group => ({
    rules: rulesOf(group),
    groups: partsByCondition(group),
    declarations: group[0]!.declarations,
  }));
}

const rulesOf = (group: readonly PartBlock[]): Rule[] => [...new Set(group.flatMap(block => block.rules))];

/** Moves each block into the last group with its key, if nothing in between stands in the way. */
function gather(blocks: readonly PartBlock[], keyOf: (block: PartBlock) => string): PartBlock[][] {
  const groups: PartBlock[][] = [];
  const lastWith = new Map<string, number>();
  for (const block of blocks) {
    const key = keyOf(block);
    const place = lastWith.get(key) ?? -1;
    const between = place < 0 ? [] : groups.slice(place + 1);
    if (place >= 0 && between.every(group => group.every(other => !interfere(other, block)))) {
      groups[place]!.push(block);
      continue;
    }
    lastWith.set(key, groups.length);
    groups.push([block]);
  }
  return groups;
}

/** Declarations of blocks with one selector; of one name declared twice the later counts. */
function joinedDeclarations(group: readonly PartBlock[]): Declaration[] {
  const all = group.flatMap(block => block.declarations);
  return all.filter(([name], place) => !all.some(([other], later) => later > place && other === name));
}

function partsByCondition(group: readonly PartBlock[]): SharedBlock['groups'] {
  const byCondition = new Map<string, { parts: string[]; condition: Condition }>();
  for (const { part, condition, conditionText } of group) {
    const known = byCondition.get(conditionText);
    if (known) known.parts.push(part);
    else byCondition.set(conditionText, { parts: [part], condition });
  }
  return [...byCondition.values()];
}
