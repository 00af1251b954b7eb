import type { Part } from '../components/anatomy/part';
import { initialOf } from '../documents/part-kinds';
import { amountInRange } from '../css/property';
import { propertyNamed, shorthandOf } from '../css/property-registry';
import type { Outcomes } from '../cascade/outcome';
import { metricsOf, type FontMetrics } from './font-metrics';
import type { Guess } from './guess';
import { pxOf } from './lengths';

/** What is the same for all parts of a field in one laying out. */
export interface Page {
  /** Font size of the root element, in px. */
  readonly rem: number;
  readonly direction: 'ltr' | 'rtl';
  /** What the page gives the field, in px. */
  readonly width: number;
  readonly guess: Guess;
}

/** Units that fonts decide, in em as most have it (CSS Values 4, section 6.1). */
const OF_FONT: Readonly<Record<string, number>> = { ex: 0.5, cap: 0.7, ch: 0.55, ic: 1 };

type LineHeight = 'normal' | { readonly factor: number } | { readonly px: number };

/** The style of a part as layout needs it: what rules say, what is inherited, what the reset leaves. */
export class PartStyle {
  /** Every property is asked for many times. */
  private readonly values = new Map<string, string>();

  constructor(
    private readonly part: Part,
    private readonly outcomes: Outcomes[string],
    private readonly outer: PartStyle | null,
    readonly page: Page,
    /** Tells parts apart. */
    readonly place: number,
  ) {}

  /** Text of a property's value. */
  value(name: string): string {
    let found = this.values.get(name);
    if (found === undefined) this.values.set(name, (found = this.found(name)));
    return found;
  }

  private found(name: string): string {
    const property = propertyNamed(name)!;
    const said = this.said(name);
    if (said === null) return property.inherited ? this.fromOuter(name) : initialOf(property, this.part.kind);
    if (said === 'inherit' || (said === 'unset' && property.inherited)) return this.fromOuter(name);
    return said === 'initial' || said === 'unset' ? property.cssInitial : said;
  }

  private fromOuter(name: string): string {
    if (this.outer) return this.outer.value(name);
    if (name === 'direction') return this.page.direction;
    const { initial, cssInitial } = propertyNamed(name)!;
    return initial === 'inherit' ? cssInitial : initial;
  }

  private said(name: string): string | null {
    for (let each: string | undefined = name; each !== undefined; each = shorthandOf(each)) {
      const outcome = this.outcomes[each];
      if (outcome && outcome.value !== '') return outcome.value;
    }
    return null;
  }

  /** Font size in px. */
  get fontSize(): number {
    const outer = this.outer?.fontSize ?? this.page.rem;
    const said = this.said('font-size');
    if (said === null) return outer;
    return this.measured(said, { em: outer, whole: outer, line: () => this.outerLine }) ?? outer;
  }

  get isRtl(): boolean {
    return this.value('direction') === 'rtl';
  }

  get font(): FontMetrics {
    return metricsOf(this.value('font-family'));
  }

  /** From the top of a line of text in its own font to its base line and from there to its bottom, in px. */
  get textHeight(): { readonly ascent: number; readonly descent: number } {
    const { ascent, descent, isMeasured } = this.font;
    const size = this.fontSize * (isMeasured ? 1 : this.page.guess.text(this.place, false));
    return { ascent: Math.round(ascent * size), descent: Math.round(descent * size) };
  }

  /** Height of a line in px. */
  get lineHeight(): number {
    const height = this.lines;
    if (height === 'normal') return this.normalLineHeight;
    return 'factor' in height ? height.factor * this.fontSize : height.px;
  }

  /** What is said of the height of lines; a length goes on as it is where it was said (CSS Inline 3, section 5.1). */
  private get lines(): LineHeight {
    const text = this.value('line-height');
    const said = this.said('line-height');
    if (this.outer && (said === null || said === 'inherit' || said === 'unset')) return this.outer.lines;
    if (text === 'normal') return text;
    const factor = Number(text);
    if (!Number.isNaN(factor)) return { factor };
    const em = this.fontSize;
    const px = this.measured(text, { em, whole: em, line: () => this.outerLine });
    return px === null ? 'normal' : { px };
  }

  /** What `lh` is where fonts and lines themselves are measured by it. */
  private get outerLine(): number {
    return this.outer?.lineHeight ?? this.page.guess.fontUnit(this.place, 1.2 * this.page.rem);
  }

  /** What `normal` comes to. */
  get normalLineHeight(): number {
    const { ascent, descent } = this.textHeight;
    return ascent + descent + this.font.lineGap * this.fontSize;
  }

  /** A length in px; `null` for a keyword, or a percentage of what is not known. */
  px(name: string, whole: number | null = null): number | null {
    const text = this.value(name);
    const property = propertyNamed(name)!;
    const amount =
      property.amounts[text] ??
      this.measured(text, { em: this.fontSize, whole, line: () => this.lineHeight });
    return amount === null ? null : amountInRange(property, amount);
  }

  /** The same of a text that is no whole value. */
  pxOf(text: string, whole: number | null): number | null {
    return this.measured(text, { em: this.fontSize, whole, line: () => this.lineHeight });
  }

  private measured(
    text: string,
    { em, whole, line }: { em: number; whole: number | null; line: () => number },
  ): number | null {
    const { rem, guess } = this.page;
    const unit = (name: string): number | null => {
      if (name === 'lh') return line();
      const ofFont = OF_FONT[name];
      if (ofFont !== undefined) return guess.fontUnit(this.place, ofFont * em);
      return name === 'rlh' ? guess.fontUnit(this.place, 1.2 * rem) : guess.pageUnit;
    };
    return pxOf(text, { em, rem, whole, unit });
  }

  /** The same where nothing else than a length counts. */
  length(name: string, whole: number | null = null): number {
    return this.px(name, whole) ?? 0;
  }

  number(name: string): number {
    const value = Number(this.value(name));
    return Number.isNaN(value) ? 0 : value;
  }

  /** Width of a border side, `top` to `left`: whole pixels, but at least one of what is there (CSS Backgrounds 3, section 3.3). */
  border(side: string): number {
    const style = this.value(`border-${side}-style`);
    if (style === 'none' || style === 'hidden') return 0;
    const width = this.length(`border-${side}-width`);
    return width > 0 && width < 1 ? 1 : Math.floor(width);
  }
}
