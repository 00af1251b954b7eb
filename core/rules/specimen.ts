import { calcText, type Calc } from './calc';
import type { Component } from './component';
import { isInherit } from './heard-parts';
import { propertyNamed, shorthandOf, type Property } from './property-registry';
import type { Outcome, Surroundings } from './resolve';
import { quantityText, readQuantity, settledMember, settledText, settledToken } from './settled-value';
import type { Slot, Speaker } from './slots';
import { CalcTypeError, evaluate, type Quantity } from './units';
import { tokenOf, type Value } from './value-syntax';

/** Calculations that refer to others are followed so deep. */
export const MAX_REFERENCE_DEPTH = 64;

/** A calculation with all that it refers to put in names so many values at most: each that is used twice doubles it. */
export const MAX_EXPANSION = 1000;

/** A calculation goes beyond these limits; checking says where. */
class TooLarge extends Error {}

/** One combination, given who speaks for each property; values are worked out on demand, so that `@` can refer anywhere. */
export class Specimen {
  private readonly quantities = new Map<string, Quantity | 'open'>();
  private depth = 0;
  /** Values put into the calculation that is being written. */
  private put = 0;

  constructor(
    private readonly component: Component,
    /** By slot; only slots that some speaking rule names. */
    private readonly trails: ReadonlyMap<string, readonly Speaker[]>,
    private readonly around: Surroundings,
  ) {}

  outcome(slot: Slot): Outcome {
    const trail = this.trails.get(slot.name)!;
    const last = trail.at(-1)!;
    const key = tokenOf(last.setting.value);
    const token = key === null ? undefined : this.around.tokens.byKey.get(key);
    return {
      value: this.settledOrNone(slot, last.setting.value),
      ...(token ? { token: token.path } : {}),
      rule: last.rule.id,
      trail: trail.map(({ rule, setting }) => ({ rule: rule.id, text: setting.text })),
    };
  }

  /** Empty where there is nothing to show. */
  private settledOrNone({ part, property }: Slot, value: Value): string {
    this.put = 0;
    try {
      return this.settled(part, property, value);
    } catch (error) {
      if (error instanceof TooLarge) return '';
      throw error;
    }
  }

  private settled(part: string, property: Property, value: Value): string {
    const { tokens, rootFontSize } = this.around;
    switch (value.kind) {
      case 'literal':
        return settledText(property, value.css, rootFontSize);
      case 'token': {
        const token = tokens.byKey.get(value.key);
        return token ? settledToken(property, token, rootFontSize) : '';
      }
      case 'member': {
        const token = tokens.byKey.get(value.key);
        return token ? settledMember(property, token, value.member, rootFontSize) : '';
      }
      case 'calc': {
        const quantity = this.quantity(part, property.name);
        if (!quantity) return '';
        return quantity.amount === null ? this.symbolic(value.calc) : quantityText(quantity, property);
      }
    }
  }

  /** A calculation that depends on where it is used, with all that is known put in. */
  private symbolic(calc: Calc): string {
    const text = calcText(calc, node => {
      if (++this.put > MAX_EXPANSION) throw new TooLarge();
      if (node.kind === 'token') return this.around.tokens.byKey.get(node.key)?.css ?? '0px';
      const heard = this.heard(node.part, node.property);
      if (!heard) return propertyNamed(node.property)?.initial ?? '0px';
      return this.settled(heard.part, propertyNamed(node.property)!, heard.value);
    });
    return `calc(${text})`;
  }

  /**
   * The value that holds for a property: the last word on it, under its own name or a shorthand's; where there is none
   * and the property is inherited, or the word is `inherit`, that of the part around.
   */
  private heard(part: string, name: string): { part: string; name: string; value: Value } | null {
    const inherited = propertyNamed(name)?.inherited === true;
    for (let here: string | undefined = part; here; here = this.component.anatomy.around.get(here)) {
      const own = [name, shorthandOf(name)].find(each => this.trails.has(`${here}.${each}`));
      const setting = own && this.trails.get(`${here}.${own}`)!.at(-1)!.setting;
      if (setting && !isInherit(setting)) return { part: here, name: own, value: setting.value };
      if (!setting && !inherited) return null;
    }
    return null;
  }

  /** The amount of a property, or `null` when it has none or refers to itself in a circle. */
  private quantity(part: string, name: string): Quantity | null {
    const heard = this.heard(part, name);
    if (!heard) return readQuantity(propertyNamed(name)?.initial ?? '', this.around.rootFontSize);
    const key = `${heard.part}.${heard.name}`;
    const known = this.quantities.get(key);
    if (known !== undefined) return known === 'open' ? null : known;
    if (this.depth > MAX_REFERENCE_DEPTH) throw new TooLarge();
    this.quantities.set(key, 'open');
    this.depth++;
    try {
      const result = this.computed(heard.part, propertyNamed(heard.name)!, heard.value);
      if (result) this.quantities.set(key, result);
      return result;
    } catch (error) {
      // It may be asked for on its own, with less to follow.
      this.quantities.delete(key);
      throw error;
    } finally {
      this.depth--;
    }
  }

  private computed(part: string, property: Property, value: Value): Quantity | null {
    const { rootFontSize } = this.around;
    if (value.kind === 'token') return this.tokenQuantity(value.key);
    if (value.kind !== 'calc') return readQuantity(this.settled(part, property, value), rootFontSize);
    try {
      const result = evaluate(value.calc, rootFontSize, node => {
        const inner =
          node.kind === 'token' ? this.tokenQuantity(node.key) : this.quantity(node.part, node.property);
        if (!inner) throw new CalcTypeError('refers to something without a size');
        return inner;
      });
      const clamp = property.nonNegative && result.amount !== null && result.amount < 0;
      return clamp ? { ...result, amount: 0 } : result;
    } catch (error) {
      if (error instanceof CalcTypeError) return null;
      throw error;
    }
  }

  private tokenQuantity(key: string): Quantity | null {
    const token = this.around.tokens.byKey.get(key);
    return token ? readQuantity(token.css, this.around.rootFontSize) : null;
  }
}
