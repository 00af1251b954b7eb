import type { Part } from '../components/anatomy/part';
import { initialOf } from '../documents/part-kinds';
import type { Component } from '../components/component';
import { mapCalc, namesPercent, type Calc } from '../css/calc';
import { printValue } from '../css/print-value';
import type { Property } from '../css/property';
import { propertyNamed } from '../css/property-registry';
import { asCalc, inRange, typedMember, typedText, typedToken, type TypedValue } from '../css/typed-value';
import { CalcTypeError, evaluate, readQuantity } from '../css/units';
import type { ValueContext } from '../css/value-context';
import { takesPercent, tokenOf } from '../css/value-syntax';
import { measuredBy, withoutEm } from './font-relative';
import { levels, inheritanceAt } from './inheritance';
import type { Outcome } from './outcome';
import type { Slot, SlotRule } from './slots';

/** Calculations that refer to others are followed so deep. */
export const MAX_REFERENCE_DEPTH = 64;

/** A calculation with all that it refers to put in names so many values at most: each that is used twice doubles it. */
export const MAX_EXPANSION = 1000;

/** A calculation goes beyond these limits; checking says where. */
class TooLarge extends Error {}

/** One combination, given which rules speak; values are worked out on demand, so that `@` can refer anywhere. */
export class Specimen {
  private readonly typed = new Map<Slot, TypedValue | 'open'>();
  private depth = 0;

  constructor(
    private readonly component: Component,
    private readonly speaks: (speaker: SlotRule) => boolean,
    private readonly context: ValueContext,
  ) {}

  /** What a slot comes to, if a rule speaks that names it. */
  outcome(slot: Slot, trail: readonly SlotRule[]): Outcome {
    const last = trail.at(-1)!;
    const key = tokenOf(last.setting.value);
    const token = key === null ? undefined : this.context.tokens.byKey.get(key);
    return {
      value: this.printed(slot),
      ...(token ? { token: token.path } : {}),
      rule: last.rule.id,
      trail: trail.map(({ rule, setting }) => ({ rule: rule.id, text: setting.text })),
    };
  }

  /** Empty where there is nothing to show. */
  private printed(slot: Slot): string {
    try {
      const value = this.valueOf(slot);
      return value ? printValue(value) : '';
    } catch (error) {
      if (error instanceof TooLarge) return '';
      throw error;
    }
  }

  /** What the last word on a slot comes to; `null` when it cannot be told or leads back to itself. */
  private valueOf(slot: Slot): TypedValue | null {
    const known = this.typed.get(slot);
    if (known !== undefined) return known === 'open' ? null : known;
    if (this.depth > MAX_REFERENCE_DEPTH) throw new TooLarge();
    this.typed.set(slot, 'open');
    this.depth++;
    let result: TypedValue | null = null;
    try {
      result = this.worked(slot);
    } finally {
      this.depth--;
      if (result) this.typed.set(slot, result);
      // Asked for on its own, there may be less to follow.
      else this.typed.delete(slot);
    }
    return result;
  }

  private worked({ speakers, property }: Slot): TypedValue | null {
    const { value } = speakers.findLast(this.speaks)!.setting;
    const { tokens, rootFontSize } = this.context;
    switch (value.kind) {
      case 'literal':
        return typedText(property, value.css, rootFontSize);
      case 'wide':
        return { kind: 'text', css: value.css };
      case 'token': {
        const token = tokens.byKey.get(value.key);
        return token ? typedToken(property, token, rootFontSize) : null;
      }
      case 'member': {
        const token = tokens.byKey.get(value.key);
        return token ? typedMember(property, token, value.member, rootFontSize) : null;
      }
      case 'calc':
        return this.calculated(value.calc, property);
    }
  }

  private calculated(calc: Calc, property: Property): TypedValue | null {
    let size = 0;
    const { rootFontSize } = this.context;
    try {
      const whole = mapCalc(calc, leaf => {
        if (leaf.kind === 'number') return null;
        const inner =
          leaf.kind === 'token' ? this.tokenCalc(leaf.key) : this.referred(leaf.part, leaf.property);
        if (!inner) throw new CalcTypeError('refers to something without a size');
        // A share of another measure is not that share of the font size around, which a percentage would come to here.
        if (property.name === 'font-size' && leaf.kind === 'property' && namesPercent(inner.calc))
          throw new CalcTypeError('refers to a percentage of something else');
        size += inner.size + 1;
        if (size > MAX_EXPANSION) throw new TooLarge();
        return inner.calc;
      });
      const { dimension, amount } = evaluate(whole, rootFontSize, () => {
        throw new CalcTypeError('refers to something without a size');
      });
      if (amount !== null) return inRange(property, { kind: 'quantity', dimension, amount });
      return namesPercent(whole) && !takesPercent(property)
        ? null
        : { kind: 'expression', calc: whole, size };
    } catch (error) {
      if (error instanceof CalcTypeError) return null;
      throw error;
    }
  }

  private tokenCalc(key: string): Referred | null {
    const token = this.context.tokens.byKey.get(key);
    const quantity = token ? readQuantity(token.css, this.context.rootFontSize) : null;
    return quantity && { calc: { kind: 'number', value: quantity.value, unit: quantity.unit }, size: 0 };
  }

  /**
   * `@part.property`: what holds for the property there, as a calculation can use it. `ofThePage` stands for what the page
   * around decides on.
   */
  private referred(partName: string, name: string, ofThePage: Calc | null = null): Referred | null {
    const property = propertyNamed(name);
    if (!property) return null;
    for (const { part, slot } of levels(this.component, partName, name)) {
      const speaker = slot?.speakers.findLast(this.speaks);
      const result = inheritanceAt(speaker?.setting.value ?? null, property);
      if (result === 'here') return this.carried(part, property, this.valueOf(slot!));
      if (result !== 'outside')
        return this.fixed(
          property,
          result === 'initial' ? property.cssInitial : initialOf(property, part.kind),
        );
    }
    return ofThePage ? { calc: ofThePage, size: 0 } : this.fixed(property, property.initial);
  }

  private fixed(property: Property, css: string): Referred | null {
    const calc = asCalc(property, typedText(property, css, this.context.rootFontSize));
    return calc && { calc, size: 0 };
  }

  /** A part's value for use on another: `em` there is not `em` here. */
  private carried(part: Part, property: Property, value: TypedValue | null): Referred | null {
    const calc = value && asCalc(property, value);
    if (!calc) return null;
    const size = value.kind === 'expression' ? value.size : 0;
    const plain = withoutEm(calc, property, measuredBy(this.component, part, property));
    let sizeless = false;
    const whole = mapCalc(plain, leaf => {
      if (leaf.kind !== 'property') return null;
      // Where the page decides on the font size nobody knows it here.
      const font = this.referred(leaf.part, leaf.property, ONE_EM);
      sizeless ||= font === null;
      return font?.calc ?? null;
    });
    return sizeless ? null : { calc: whole, size };
  }
}

const ONE_EM: Calc = { kind: 'number', value: 1, unit: 'em' };

interface Referred {
  readonly calc: Calc;
  /** How many values were put into it. */
  readonly size: number;
}
