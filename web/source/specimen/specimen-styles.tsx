import { createContext, use, useLayoutEffect, useMemo, type ReactNode } from 'react';
import { componentStylesheet } from '@periwinkle/core/emit/component-css';
import { HELD, SHIPPED, type SelectorScheme } from '@periwinkle/core/emit/selector-scheme';
import type { System } from '@periwinkle/core/rules/system';
import { LiveSheet } from './live-sheet';

const SCHEMES = { held: HELD, shipped: SHIPPED } satisfies Record<string, SelectorScheme>;
type SchemeName = keyof typeof SCHEMES;

/** The live stylesheets of a system's components, one per component and scheme, shared by all its specimens. */
export class SpecimenSheets {
  private readonly sheets = new Map<string, { componentId: string; scheme: SchemeName; live: LiveSheet }>();
  private system: System | null = null;

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

const SheetsContext = createContext<SpecimenSheets | null>(null);

/** Makes the sheets of a system available, and has them follow it before the browser paints. */
export function SpecimenStyles({ system, children }: { system: System; children: ReactNode }) {
  const sheets = useMemo(() => new SpecimenSheets(), []);
  useLayoutEffect(() => sheets.follow(system), [sheets, system]);
  return <SheetsContext value={sheets}>{children}</SheetsContext>;
}

export function useSpecimenSheets(): SpecimenSheets {
  const sheets = use(SheetsContext);
  if (!sheets) throw new Error('useSpecimenSheets is called outside SpecimenStyles');
  return sheets;
}
