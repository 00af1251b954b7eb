import { generate, lexer, parse, walk, type CssNode } from 'css-tree';
import { isDeeplyBracketed } from '../text/css-text';
import { QUOTAS } from '../json/quotas';
import { oneOf } from '../json/problem';
import { nearest } from '../text/suggestions';
import { TextCache } from '../json/text-cache';
import { calcReferences, CalcSyntaxError, parseCalc, type Calc } from './calc';
import type { Member, Property } from './property';
import { isOutOfRange } from './property';
import { leavesOf, PROPERTY_NAMES, propertyNamed } from './property-registry';
import { readQuantity } from './units';
import { valueType } from './value-types';

/** A value that a rule sets, read from its text. */
export type Value =
  | {
      readonly kind: 'literal';
      readonly text: string;
      /** As CSS writes it, safe in a stylesheet. */ readonly css: string;
    }
  /** `inherit` and the like, which any property of CSS takes (CSS Cascade 5, section 7.3). */
  | { readonly kind: 'wide'; readonly text: string; readonly css: WideKeyword }
  | { readonly kind: 'token'; readonly text: string; readonly key: string }
  | { readonly kind: 'calc'; readonly text: string; readonly calc: Calc }
  /** One property's share of a composite token. */
  | { readonly kind: 'member'; readonly text: string; readonly key: string; readonly member: Member };

type WideKeyword = 'inherit' | 'initial' | 'unset';
const WIDE: ReadonlySet<string> = new Set<WideKeyword>(['inherit', 'initial', 'unset']);
/** Those that ask what stands below our stylesheet, which nobody can know. */
const BELOW = new Set(['revert', 'revert-layer']);

/** The one token that a value names outside a calculation, if it does. */
export const tokenOf = (value: Value): string | null =>
  value.kind === 'token' || value.kind === 'member' ? value.key : null;

/** Keys of all tokens that a value names. */
export function tokensIn(value: Value): readonly string[] {
  if (value.kind === 'calc') return calcReferences(value.calc).tokens;
  const token = tokenOf(value);
  return token === null ? [] : [token];
}

export type ReadValue =
  { ok: true; value: Value } | { ok: false; code: string; message: string; suggestion?: string };

const cache = new TextCache<ReadValue>();

/** Reads the text of a value for a property: a literal, one `{token}`, or `calc()`. Says what is wrong with it. */
export const readValue = (property: Property, text: string): ReadValue =>
  cache.of(`${property.name}\n${text}`, () => read(property, text.trim()));

