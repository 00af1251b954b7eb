import { valueType, type ValueTypeName } from './value-types';

/** Which parts a property makes sense on. */
type PartScope = 'any' | 'box' | 'text';

/** One property: CSS name, kind of value, and everything the rest of the core must know about it. */
export interface Property {
  readonly name: string;
  readonly kind: ValueTypeName;
  readonly scope: PartScope;
  readonly inherited: boolean;
  /**
   * Value where no rule speaks, as the parts' reset leaves it, unless the kind of part has another; of an inherited property
   * the root's. `inherit`: the page decides.
   */
  readonly initial: string;
  /** CSS's own initial value, where that is another: what the word `initial` stands for. */
  readonly cssInitial: string;
  /** Least and greatest value that CSS lets count; results of calculations and tokens beyond it are brought to its ends. */
  readonly range: Range;
  /** Whether a literal beyond the range counts too, brought to its ends; CSS refuses most. */
  readonly lenient: boolean;
  /** Words offered while typing. */
  readonly keywords: readonly string[];
  /** Keywords that stand for an amount when calculated with: in px or plain. */
  readonly amounts: Readonly<Record<string, number>>;
  /** Properties of the registry that this one sets too: all four sides, all four corners. */
  readonly longhands: readonly string[];
  /** Where several values go, from two on: for each longhand that has none itself the place of its value. */
  readonly shares: readonly (readonly number[])[];
  /** Properties among which a composite token is shared out; such a property takes nothing else. */
  readonly members: readonly Member[];
  /** What CSS declares in its stead, by value; `null` where it is declared under its own name. */
  readonly declares: Declares | null;
  /** Name in style objects for native screens, or `null` where they have none. */
  readonly native: string | null;
}

/** A lower and an upper bound, in px, ms or plain numbers. */
export type Range = readonly [least: number, most: number];

export const ANY: Range = [-Infinity, Infinity];
export const NOT_NEGATIVE: Range = [0, Infinity];

/** How a property of ours is said in CSS: another property, with a text for each value. */
interface Declares {
  readonly property: string;
  /** `null`: as the part's kind has it. */
  readonly texts: Readonly<Record<string, string | null>>;
}

/** One property's share of a composite token. */
export interface Member {
  readonly property: string;
  /** Key in the token's value. */
  readonly key: string;
}

/** An amount as the property lets it count: a whole number where it asks for one, no more or less than its range has. */
export function amountInRange({ kind, range: [least, most] }: Property, amount: number): number {
  const whole = valueType(kind).integer ? Math.floor(amount + 0.5) : amount;
  return Math.min(most, Math.max(least, whole));
}

/** Whether CSS would refuse an amount, or a declaration with a variable of it, were it not calculated. */
export const isOutOfRange = (property: Property, amount: number): boolean =>
  amountInRange(property, amount) !== amount;
