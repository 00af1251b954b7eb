import {
  stylesheetText,
  type StyleBlock,
  type Stylesheet,
} from '@periwinkle/core/output/stylesheet/stylesheet';

/**
 * A constructed stylesheet that follows an emitted one. When only values have changed, only those declarations are set,
 * so that the browser has little to do again; otherwise the whole is replaced.
 */
export class LiveSheet {
  readonly sheet = new CSSStyleSheet();
  private shown: Stylesheet | null = null;

  update(next: Stylesheet): void {
    const before = this.shown;
    if (before === next) return;
    this.shown = next;
    if (!before || !sameOutline(before, next) || !this.setDeclarations(before.blocks, next.blocks)) {
      this.sheet.replaceSync(stylesheetText(next));
    }
  }

  private setDeclarations(before: readonly StyleBlock[], next: readonly StyleBlock[]): boolean {
    const rules = this.rules();
    if (rules.length !== next.length) return false;
    next.forEach((block, index) => {
      const old = before[index]!;
      if (old.declarations !== block.declarations) setBlock((rules[index] as CSSStyleRule).style, old, block);
    });
    return true;
  }

  private rules(): CSSRule[] {
    const outer = [...this.sheet.cssRules];
    const [first] = outer;
    return first instanceof CSSLayerBlockRule ? [...first.cssRules] : outer;
  }
}

const sameOutline = (a: Stylesheet, b: Stylesheet): boolean =>
  a.layer === b.layer &&
  a.blocks.length === b.blocks.length &&
  a.blocks.every(
    (block, index) => block.selector === b.blocks[index]!.selector && block.within === undefined,
  );

function setBlock(style: CSSStyleDeclaration, before: StyleBlock, after: StyleBlock): void {
  const sameNames =
    before.declarations.length === after.declarations.length &&
    before.declarations.every(([name], index) => name === after.declarations[index]![0]);
  if (!sameNames) {
    // Order decides between a shorthand and its sides: a block whose properties changed is written anew.
    style.cssText = after.declarations.map(([name, value]) => `${name}: ${value}`).join('; ');
    return;
  }
  after.declarations.forEach(([name, value], index) => {
    if (before.declarations[index]![1] !== value) style.setProperty(name, value);
  });
}
