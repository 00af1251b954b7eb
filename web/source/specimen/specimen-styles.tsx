import { createContext, use, useLayoutEffect, useMemo, type ReactNode } from 'react';
import { componentStylesheet } from '@periwinkle/core/emit/component-css';
import { HELD, SHIPPED, type SelectorScheme } from '@periwinkle/core/emit/selector-scheme';
import type { Stylesheet } from '@periwinkle/core/emit/stylesheet';
import { tokensStylesheet } from '@periwinkle/core/emit/tokens-css';
import type { System } from '@periwinkle/core/rules/system';
import { LiveSheet } from './live-sheet';

/** Where tokens are declared on our pages: around every preview, not on the page itself. */
export const TOKENS_CLASS = 'pw-tokens';

type SchemeName = SelectorScheme['name'];
const SCHEMES: Record<SchemeName, SelectorScheme> = { held: HELD, shipped: SHIPPED };

/** The live stylesheets of a system's components, one per component and scheme, shared by all its specimens. */
export class SpecimenSheets {
  private readonly sheets = new Map<string, { componentId: string; scheme: SchemeName; live: LiveSheet }>();
  private system: System | null = null;
  private readonly tokens = new LiveSheet();

  /** Puts the tokens on the page; the function returned takes them off again. */
  begin(): () => void {
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, this.tokens.sheet];
    return () => {
      document.adoptedStyleSheets = document.adoptedStyleSheets.filter(sheet => sheet !== this.tokens.sheet);
    };
  }

  /** The sheet for a component; it follows the system from now on. */
  sheetFor(componentId: string, scheme: SchemeName): CSSStyleSheet {
    const key = `${scheme}/${componentId}`;
    let entry = this.sheets.get(key);
    if (!entry) {
      entry = { componentId, scheme, live: new LiveSheet() };
      this.sheets.set(key, entry);
      this.updateOne(entry);
    }
    return entry.live.sheet;
  }

  follow(system: System): void {
    const before = this.system;
    this.system = system;
    if (before?.tokens !== system.tokens || before.prefix !== system.prefix)
      this.tokens.update(previewTokens(system));
    for (const entry of this.sheets.values()) {
      const changed = system.components.find(each => each.id === entry.componentId);
      const known = before?.components.find(each => each.id === entry.componentId);
      if (changed !== known || before?.tokens !== system.tokens) this.updateOne(entry);
    }
  }

  private updateOne({
    componentId,
    scheme,
    live,
  }: {
    componentId: string;
    scheme: SchemeName;
    live: LiveSheet;
  }): void {
    const component = this.system?.components.find(each => each.id === componentId);
    if (!this.system || !component) return;
    const { prefix, tokens } = this.system;
    live.update(componentStylesheet({ component, prefix, tokens: tokens.usual(), scheme: SCHEMES[scheme] }));
  }
}

/** The tokens' stylesheet with our own element in the place of the page's root. */
function previewTokens(system: System): Stylesheet {
  const sheet = tokensStylesheet(system, { which: 'all' });
  const blocks = sheet.blocks.map(block => ({
    ...block,
    selector:
      block.selector === ':root'
        ? `.${TOKENS_CLASS}`
        : `.${TOKENS_CLASS}${block.selector}, .${TOKENS_CLASS} ${block.selector}`,
  }));
  return { ...sheet, blocks };
}

const SheetsContext = createContext<SpecimenSheets | null>(null);

/** Makes the sheets of a system available, and has them follow it before the browser paints. */
export function SpecimenStyles({ system, children }: { system: System; children: ReactNode }) {
  const sheets = useMemo(() => new SpecimenSheets(), []);
  useLayoutEffect(() => sheets.begin(), [sheets]);
  useLayoutEffect(() => sheets.follow(system), [sheets, system]);
  return <SheetsContext value={sheets}>{children}</SheetsContext>;
}

export function useSpecimenSheets(): SpecimenSheets {
  const sheets = use(SheetsContext);
  if (!sheets) throw new Error('useSpecimenSheets is called outside SpecimenStyles');
  return sheets;
}
