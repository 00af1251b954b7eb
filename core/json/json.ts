/** A value that JSON (RFC 8259) can hold. */
type Json = null | boolean | number | string | readonly Json[] | JsonObject;
export interface JsonObject {
  readonly [key: string]: Json;
}

/** One step of a path into a JSON value: a member's name or an index. */
export type Step = string | number;

export function isObject(value: unknown): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Writes steps as a JSON Pointer (RFC 6901); no steps give `""`, the whole document. */
export function pointer(...steps: readonly Step[]): string {
  let text = '';
  for (const step of steps) text += `/${typeof step === 'number' ? step : escaped(step)}`;
  return text;
}

/** Nearly all names are written as they are: looking costs less than replacing. */
const escaped = (step: string): string =>
  /[~/]/.test(step) ? step.replace(/~/g, '~0').replace(/\//g, '~1') : step;

/** Reads a JSON Pointer into its steps, all as text. Anything else than `""` or `/…` gives `null`. */
export function pointerSteps(text: string): string[] | null {
  if (text === '') return [];
  if (!text.startsWith('/')) return null;
  const steps = text.slice(1).split('/');
  return text.includes('~') ? steps.map(step => step.replace(/~1/g, '/').replace(/~0/g, '~')) : steps;
}

/** The value a pointer leads to, or `undefined` where nothing is. Only own members count. */
export function valueAt(document: unknown, steps: readonly Step[]): unknown {
  let here: unknown = document;
  for (const step of steps) {
    if (Array.isArray(here)) here = /^(0|[1-9]\d*)$/.test(String(step)) ? here[Number(step)] : undefined;
    else if (isObject(here) && Object.hasOwn(here, step)) here = here[step];
    else return undefined;
  }
  return here;
}

/** Whether two values say the same; the order of members counts for nothing (RFC 6902, section 4.6). */
export function isSameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((each, index) => isSameJson(each, b[index]));
  if (!isObject(a) || !isObject(b)) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every(key => Object.hasOwn(b, key) && isSameJson(a[key], b[key]))
  );
}