function read(property: Property, text: string): ReadValue {
  if (text === '') return wrong(property, text, 'is empty');
  if (text.length > QUOTAS.valueLetters)
    return wrong(property, text, `is longer than ${QUOTAS.valueLetters} letters`);
  if (isDeeplyBracketed(text))
    return wrong(property, text, `has more than ${QUOTAS.brackets} brackets within one another`);
  const token = /^\{([^{}]+)\}$/.exec(text);
  if (token) return { ok: true, value: { kind: 'token', text, key: token[1]!.trim() } };
  if (property.members.length > 0) return wrong(property, text, notComposite(property));
  if (/^(calc|min|max|clamp)\(/i.test(text)) return readCalculation(property, text);
  if (/[{}@]/.test(text)) {
    return wrong(
      property,
      text,
      'cannot be read: a token stands alone, as {group.token}; anything else goes into calc()',
    );
  }
  return readLiteral(property, text);
}

function readCalculation(property: Property, text: string): ReadValue {
  if (valueType(property.kind).calc.length === 0)
    return wrong(property, text, 'cannot be calculated for this property');
  try {
    return { ok: true, value: { kind: 'calc', text, calc: parseCalc(text) } };
  } catch (error) {
    if (error instanceof CalcSyntaxError) return wrong(property, text, error.message);
    throw error;
  }
}

/** Grammar where css-tree's takes more than browsers do: what they drop must not look as if it counted. */
const BROWSERS_GRAMMAR: Readonly<Record<string, string>> = {
  'box-shadow': 'none | [ inset? && [ <length>{2} [ <length [0,∞]> <length>? ]? ] && <color>? ]#',
  filter: 'none | <filter-value-list>',
};

function readLiteral(property: Property, text: string): ReadValue {
  if (valueType(property.kind).ours) {
    if (property.keywords.includes(text)) return { ok: true, value: { kind: 'literal', text, css: text } };
    return wrong(property, text, 'does not fit', nearest(text, property.keywords));
  }
  const word = text.toLowerCase();
  if (WIDE.has(word)) return { ok: true, value: { kind: 'wide', text, css: word as WideKeyword } };
  if (BELOW.has(word)) return wrong(property, text, 'would depend on the page around');
  const tree = parseValue(text);
  if (!tree) return wrong(property, text, 'is not CSS');
  if (leadsElsewhere(tree))
    return wrong(property, text, 'would load something from elsewhere, which a stylesheet here never does');
  if (!property.lenient && amountsIn(text).some(amount => isOutOfRange(property, amount)))
    return wrong(property, text, `is ${rangeWords(property)}`);
  const grammar = BROWSERS_GRAMMAR[property.name];
  const match = grammar === undefined ? lexer.matchProperty(property.name, tree) : lexer.match(grammar, tree);
  if (match.matched === null) return wrong(property, text, 'does not fit', nearest(text, property.keywords));
  const css = generate(tree);
  const several = property.longhands.length === 0 ? [] : severalIn(css);
  // Round along and across is for one corner to say.
  const many = several.some(each => /^[^(]*\//.test(each)) ? Infinity : several.length;
  if (many > property.shares.length + 1) return wrong(property, text, notShared(property, many));
  return { ok: true, value: { kind: 'literal', text, css } };
}

/** The values of a CSS text, parted by spaces outside brackets. */
const severalIn = (css: string): readonly string[] =>
  css.match(/(?:[^\s()]|\([^()]*(?:\([^()]*\)[^()]*)*\))+/g) ?? [];

/**
 * The amounts that a CSS text says outside brackets, in their own unit where it has no size here: one of several beyond the
 * range has a browser drop them all.
 */
const amountsIn = (css: string): readonly number[] =>
  severalIn(css)
    .flatMap(each => (each.includes('(') ? [] : each.split('/')))
    .flatMap(each => readQuantity(each, 1) ?? [])
    .map(({ amount, value }) => amount ?? value);

/** What each longhand has of a literal with several values, by its name; `null` of a single value. */
export function sharedOut({ longhands, shares, name }: Property, css: string): Map<string, string> | null {
  const values = longhands.length === 0 ? [] : severalIn(css);
  const places = shares[values.length - 2];
  if (values.length < 2 || !places) return null;
  return new Map(leavesOf(name).map((leaf, index) => [leaf, values[places[index]!]!]));
}

/** The shortest text that gives each longhand its value, in their order; `null` where none does. */
export function saidAtOnce({ shares }: Property, values: readonly string[]): string | null {
  if (new Set(values).size === 1) return values[0]!;
  for (const [index, places] of shares.entries()) {
    const said = Array.from({ length: index + 2 }, (_, place) => values[places.indexOf(place)]!);
    if (places.every((place, leaf) => said[place] === values[leaf])) return said.join(' ');
  }
  return null;
}

const notShared = ({ shares, longhands }: Property, many: number): string =>
  many === 4 && shares.length === 2
    ? `means left and right, whatever the direction of writing; say ${oneOf(longhands.slice(-2))} themselves`
    : 'has more values than sides';

function rangeWords({ kind, range: [least, most] }: Property): string {
  if (valueType(kind).integer) return 'no whole number';
  return most === Infinity ? `below ${least}` : `not from ${least} to ${most}`;
}

/** Functions that name something to load (CSS Images 4, CSS Values 4). */
const LOADING = new Set([
  'url',
  'src',
  'image',
  'image-set',
  '-webkit-image-set',
  'cross-fade',
  'element',
  'paint',
]);

/** Whether a value has a browser load something. */
function leadsElsewhere(tree: CssNode): boolean {
  let leads = false;
  walk(tree, node => {
    leads ||= node.type === 'Url' || (node.type === 'Function' && LOADING.has(node.name.toLowerCase()));
  });
  return leads;
}

/** Parses CSS value text strictly: anything that could end the declaration early is refused. */
function parseValue(text: string): CssNode | null {
  if (/[;{}<]|\/\*|[\u0000-\u001f]/.test(text)) return null;
  try {
    let faulty = false;
    const tree = parse(text, { context: 'value', onParseError: () => (faulty = true) });
    const balanced =
      [...text].filter(char => char === '(').length === [...text].filter(char => char === ')').length;
    return faulty || !balanced ? null : tree;
  } catch {
    return null;
  }
}

/** A composite takes tokens only; what else is meant goes into its members. */
const notComposite = (property: Property): string =>
  `is no token; without one, set ${property.members.map(member => member.property).join(', ')}`;

function wrong(property: Property, text: string, reason: string, suggestion?: string): ReadValue {
  const kind = valueType(property.kind);
  const forms = [
    ...(property.keywords.length > 0 ? [oneOf(property.keywords, 9)] : []),
    ...(kind.example ? [`${kind.words} such as ${kind.example}`] : []),
    ...(kind.tokenTypes.length > 0 ? [`a ${oneOf(kind.tokenTypes)} token in braces`] : []),
  ];
  const shown = text.length > 60 ? `${text.slice(0, 57)}…` : text;
  const message = `“${shown}” ${reason}. ${property.name} takes ${forms.join('; ')}.`;
  return { ok: false, code: 'wrong-value', message, ...(suggestion ? { suggestion } : {}) };
}

const percents = new Map<Property, boolean>();

/** Whether CSS lets a property be a percentage. */
export function takesPercent(property: Property): boolean {
  let takes = percents.get(property);
  if (takes === undefined) {
    takes = lexer.matchProperty(property.name, parse('1%', { context: 'value' })).matched !== null;
    percents.set(property, takes);
  }
  return takes;
}

/** The registry's row for a written property name, or what to say when there is none. */
export function readProperty(
  name: string,
): { ok: true; property: Property } | { ok: false; message: string; suggestion?: string } {
  const property = propertyNamed(name);
  if (property) return { ok: true, property };
  const suggestion = nearest(name, PROPERTY_NAMES);
  return {
    ok: false,
    message: `There is no property “${name}”${suggestion ? `; did you mean ${suggestion}?` : '.'}`,
    ...(suggestion ? { suggestion } : {}),
  };
}
