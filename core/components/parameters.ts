import type { Parameter, Parameters } from './parameter';
import type { ComponentDocument, ParameterDocument } from '../documents/component-document';
import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import { originOf } from '../derivation/origin';
import type { Derivation } from '../derivation/derived-documents';
import type { Property } from '../css/property';
import { propertyNamed } from '../css/property-registry';
import { readValue } from '../css/value-syntax';
import type { Nested } from './component';

/** Those that whoever uses a component can set, without those of what is nested in it. */
export const settable = (parameters: Parameters): readonly Parameter[] =>
  [...parameters.values()].filter(({ key }) => !key.includes('/'));

const NONE: readonly ParameterDocument[] = [];
/** By owners of each. */
const tables = new ObjectMemo<Map<string, Parameters>>();

/** The parameters of a component and of all that is nested in it, by key. What has not changed stays the same table. */
export function readParameters(
  document: ComponentDocument,
  derivation: Derivation | null,
  nested: readonly Nested[],
): Parameters {
  const own = document.parameters ?? NONE;
  if (own.length === 0 && nested.length === 0) return NO_PARAMETERS;
  const inner = nested.flatMap(({ use, component }) => [use.document, component.parameters]);
  const byOwners = tables.of([own, document.anatomy, ...inner], () => new Map<string, Parameters>());
  const levels = own.map((_, index) => levelOf(index, derivation));
  const names = [document.id, ...(derivation?.bases.map(({ id }) => id) ?? [])];
  const key = JSON.stringify([names, levels]);
  let table = byOwners.get(key);
  if (!table) {
    const owners = names.map((_, level) => names.slice(0, level + 1));
    table = new Map([
      ...own.map(
        (each, index) =>
          [each.id, { key: each.id, document: each, owners: owners[levels[index]!]!, given: null }] as const,
      ),
      ...nested.flatMap(within).map(parameter => [parameter.key, parameter] as const),
    ]);
    byOwners.set(key, table);
  }
  return table;
}

const NO_PARAMETERS: Parameters = new Map();

/** How many bases of a component have one of its parameters, from the one where it was written. */
function levelOf(index: number, derivation: Derivation | null): number {
  if (!derivation) return 0;
  const { file } = originOf(originOf(derivation.origin, 'parameters'), index);
  return derivation.bases.findIndex(base => base.file === file) + 1;
}

function within({ name, component, use }: Nested): Parameter[] {
  return [...component.parameters.values()].map(parameter => {
    const here = parameter.key.includes('/') ? undefined : use.document.parameters?.[parameter.key];
    const there = parameter.given === null ? null : inside(name, parameter.given);
    return { ...parameter, key: `${name}/${parameter.key}`, given: here ?? there };
  });
}

/** A text in words of a nested component, in words of the one around it. */
export const inside = (name: string, text: string): string => text.replace(/@(?=[A-Za-z])/g, `@${name}/`);

/** `@accent`, also within a calculation; `@part.property` is none. */
const REFERENCE = /@([A-Za-z][\w-]*(?:\/[A-Za-z][\w-]*)*)(?![\w/.-])/g;

/** Keys of the parameters that a text names; of one that is longer than a value may be, none. */
export const parametersIn = (text: string): string[] =>
  text.length > QUOTAS.valueLetters ? [] : [...text.matchAll(REFERENCE)].map(([, key]) => key!);

/** So many parameters can be given by one another. */
const MAX_DEPTH = 16;

/**
 * A text with each parameter replaced by what holds where nobody sets it: what the use gives, else the default. It ends where it is longer than
 * a value may be: what a parameter is given may name others, though it must not, and a few of those by each of a few come to millions.
 */
export const withDefaults = (text: string, parameters: Parameters): string =>
  replaced(text, parameters, { letters: 2 * QUOTAS.valueLetters }, 0);

function replaced(text: string, parameters: Parameters, left: { letters: number }, depth: number): string {
  if (text.length > QUOTAS.valueLetters) return text;
  return text.replace(REFERENCE, (whole, key: string) => {
    const parameter = parameters.get(key);
    if (!parameter || depth > MAX_DEPTH || left.letters <= 0) return whole;
    const value = parameter.given ?? parameter.document.default;
    left.letters -= value.length + 1;
    return replaced(value, parameters, left, depth + 1);
  });
}

/** A text with each parameter in the place of a token, `{@accent}`: so stylesheets write it, each as a custom property. */
export const asTokens = (text: string): string => text.replace(REFERENCE, '{@$1}');

/** A property that takes just what parameters of a type may be. */
const LIKE: Readonly<Record<string, string>> = {
  color: 'color',
  dimension: 'outline-offset',
  number: 'flex-grow',
  duration: 'transition-duration',
  fontFamily: 'font-family',
  fontWeight: 'font-weight',
  cubicBezier: 'transition-timing-function',
  strokeStyle: 'border-top-style',
};

/** Types that a parameter can have. */
export const PARAMETER_TYPES = Object.keys(LIKE);

/** A property that takes what a parameter may be; `null` for a type that none can have. */
export const propertyLike = (type: string): Property | null =>
  (Object.hasOwn(LIKE, type) && propertyNamed(LIKE[type]!)) || null;

/** Whether what a parameter stands for where nobody sets it is a value of its type. */
export function standsForValue(key: string, parameters: Parameters): boolean {
  const parameter = parameters.get(key);
  const like = parameter ? propertyLike(parameter.document.type) : null;
  return like !== null && readValue(like, withDefaults(`@${key}`, parameters)).ok;
}

export const isParameterType = (type: string): boolean => Object.hasOwn(LIKE, type);
