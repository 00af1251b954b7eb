import { shortDecimal } from '../text/css-text';
import { isObject, type Step } from '../json/json';
import { oneOf } from '../json/problem';
import { nearest } from '../text/suggestions';
import { family, FONT_WEIGHTS } from './font-values';
import { COLOR_SPACES, colorCss, type TokenColor } from './color';
import { readReference } from './references';

/** A fault in a value: where inside it, what, and what may have been meant. */
export interface ValueFault {
  readonly at: readonly Step[];
  readonly message: string;
  readonly suggestion?: string;
}

/**
 * How references inside a value become CSS: gets the reference's text and the type expected there. Without it, all
 * references must have been replaced before.
 */
export type Link = (value: unknown, type: string) => string | null;

interface TypeRow {
  /** Faults of a value; references inside are left out of account. */
  readonly check: (value: unknown) => ValueFault[];
  /** The value in its one written form (weights as numbers). */
  readonly normalize?: (value: unknown) => unknown;
  readonly css: (value: never, link: Link) => string;
  /** Type expected at a place right inside a value that CSS can take from another custom property; `null`: from none. */
  readonly inner?: (step: string | number) => string | null;
  /** Types of a composite's members. */
  readonly members?: Readonly<Record<string, string>>;
  /** What holds, as CSS, where a composite leaves a member out; the others it must have. */
  readonly absent?: Readonly<Record<string, string>>;
}

const fault = (message: string, at: readonly Step[] = [], suggestion?: string): ValueFault[] => [
  suggestion === undefined ? { at, message } : { at, message, suggestion },
];
const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);

function measure(units: readonly string[], example: string): TypeRow {
  return {
    check(value) {
      if (!isObject(value) || !('value' in value)) return fault(`must be an object such as ${example}`);
      if (!isNumber(value['value']) && !readReference(value['value']))
        return fault('must be a number', ['value']);
      const unit = value['unit'];
      if (typeof unit === 'string' && (units.includes(unit) || readReference(unit))) return [];
      return fault(`must be ${oneOf(units)}`, ['unit'], nearest(unit, units));
    },
    css: (value: { value: number; unit: string }) => `${shortDecimal(value.value, 6)}${value.unit}`,
  };
}

const STROKES = ['solid', 'dashed', 'dotted', 'double', 'groove', 'ridge', 'outset', 'inset'];

/** Members that CSS takes from 0 on: a browser drops the whole of what has less. */
const NEVER_NEGATIVE: ReadonlySet<string> = new Set(['blur', 'width', 'duration', 'fontSize', 'lineHeight']);

function amountFaults(name: string, value: unknown): ValueFault[] {
  const amount = isObject(value) ? value['value'] : value;
  return NEVER_NEGATIVE.has(name) && isNumber(amount) && amount < 0 ? fault('must be 0 or more', [name]) : [];
}

/** A composite: members with their types; those with a text in `absent` may be missing. */
function composite(
  members: Readonly<Record<string, string>>,
  css: (part: (name: string) => string) => string,
  absent: Readonly<Record<string, string>> = {},
): TypeRow {
  return {
    check(value) {
      if (!isObject(value)) return fault(`must be an object with ${oneOf(Object.keys(members))}`);
      return Object.entries(members).flatMap(([name, type]) => {
        if (!(name in value)) return name in absent ? [] : fault(`“${name}” is missing`);
        return [...below(name, valueFaults(type, value[name])), ...amountFaults(name, value[name])];
      });
    },
    normalize(value) {
      if (!isObject(value)) return value;
      return Object.fromEntries(
        Object.entries(value).map(([name, part]) => [
          name,
          name in members ? normalizedValue(members[name]!, part) : part,
        ]),
      );
    },
    members,
    absent,
    inner: step => members[step] ?? null,
    css: (value: Record<string, unknown>, link) =>
      css(name => (value[name] === undefined ? '' : valueCss(members[name]!, value[name], link))),
  };
}

/** A list of values of one shape; `single` also lets one stand without the list. */
function listOf(row: TypeRow, single: boolean, join: (parts: string[]) => string, self: string): TypeRow {
  return {
    inner: step => (typeof step === 'number' ? self : (row.inner?.(step) ?? null)),
    check(value) {
      if (!Array.isArray(value)) return single ? row.check(value) : fault('must be a list');
      if (value.length === 0) return fault('must not be empty');
      // An entry that refers to a list stands for its entries.
      const faultsOf = (item: unknown): readonly ValueFault[] => (readReference(item) ? [] : row.check(item));
      return value.flatMap((entry: unknown, index) =>
        Array.isArray(entry)
          ? // Where they come from another place, places inside are not this list's.
            entry.flatMap(item => faultsOf(item).flatMap(({ message }) => below(index, fault(message))))
          : below(index, faultsOf(entry)),
      );
    },
    normalize: value =>
      Array.isArray(value)
        ? value.flat().map(item => row.normalize?.(item) ?? item)
        : (row.normalize?.(value) ?? value),
    css: (value: unknown, link) =>
      join(
        [value]
          .flat(2)
          .map(item => (readReference(item) ? link(item, self) : null) ?? row.css(item as never, link)),
      ),
  };
}

