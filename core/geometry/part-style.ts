import type { Part } from '../anatomy/anatomy';
import { initialOf } from '../anatomy/part-kinds';
import { propertyNamed, shorthandOf } from '../values/property-registry';
import type { Outcomes } from '../resolution/outcome';
import { metricsOf, type FontMetrics } from './font-metrics';
import { pxOf } from './lengths';

/** The style of a part as layout needs it: what rules say, what is inherited, what the reset leaves. */
export class PartStyle {
  constructor(
    private readonly part: Part,
    private readonly outcomes: Outcomes[string],
    private readonly outer: PartStyle | null,
    private readonly rem: number,
    /** Direction of writing of the page. */
    private readonly page: 'ltr' | 'rtl',
  ) {}

  /** Text of a property's value. */
  value(name: string): string {
    const property = propertyNamed(name)!;
    const said = this.said(name);
    if (said === null) return property.inherited ? this.fromOuter(name) : initialOf(property, this.part.kind);
    if (said === 'inherit' || (said === 'unset' && property.inherited)) return this.fromOuter(name);
    return said === 'initial' || said === 'unset' ? property.cssInitial : said;
  }

  private fromOuter(name: string): string {
    if (this.outer) return this.outer.value(name);
    if (name === 'direction') return this.page;
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
    const outer = this.outer?.fontSize ?? this.rem;
    const said = this.said('font-size');
    if (said === null) return outer;
    return pxOf(said, { em: outer, rem: this.rem, whole: outer }) ?? outer;
  }

  get isRtl(): boolean {
    return this.value('direction') === 'rtl';
  }

  get font(): FontMetrics {
    return metricsOf(this.value('font-family'));
  }

  /** Height of a line in px. */
  get lineHeight(): number {
    const text = this.value('line-height');
    const size = this.fontSize;
    if (text === 'normal') {
      const { ascent, descent, lineGap } = this.font;
      return Math.round(ascent * size) + Math.round(descent * size) + lineGap * size;
    }
    const plain = Number(text);
    return Number.isNaN(plain) ? (this.px('line-height', size) ?? size) : plain * size;
  }

  /** A length in px; `null` for a keyword, or a percentage of what is not known. */
  px(name: string, whole: number | null = null): number | null {
    return pxOf(this.value(name), { em: this.fontSize, rem: this.rem, whole });
  }

  /** The same where nothing else than a length counts. */
  length(name: string, whole: number | null = null): number {
    return this.px(name, whole) ?? 0;
  }

  number(name: string): number {
    const value = Number(this.value(name));
    return Number.isNaN(value) ? 0 : value;
  }

  /** Width of a border side, `top` to `left`. */
  border(side: string): number {
    const style = this.value(`border-${side}-style`);
    return style === 'none' || style === 'hidden' ? 0 : this.length(`border-${side}-width`);
  }
}
