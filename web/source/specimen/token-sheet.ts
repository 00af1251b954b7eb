import { tokenDeclarations } from '@periwinkle/core/output/tokens/tokens-css';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';

let count = 0;

/**
 * The tokens of a system in some contexts, declared once for all surfaces that bear its name. Only what has changed is set, so that the
 * browser has little to do again. It stands in the document as long as a surface uses it.
 */
export class TokenSheet {
  /** What surfaces bear as `data-tokens`. */
  readonly name = `t${++count}`;
  private readonly sheet = new CSSStyleSheet();
  private declared: ReadonlyMap<string, string> = new Map();
  private users = 0;

  constructor(private readonly contexts: ContextInput) {
    this.sheet.replaceSync(`.surface[data-tokens="${this.name}"] {}`);
  }

  /**
   * Has it declared, as `system` has the tokens, until what is returned is called. What is drawn comes before what follows: a system may have
   * contexts that were not there a moment ago.
   */
  readonly use = (system: System): (() => void) => {
    this.users++;
    if (this.users === 1) {
      document.adoptedStyleSheets.push(this.sheet);
      this.update(system);
    }
    return () => {
      this.users--;
      if (this.users > 0) return;
      document.adoptedStyleSheets = document.adoptedStyleSheets.filter(sheet => sheet !== this.sheet);
    };
  };

  follow(system: System): void {
    if (this.users > 0) this.update(system);
  }

  private update(system: System): void {
    const next = tokenDeclarations(system, this.contexts);
    const { style } = this.sheet.cssRules[0] as CSSStyleRule;
    for (const [name, value] of next) if (this.declared.get(name) !== value) style.setProperty(name, value);
    for (const name of this.declared.keys()) if (!next.has(name)) style.removeProperty(name);
    this.declared = next;
  }
}