const shadow = composite(
  { color: 'color', offsetX: 'dimension', offsetY: 'dimension', blur: 'dimension', spread: 'dimension' },
  part => `${part('offsetX')} ${part('offsetY')} ${part('blur')} ${part('spread')} ${part('color')}`,
);
const oneShadow: TypeRow = {
  ...shadow,
  css: (value: { inset?: boolean }, link) =>
    `${value.inset === true ? 'inset ' : ''}${shadow.css(value as never, link)}`,
};
const stop: TypeRow = {
  inner: step => (step === 'color' ? 'color' : null),
  check(value) {
    if (!isObject(value)) return fault('must be an object with color and position');
    const position = value['position'];
    const wrong =
      !isNumber(position) && !readReference(position)
        ? fault('must be a number from 0 to 1', ['position'])
        : [];
    return [...below('color', valueFaults('color', value['color'])), ...wrong];
  },
  css: (value: { color: unknown; position: number }, link) =>
    `${valueCss('color', value.color, link)} ${shortDecimal(Math.min(1, Math.max(0, value.position)) * 100)}%`,
};

const HEX = /^#[0-9a-f]{6}$/i;

function componentFaults(space: unknown, index: number, amount: number): ValueFault[] {
  const range = typeof space === 'string' ? COLOR_SPACES[space]?.ranges[index] : undefined;
  if (!range) return [];
  const [least, most, isOpen] = range;
  if (amount >= least && (isOpen ? amount < most : amount <= most)) return [];
  const words =
    most === Infinity ? `${least} or more` : `from ${least} ${isOpen ? 'to less than' : 'to'} ${most}`;
  return fault(`must be ${words}`, ['components', index]);
}

