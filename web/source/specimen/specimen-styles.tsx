import { createContext, use, useEffect, useLayoutEffect, useMemo, type ReactNode } from 'react';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { HELD, SHIPPED, type SelectorScheme } from '@periwinkle/core/output/stylesheet/selector-scheme';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { LiveSheet } from './live-sheet';
import { TokenSheet } from './token-sheet';

const SCHEMES = { held: HELD, shipped: SHIPPED } satisfies Record<string, SelectorScheme>;
type SchemeName = keyof typeof SCHEMES;

interface ComponentSheet {
  readonly componentId: string;
  readonly scheme: SchemeName;
  readonly live: LiveSheet;
  /** How long it took to make last, in ms. */
  cost: number;
}

/** A sheet that takes longer, and is not the plate's, waits until the hand rests. */
const AT_ONCE_MS = 8;
const REST_MS = 120;

/** The live stylesheets of a system's components, one per component and scheme, shared by all its specimens. */
export class SpecimenSheets {
  private readonly sheets = new Map<string, ComponentSheet>();
  private readonly tokens = new Map<string, TokenSheet>();
  private readonly stale = new Set<ComponentSheet>();
  private rest: ReturnType<typeof setTimeout> | undefined;
  private system: System | null = null;
  private readonly forced = matchMedia('(forced-colors: active)');

  constructor() {
    this.forced.addEventListener('change', this.updateAll);
  }

  /** The sheet for a component; it follows the system from now on. */
  sheetFor(componentId: string, scheme: SchemeName): CSSStyleSheet {
    const key = `${scheme}/${componentId}`;
    let entry = this.sheets.get(key);
    if (!entry) {
      entry = { componentId, scheme, live: new LiveSheet(), cost: 0 };
      this.sheets.set(key, entry);
      this.updateOne(entry);
    }
    return entry.live.sheet;
  }

  /** The tokens in some contexts; they follow the system from now on. */
  tokensIn(contexts: ContextInput): TokenSheet {
    const key = JSON.stringify(contexts);
    let sheet = this.tokens.get(key);
    if (!sheet) {
      sheet = new TokenSheet(contexts);
      this.tokens.set(key, sheet);
    }
    return sheet;
  }

  follow(system: System): void {
    const before = this.system;
    this.system = system;
    // Rules decide too which tokens are declared.
    this.tokens.forEach(sheet => sheet.follow(system));
    for (const entry of this.sheets.values()) {
      const changed = system.components.find(each => each.id === entry.componentId);
      const known = before?.components.find(each => each.id === entry.componentId);
      if (changed === known && before?.tokens === system.tokens) continue;
      if (entry.scheme === 'held' || entry.cost < AT_ONCE_MS) this.updateOne(entry);
      else this.stale.add(entry);
    }
    clearTimeout(this.rest);
    if (this.stale.size > 0) this.rest = setTimeout(() => this.catchUp(), REST_MS);
  }

  /** Nothing is left to do when the sheets are gone. */
  close(): void {
    clearTimeout(this.rest);
    this.forced.removeEventListener('change', this.updateAll);
  }

  private readonly updateAll = (): void => this.sheets.forEach(entry => this.updateOne(entry));

  private catchUp(): void {
    for (const entry of this.stale) this.updateOne(entry);
    this.stale.clear();
  }

  private updateOne(entry: ComponentSheet): void {
    const component = this.system?.components.find(each => each.id === entry.componentId);
    if (!this.system || !component) return;
    const { system } = this;
    const scheme = SCHEMES[entry.scheme];
    const since = performance.now();
    entry.live.update(componentStylesheet({ system, component, scheme, isForced: this.forced.matches }));
    entry.cost = performance.now() - since;
    this.stale.delete(entry);
  }
}

const SheetsContext = createContext<SpecimenSheets | null>(null);

/** Makes the sheets of a system available, and has them follow it before the browser paints. */
export function SpecimenStyles({ system, children }: { system: System; children: ReactNode }) {
  const sheets = useMemo(() => new SpecimenSheets(), []);
  useLayoutEffect(() => sheets.follow(system), [sheets, system]);
  useEffect(() => () => sheets.close(), [sheets]);
  return <SheetsContext value={sheets}>{children}</SheetsContext>;
}

export function useSpecimenSheets(): SpecimenSheets {
  const sheets = use(SheetsContext);
  if (!sheets) throw new Error('useSpecimenSheets is called outside SpecimenStyles');
  return sheets;
}
