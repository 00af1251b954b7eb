import type { System } from '@periwinkle/core/components/system';
import { colorHex, type TokenColor } from '@periwinkle/core/tokens/color';
import { ContextError, type ContextInput } from '@periwinkle/core/tokens/contexts';

/** Paths under which systems usually keep the colour of the page behind their fields. */
const PAGE = /(^|\.)(page|canvas|background|ground)(\.|$)/;

/** Colour behind specimens: the one that the system names for its page, else one that looks like it, else white. */
export function pageColor(system: System, contexts: ContextInput): string {
  try {
    const { byKey } = system.tokens.in(contexts);
    const { surface } = system.page;
    const named = surface === null ? undefined : byKey.get(surface);
    const page = named ?? [...byKey.values()].find(token => token.type === 'color' && PAGE.test(token.path));
    return page ? colorHex(page.value as TokenColor) : '#ffffff';
  } catch (error) {
    if (error instanceof ContextError) return '#ffffff';
    throw error;
  }
}
