import { initialOf } from '../../documents/part-kinds';
import type { Component, Setting } from '../../components/component';
import { withDefaults } from '../../components/parameters';
import { calcIn, measuredBy, withoutEm } from '../../cascade/font-relative';
import { levels, inheritanceAt } from '../../cascade/inheritance';
import { slotsOf } from '../../cascade/slots';
import { withReferred, type PartProperty } from '../../cascade/references';
import { calcReferences, type Calc } from '../../css/calc';
import { printCalc } from '../../css/print-value';
import type { Property } from '../../css/property';
import { propertyNamed } from '../../css/property-registry';
import { asCalc, typedText } from '../../css/typed-value';
import { dimensionOf, UNIT_OF, type Dimension } from '../../css/units';
import { valueType } from '../../css/value-types';
import { calcCss, cssValue, isWild, type CssContext, type Declaration } from './css-value';
import { publishing } from './parameter-css';

/**
 * How calculations read the properties of other parts: whatever is referred to is published on the root in a private custom
 * property, under the same condition as the setting it is said by. Custom properties are inherited as text, so what is measured
 * against the part itself (`em`) is written so that it comes to the same anywhere in the component.
 */
export class Published {
  private readonly referred: ReadonlySet<string>;

  constructor(
    private readonly component: Component,
    private readonly nameOf: (part: string, property: string) => string,
    /** Properties that the stylesheet itself reads, besides what rules refer to. */
    also: readonly PartProperty[] = [],
  ) {
    const named = component.rules.flatMap(({ settings }) =>
      settings.flatMap(({ value }) => (value.kind === 'calc' ? calcReferences(value.calc).properties : [])),
    );
    this.referred = new Set(
      withReferred(component, [...named, ...also]).flatMap(({ part: name, property }) =>
        levels(component, name, property).flatMap(({ part, slot }) =>
          slot ? [`${part.name} ${property}`] : [],
        ),
      ),
    );
  }

  /** CSS text that stands for what holds for a property of a part. */
  readonly read = (part: string, name: string): string => this.readFrom(part, name, 0);

  private readFrom(partName: string, name: string, level: number): string {
    const property = propertyNamed(name);
    // A check has said that there is no such property.
    if (!property) return '0px';
    const here = levels(this.component, partName, name)[level];
    if (!here) return name === 'font-size' ? '1em' : sized(property, property.initial);
    const { part, slot } = here;
    const silent = (): string =>
      inheritanceAt(null, property) === 'outside'
        ? this.readFrom(partName, name, level + 1)
        : sized(property, initialOf(property, part.kind));
    return slot ? `var(${this.nameOf(part.name, name)}, ${silent()})` : silent();
  }

  /**
   * The part on which a setting is published: the root, else the root of the nested component on whose own states it depends
   * whether some rule speaks for the property. All of a slot are published on the same part, so that order decides among them.
   */
  placeOf({ part, property }: Setting): string {
    const { anatomy, space } = this.component;
    const own = anatomy.byName.get(part)!;
    if (own.nested === null) return anatomy.root.name;
    const slot = slotsOf(this.component).find(part, property.name)!;
    const ways = slot.speakers.flatMap(({ rule }) =>
      [...space.extents.support(space.spoken(rule))].map(axis => {
        const { id } = space.everyAxis[axis]!;
        return id.slice(0, Math.max(0, id.lastIndexOf('/')));
      }),
    );
    const deepest = ways.reduce((longest, way) => (way.length > longest.length ? way : longest), '');
    return deepest === '' ? anatomy.root.name : anatomy.byName.get(deepest)!.name;
  }

  /**
   * What a setting publishes for those who refer to it: under its own name, and under the names of the sides it
   * also sets.
   */
  declarations(setting: Setting, context: CssContext): Declaration[] {
    const { part, property } = setting;
    return [property.name, ...property.longhands].flatMap((name): Declaration[] => {
      if (!this.referred.has(`${part} ${name}`)) return [];
      const css = this.text(setting, propertyNamed(name)!, context);
      return css === null ? [] : [[this.nameOf(part, name), css]];
    });
  }

  private text(
    { part: name, value: said, css: parametered }: Setting,
    property: Property,
    around: CssContext,
  ): string | null {
    const value = parametered ?? said;
    const result = inheritanceAt(value, property);
    if (result === 'outside') return this.readFrom(name, property.name, 1);
    if (result !== 'here') return sized(property, property.cssInitial);
    const part = this.component.anatomy.byName.get(name)!;
    const measured = measuredBy(this.component, part, property);
    const context = publishing(around, calc => withoutEm(calc, property, measured));
    const calc = calcIn(value);
    if (calc) {
      const free = withoutEm(calc, property, measured);
      if (value.kind === 'literal' && free === calc) return sized(property, value.css);
      return withinRange(property, free, calcCss(free, context), context);
    }
    if (value.kind === 'literal') return sized(property, value.css);
    const css = cssValue(property, value, context);
    if (css === null || !isWild(property, value, context.tokens)) return css;
    return clampedText(property, css, valueType(property.kind).calc[0] ?? 'number');
  }
}

function withinRange(
  property: Property,
  calc: Calc,
  css: string | null,
  { tokens, component }: CssContext,
): string | null {
  if (css === null) return null;
  const dimension = dimensionOf(calc, {
    token: key => {
      const written = key.startsWith('@') ? withDefaults(key, component.parameters) : `{${key}}`;
      const token = /^\{(.*)\}$/.exec(written)?.[1];
      return token === undefined ? written : tokens.cssOf(token);
    },
    property: name => valueType(propertyNamed(name)!.kind).calc[0] ?? 'number',
  });
  return dimension === null ? css : clampedText(property, css, dimension);
}

/** What the property itself would make of an amount: CSS brings what is calculated to the range and to whole numbers. */
function clampedText(property: Property, css: string, dimension: Dimension): string {
  const [least, most] = property.range;
  const whole = valueType(property.kind).integer ? `round(${css}, 1)` : css;
  const bound = (amount: number): string => `${amount}${UNIT_OF[dimension]}`;
  if (least === -Infinity) return whole;
  return most === Infinity
    ? `max(${bound(least)}, ${whole})`
    : `clamp(${bound(least)}, ${whole}, ${bound(most)})`;
}

/** CSS text with which one can calculate, where it stands for an amount: `0` of a length has a unit, `thick` is 5px, 40% is 0.4. */
function sized(property: Property, css: string): string {
  // No shadow is one that nobody sees: others may be put below it, which a list cannot be with a word in it.
  if (property.name === 'box-shadow' && css.trim() === 'none') return '0 0 transparent';
  const plain = asCalc(property, typedText(property, css, 0));
  const isBare = /^[-+]?0(\.0*)?$/.test(css.trim());
  return plain && (isBare || property.kind === 'number' || Object.hasOwn(property.amounts, css))
    ? printCalc(plain)
    : css;
}
