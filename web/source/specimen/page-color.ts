import type { System } from '@periwinkle/core/rules/system';
import { colorHex, type TokenColor } from '@periwinkle/core/tokens/color';
import { ContextError, type ContextInput } from '@periwinkle/core/tokens/resolver';

/** Paths under which systems usually keep the colour of the page behind their fields. */
const PAGE = /(^|\.)(page|canvas|background|ground)(\.|$)/;

/** Colour behind specimens: the system's own page colour in the context, else white. */
export function pageColor(system: System, contexts: ContextInput): string {
  try {
    const tokens = [...system.tokens.in(contexts).byKey.values()];
    const page = tokens.find(token => token.type === 'color' && PAGE.test(token.path));
    return page ? colorHex(page.value as TokenColor) : '#ffffff';
  } catch (error) {
    if (error instanceof ContextError) return '#ffffff';
    throw error;
  }
}