/** The types of the tokens format, one row each: what a value must look like and how CSS writes it. */
export const TOKEN_TYPES: Readonly<Record<string, TypeRow>> = {
  color: {
    check(value) {
      if (!isObject(value))
        return fault('must be an object such as { "colorSpace": "srgb", "components": [1, 1, 1] }');
      const space = value['colorSpace'];
      const components = value['components'];
      const alpha = value['alpha'];
      const faults: ValueFault[] = [];
      if (typeof space !== 'string' || !Object.hasOwn(COLOR_SPACES, space)) {
        const names = Object.keys(COLOR_SPACES);
        faults.push(...fault(`must be ${oneOf(names, 20)}`, ['colorSpace'], nearest(space, names)));
      }
      if (readReference(components)) return faults;
      if (!Array.isArray(components) || components.length !== 3) {
        faults.push(...fault('must be a list of three numbers', ['components']));
      } else {
        components.forEach((part, index) => {
          if (readReference(part)) return;
          if (!isNumber(part) && part !== 'none')
            faults.push(...fault('must be a number or "none"', ['components', index]));
          else if (isNumber(part)) faults.push(...componentFaults(space, index, part));
        });
      }
      const alphaFits =
        alpha === undefined || (isNumber(alpha) && alpha >= 0 && alpha <= 1) || readReference(alpha);
      if (!alphaFits) faults.push(...fault('must be a number from 0 to 1', ['alpha']));
      const hex = value['hex'];
      if (hex !== undefined && !readReference(hex) && !(typeof hex === 'string' && HEX.test(hex)))
        faults.push(...fault('must be # and six hexadecimal digits; alpha has its own member', ['hex']));
      return faults;
    },
    css: (value: TokenColor) => colorCss(value),
  },
  dimension: measure(['px', 'rem'], '{ "value": 12, "unit": "px" }'),
  duration: measure(['ms', 's'], '{ "value": 150, "unit": "ms" }'),
  fontFamily: {
    inner: step => (typeof step === 'number' ? 'fontFamily' : null),
    normalize: value => (Array.isArray(value) ? value.flat() : value),
    check: value =>
      [value].flat(2).length > 0 &&
      [value].flat(2).every(name => typeof name === 'string' && name.trim() !== '')
        ? []
        : fault('must be a name or a list of names'),
    css: (value: string | string[], link) =>
      [value]
        .flat(2)
        .map(name => (readReference(name) ? link(name, 'fontFamily') : null) ?? family(name))
        .join(', '),
  },
  fontWeight: {
    check(value) {
      if (isNumber(value)) return value >= 1 && value <= 1000 ? [] : fault('must be from 1 to 1000');
      if (typeof value === 'string' && Object.hasOwn(FONT_WEIGHTS, value)) return [];
      const names = Object.keys(FONT_WEIGHTS);
      return fault('must be a number from 1 to 1000 or a name such as medium', [], nearest(value, names));
    },
    normalize: value => (typeof value === 'string' ? (FONT_WEIGHTS[value] ?? value) : value),
    css: (value: string | number) => String(typeof value === 'string' ? FONT_WEIGHTS[value] : value),
  },
  cubicBezier: {
    check(value) {
      if (!Array.isArray(value) || value.length !== 4) return fault('must be a list of four numbers');
      return value.flatMap((part, index) => {
        if (readReference(part)) return [];
        if (!isNumber(part)) return fault('must be a number', [index]);
        return index % 2 === 0 && (part < 0 || part > 1) ? fault('must be from 0 to 1', [index]) : [];
      });
    },
    css: (value: number[]) => `cubic-bezier(${value.map(part => shortDecimal(part, 6)).join(', ')})`,
  },
  number: {
    check: value => (isNumber(value) ? [] : fault('must be a number')),
    css: (value: number) => shortDecimal(value, 6),
  },
  strokeStyle: {
    check(value) {
      if (typeof value === 'string') {
        return STROKES.includes(value) ? [] : fault(`must be ${oneOf(STROKES)}`, [], nearest(value, STROKES));
      }
      if (!isObject(value) || !Array.isArray(value['dashArray']))
        return fault('must be a name or { dashArray, lineCap }');
      return value['dashArray'].flatMap((part, index) =>
        below('dashArray', below(index, valueFaults('dimension', part))),
      );
    },
    // CSS borders cannot draw a dash pattern of one's own; dashed is what the format names as the fallback.
    css: (value: unknown) => (typeof value === 'string' ? value : 'dashed'),
  },
  border: composite(
    { color: 'color', width: 'dimension', style: 'strokeStyle' },
    part => `${part('width')} ${part('style')} ${part('color')}`,
  ),
  transition: composite(
    { duration: 'duration', delay: 'duration', timingFunction: 'cubicBezier' },
    part => [part('duration'), part('timingFunction'), part('delay')].filter(Boolean).join(' '),
    { delay: '0ms' },
  ),
  shadow: listOf(oneShadow, true, parts => parts.join(', '), 'shadow'),
  gradient: listOf(stop, false, parts => `linear-gradient(${parts.join(', ')})`, 'gradient'),
  typography: composite(
    {
      fontFamily: 'fontFamily',
      fontSize: 'dimension',
      fontWeight: 'fontWeight',
      letterSpacing: 'dimension',
      lineHeight: 'number',
    },
    part => `${part('fontWeight')} ${part('fontSize')}/${part('lineHeight')} ${part('fontFamily')}`,
  ),
};

function below(step: Step, faults: readonly ValueFault[]): ValueFault[] {
  return faults.map(inner => ({ ...inner, at: [step, ...inner.at] }));
}

/** Types of the members of a composite type, and what holds where one is left out; empty for other types. */
export const compositeMembers = (type: string): Readonly<Record<string, string>> =>
  TOKEN_TYPES[type]?.members ?? {};

/** What holds, as CSS, for a member that is left out. */
export const absentMember = (type: string, member: string): string =>
  TOKEN_TYPES[type]?.absent?.[member] ?? '';

/** Faults of a value of a type; a reference in its place counts as right here. */
export function valueFaults(type: string, value: unknown): ValueFault[] {
  return readReference(value) ? [] : (TOKEN_TYPES[type]?.check(value) ?? fault(`“${type}” is no type`));
}

/** The value with names of weights turned into numbers, at any depth. */
export function normalizedValue(type: string, value: unknown): unknown {
  const normalize = TOKEN_TYPES[type]?.normalize;
  return normalize ? normalize(value) : value;
}

const unlinked: Link = () => null;

/** The value as CSS text. References go through `link`; the value must be free of faults. */
export function valueCss(type: string, value: unknown, link: Link = unlinked): string {
  const linked = readReference(value) ? link(value, type) : null;
  return linked ?? TOKEN_TYPES[type]!.css(value as never, link);
}
