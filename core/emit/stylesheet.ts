/** One block of a stylesheet, kept apart from its text so that a change can be carried into a live sheet block by block. */
export interface StyleBlock {
  /** Stays the same while the block means the same thing, e.g. `over/frame`. */
  readonly key: string;
  readonly selector: string;
  readonly declarations: readonly (readonly [property: string, value: string])[];
  /** Condition of an enclosing `@media`, if any. */
  readonly media?: string;
}

export interface Stylesheet {
  /** Cascade layer around all blocks, or `null`. */
  readonly layer: string | null;
  readonly comment: string;
  readonly blocks: readonly StyleBlock[];
}

/** Writes a stylesheet: one declaration a line, two spaces, a final newline. The same input gives the same bytes. */
export function stylesheetText({ layer, comment, blocks }: Stylesheet): string {
  const outer = layer === null ? '' : '  ';
  const body = blocks.map(block => blockText(block, outer)).join('\n');
  const head = comment === '' ? '' : `/* ${comment.replace(/\*\//g, '* /').replace(/</g, '‹')} */\n`;
  return layer === null ? `${head}${body}` : `${head}@layer ${layer} {\n${body}}\n`;
}

function blockText({ selector, declarations, media }: StyleBlock, outer: string): string {
  const indent = media === undefined ? outer : `${outer}  `;
  const lines = declarations.map(([property, value]) => `${indent}  ${property}: ${value};\n`).join('');
  const block = `${indent}${selector} {\n${lines}${indent}}\n`;
  return media === undefined ? block : `${outer}@media ${media} {\n${block}${outer}}\n`;
}
