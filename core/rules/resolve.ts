import type { Combination } from '../space/space';
import { inBox } from '../space/space';
import type { TokenSet } from '../tokens/token-set';
import { calcText, type Calc } from './calc';
import type { Component, Rule, Setting } from './component';
import { propertyNamed, shorthandOf, type Property } from './property-registry';
import { quantityText, readQuantity, settledText, settledToken } from './settled-value';
import { CalcTypeError, evaluate, type Quantity } from './units';

/** One rule's word on a property. */
export interface TrailEntry {
  readonly rule: string;
  readonly text: string;
}

/** A property of a part in one combination. */
export interface Outcome {
  /** Settled form, see `settled-value`; empty when the value cannot be resolved. */
  readonly value: string;
  /** Path of the token, when the value is just that. */
  readonly token?: string;
  /** The rule that had the last word. */
  readonly rule: string;
  /** All that spoke, in order. */
  readonly trail: readonly TrailEntry[];
}

/** Part, then property. Only what some rule sets. */
export type Outcomes = Readonly<Record<string, Readonly<Record<string, Outcome>>>>;

export interface Resolution {
  /** After the limits. */
  readonly combination: Combination;
  readonly parts: Outcomes;
}

export interface Surroundings {
  readonly tokens: TokenSet;
  /** CSS px per rem. */
  readonly rootFontSize: number;
}

/** How one combination looks, and why. Unnamed axes stand at rest or default. Linear in the rules. */
export function resolve(component: Component, combination: Combination, around: Surroundings): Resolution {
  const { space } = component;
  const settled = space.settled(space.indices(combination)).combination;
  const speaking = component.rules.filter(rule => inBox(rule.region, settled));
  return { combination: space.written(settled), parts: new Specimen(component, speaking, around).outcomes() };
}

interface Slot {
  readonly part: string;
  readonly property: Property;
  readonly trail: { readonly rule: Rule; readonly setting: Setting }[];
}

/** The slots of one combination, worked out on demand, so that `@part.property` can refer anywhere. */
class Specimen {
  private readonly slots = new Map<string, Slot>();
  private readonly quantities = new Map<string, Quantity | 'open'>();

  constructor(
    component: Component,
    rules: readonly Rule[],
    private readonly around: Surroundings,
  ) {
    for (const rule of rules)
      for (const setting of rule.settings) this.slotFor(setting.part, setting.property);
    for (const rule of rules) for (const setting of rule.settings) this.speak(rule, setting);
    this.order = component.anatomy.parts.map(part => part.name);
  }

  private readonly order: readonly string[];

  private slotFor(part: string, property: Property): void {
    const key = `${part}.${property.name}`;
    if (!this.slots.has(key)) this.slots.set(key, { part, property, trail: [] });
  }

  /** A shorthand also speaks for each side that has a slot of its own. */
  private speak(rule: Rule, setting: Setting): void {
    for (const name of [setting.property.name, ...setting.property.longhands]) {
      this.slots.get(`${setting.part}.${name}`)?.trail.push({ rule, setting });
    }
  }

  outcomes(): Outcomes {
    const parts: Record<string, Record<string, Outcome>> = {};
    const slots = [...this.slots.values()].sort(
      (a, b) => this.order.indexOf(a.part) - this.order.indexOf(b.part),
    );
    for (const slot of slots) (parts[slot.part] ??= {})[slot.property.name] = this.outcome(slot);
    return parts;
  }

  private outcome(slot: Slot): Outcome {
    const last = slot.trail.at(-1)!;
    const { value } = last.setting;
    const token = value.kind === 'token' ? this.around.tokens.byKey.get(value.key) : undefined;
    return {
      value: this.settled(slot),
      ...(token ? { token: token.path } : {}),
      rule: last.rule.id,
      trail: slot.trail.map(({ rule, setting }) => ({ rule: rule.id, text: setting.text })),
    };
  }

  private settled({ part, property, trail }: Slot): string {
    const { value } = trail.at(-1)!.setting;
    const { tokens, rootFontSize } = this.around;
    switch (value.kind) {
      case 'literal':
        return settledText(property, value.css, rootFontSize);
      case 'token': {
        const token = tokens.byKey.get(value.key);
        return token ? settledToken(property, token, rootFontSize) : '';
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
      if (node.kind === 'token') return this.around.tokens.byKey.get(node.key)?.css ?? '0px';
      return this.reference(node.part, node.property) ?? '0px';
    });
    return `calc(${text})`;
  }

  /** The settled value of another property; where nothing sets it, its initial value. */
  private reference(part: string, name: string): string | null {
    const slot = this.slotOf(part, name);
    return slot ? this.settled(slot) : (propertyNamed(name)?.initial ?? null);
  }

  private slotOf(part: string, name: string): Slot | undefined {
    return this.slots.get(`${part}.${name}`) ?? this.slots.get(`${part}.${shorthandOf(name) ?? ''}`);
  }

  /** The amount of a property, or `null` when it has none or refers to itself in a circle. */
  private quantity(part: string, name: string): Quantity | null {
    const key = `${part}.${name}`;
    const known = this.quantities.get(key);
    if (known !== undefined) return known === 'open' ? null : known;
    const slot = this.slotOf(part, name);
    if (!slot) return readQuantity(propertyNamed(name)?.initial ?? '', this.around.rootFontSize);
    this.quantities.set(key, 'open');
    const result = this.compute(slot);
    if (result) this.quantities.set(key, result);
    return result;
  }

  private compute({ property, trail }: Slot): Quantity | null {
    const { value } = trail.at(-1)!.setting;
    const { rootFontSize } = this.around;
    if (value.kind === 'literal')
      return readQuantity(settledText(property, value.css, rootFontSize), rootFontSize);
    if (value.kind === 'token') return this.tokenQuantity(value.key);
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
