import { ObjectMemo } from '../../json/object-memo';
import { commentLines, folded, WIDTH } from './css-layout';

/** One block of a stylesheet, kept apart from its text so that a change can be carried into a live sheet block by block. */
export interface StyleBlock {
  /** Stays the same while the block means the same thing, e.g. `over/frame`. */
  readonly key: string;
  readonly selector: string;
  readonly declarations: readonly (readonly [property: string, value: string])[];
  /** Condition of an enclosing group rule, if any: `@media (forced-colors: active)`. */
  readonly within?: string;
  /** What is said before it, a line each. */
  readonly comment?: readonly string[];
  /** What is said before single declarations, by property. */
  readonly remarks?: ReadonlyMap<string, string>;
}

export interface Stylesheet {
  /** Cascade layer around all blocks, or `null`. */
  readonly layer: string | null;
  /** What is said at the head, a line each. */
  readonly head: readonly string[];
  readonly blocks: readonly StyleBlock[];
}

const bodies = new ObjectMemo<string>();

/**
 * Writes a stylesheet: one declaration a line, two spaces, lines under 120 characters where the text has a place to break, a
 * final newline. The same input gives the same bytes.
 */
export function stylesheetText({ layer, head, blocks }: Stylesheet): string {
  const body = bodies.of([blocks], () => groups(blocks).map(groupText).join('\n'));
  const intro = commentLines(head, '');
  return layer === null ? `${intro}${body}` : `${intro}@layer ${layer} {\n${indented(body)}}\n`;
}

const indented = (text: string): string => text.replace(/^(?=.)/gm, '  ');

/** Neighbours inside the same group rule stand together. */
function groups(blocks: readonly StyleBlock[]): StyleBlock[][] {
  const found: StyleBlock[][] = [];
  for (const block of blocks) {
    const last = found.at(-1);
    if (last && block.within !== undefined && last[0]!.within === block.within) last.push(block);
    else found.push([block]);
  }
  return found;
}

function groupText(group: readonly StyleBlock[]): string {
  const { within } = group[0]!;
  const text = group.map(blockText).join('\n');
  return within === undefined ? text : `${within} {\n${indented(text)}}\n`;
}

const INDENT = '  ';

function blockText({ selector, declarations, comment = [], remarks }: StyleBlock): string {
  const lines = declarations.map(([property, value]) => {
    const remark = remarks?.get(property);
    return commentLines(remark ? [remark] : [], INDENT) + declarationText(property, value);
  });
  return `${commentLines(comment, '')}${folded(selector, '', ' {'.length).join('\n')} {\n${lines.join('')}}\n`;
}

function declarationText(property: string, value: string): string {
  const line = `${INDENT}${property}: ${value};`;
  if (line.length < WIDTH) return `${line}\n`;
  return `${INDENT}${property}:\n${folded(value, INDENT + INDENT, 1).join('\n')};\n`;
}
