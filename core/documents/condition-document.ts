/** Axes mapped to a value or a list of values; an absent axis is free. */
export interface ConditionDocument {
  readonly [axis: string]: string | readonly string[];
}
