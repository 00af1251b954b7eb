import { compileSystem } from '@periwinkle/core/components/system';
import { parseJson } from '@periwinkle/core/json/json-text';
import type { WholeSystem } from '@periwinkle/protocol/wire';
import { WorkingCopy } from '../synchronisation/working-copy';

/** What the shelf tells of a system. */
export interface Glance {
  readonly fields: number;
  readonly tokens: number;
  readonly combinations: bigint;
  /** The answer that it was read from, where specimens of it can be drawn without making anybody wait. */
  readonly text: string | null;
}

/** More than that, in letters of the answer and in milliseconds to read and count it, and nothing of it is drawn on the shelf. */
const DRAWN = { letters: 3_000_000, ms: 1_500 };

/** Reads a whole system and counts what is in it. */
export function glanceAt(text: string): Glance {
  const began = performance.now();
  const { components, tokens } = compileSystem(documentsIn(text));
  const all = components.reduce((sum, { space }) => sum + space.count(), 0n) * BigInt(tokens.contextCount());
  const isDrawn = text.length <= DRAWN.letters && performance.now() - began <= DRAWN.ms;
  return {
    fields: components.length,
    tokens: tokens.usual().byKey.size,
    combinations: all,
    text: isDrawn ? text : null,
  };
}

export const documentsIn = (text: string): ReadonlyMap<string, unknown> =>
  WorkingCopy.of((parseJson(text) as WholeSystem).documents, 0).documents;
