import fc from 'fast-check';
import { readAnatomy } from '../components/anatomy/anatomy';
import type { PseudoPart } from '../components/anatomy/part';
import { isPseudo } from '../components/anatomy/pseudo-parts';
import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import { ProblemList } from '../json/problem';
import type { Property } from '../css/property';
import { PROPERTIES } from '../css/property-registry';
import { valueType } from '../css/value-types';
import { readValue } from '../css/value-syntax';
import { conditionOver, randomAxes, settlingLimits } from './random-component';
import { smallDocuments } from './small-system';

/**
 * Random small systems whose rules say everything that can be said: every property, in every unit, with tokens of every type
 * that are negative, fractional or huge, calculations inside one another, references to other parts, words such as `inherit`,
 * and two modifiers that meet.
 */

/** Parts in the order in which calculations may refer to one another: only to what comes before, so never in a circle. */
const PARTS = [
  'root',
  'heading',
  'label',
  'frame',
  'icon',
  'control',
  'unit',
  'message',
  'control::placeholder',
  'control::selection',
] as const;

const ANATOMY: ComponentDocument['anatomy'] = {
  part: 'root',
  kind: 'stack',
  children: [
    { part: 'heading', kind: 'row', children: [{ part: 'label', kind: 'label', content: 'label' }] },
    {
      part: 'frame',
      kind: 'row',
      children: [
        { part: 'icon', kind: 'icon', content: 'icon' },
        { part: 'control', kind: 'control', content: 'value' },
        { part: 'unit', kind: 'text', content: 'unit' },
      ],
    },
    { part: 'message', kind: 'text', content: 'message' },
  ],
};

export const LOOKS_SAMPLE = {
  id: 'x',
  content: { label: 'Berth', value: 'North quay', icon: 'mark', unit: 'm', message: 'No such berth' },
};

const px = (value: number, unit = 'px'): object => ({ value, unit });
const rgb = (...components: (number | string)[]): object => ({ colorSpace: 'srgb', components });

/** Values of each token, any of which may stand in any context. */
const TOKENS: Readonly<Record<string, { readonly type: string; readonly values: readonly unknown[] }>> = {
  ink: { type: 'color', values: [rgb(0.1, 0.2, 0.3), { ...rgb(1, 0, 0.5), alpha: 0.4 }] },
  hue: { type: 'color', values: ['{t.ink}', { colorSpace: 'oklch', components: [0.6, 0.1, 'none'] }] },
  plain: { type: 'dimension', values: [px(3), px(7.25), px(0.75, 'rem'), px(0)] },
  low: { type: 'dimension', values: [px(-4), px(-0.5, 'rem'), px(2)] },
  far: { type: 'dimension', values: [px(123456.789), '{t.plain}'] },
  part: { type: 'number', values: [0.3, 1.5, -2, 0] },
  much: { type: 'number', values: [40, 1234.5, '{t.part}'] },
  weight: { type: 'fontWeight', values: ['semi-bold', 350.5, 1000] },
  time: { type: 'duration', values: [px(120, 'ms'), px(-0.2, 's'), px(0, 'ms')] },
  curve: {
    type: 'cubicBezier',
    values: [
      [0.2, 0, 0, 1],
      [1, -0.5, 0.3, 2],
    ],
  },
  stroke: { type: 'strokeStyle', values: ['dotted', { dashArray: [px(2)], lineCap: 'round' }] },
  type: { type: 'fontFamily', values: ['Georgia', ['Berth Sans', 'sans-serif']] },
  edge: {
    type: 'border',
    values: [
      { color: '{t.ink}', width: '{t.plain}', style: 'solid' },
      { color: rgb(0, 0.5, 0), width: '{t.low}', style: '{t.stroke}' },
    ],
  },
  text: {
    type: 'typography',
    values: [
      { fontFamily: '{t.type}', fontSize: px(18), fontWeight: 500, letterSpacing: px(0.5), lineHeight: 1.3 },
      { fontFamily: 'Georgia', fontSize: px(1.25, 'rem') },
    ],
  },
  move: { type: 'transition', values: [{ duration: '{t.time}', timingFunction: '{t.curve}' }] },
  shade: {
    type: 'shadow',
    values: [{ color: '{t.ink}', offsetX: px(1), offsetY: '{t.low}', blur: px(2.5), spread: px(0) }],
  },
  ramp: {
    type: 'gradient',
    values: [
      [
        { color: '{t.ink}', position: 0 },
        { color: rgb(1, 1, 1), position: 0.75 },
      ],
    ],
  },
};

const tokenTree = (names: readonly string[]): fc.Arbitrary<object> =>
  fc.tuple(...names.map(name => fc.constantFrom(...TOKENS[name]!.values))).map(values => ({
    t: Object.fromEntries(
      names.map((name, index) => [name, { $type: TOKENS[name]!.type, $value: values[index] }]),
    ) as object,
  }));

/** What each context says of its own: the two modifiers meet on some tokens. */
const DECLARED: Readonly<Record<string, readonly string[]>> = {
  day: ['ink', 'hue', 'part', 'edge'],
  night: ['ink', 'hue', 'part', 'edge'],
  roomy: ['plain', 'low', 'edge', 'time'],
  close: ['plain', 'low', 'edge', 'time'],
};

export const LITERALS: Readonly<Record<string, readonly string[]>> = {
  color: ['#123456', 'RebeccaPurple', 'transparent', 'rgb(10 20 30 / 50%)', 'oklch(60% 0.1 200)'],
  length: ['3px', '0', '-2.5px', '0.5rem', '1.25em', '2pt', '7.125px', '12.5%', '1e4px', '-50% 0.5rem'],
  number: ['0.5', '0', '3', '1.25', '-1', '40%', '1 -0.5'],
  integer: ['0', '2', '-3'],
  lineHeight: ['1.4', '0', '20px', '1.5em', '130%'],
  time: ['150ms', '0.2s', '-50ms'],
  easing: ['ease-in', 'cubic-bezier(0.1, 0.7, 1, 0.1)', 'steps(3, end)'],
  fontFamily: ['system-ui, sans-serif', '"Berth Sans", serif'],
  fontWeight: ['700', '1', '342.5'],
  lineStyle: ['dashed', 'double'],
  shadow: ['0 0 0 2px #5957aa', 'inset 1px 2px red, 0 0 4px blue'],
  text: [
    'inset(50%)',
    'opacity, color',
    'color',
    '3 / 2',
    '-45deg',
    '0.25turn',
    'tabular-nums slashed-zero',
    'blur(2px)',
    '50% 10px',
    'right 3px bottom 10%',
  ],
};

const WIDE = ['inherit', 'initial', 'unset'];

const sized = (dimension: 'length' | 'number' | 'time'): Property[] =>
  PROPERTIES.filter(({ kind }) => valueType(kind).calc[0] === dimension);

const LEAVES = {
  length: ['2px', '-3.5px', '0.25rem', '1em', '{t.plain}', '{t.low}', '{t.far}'],
  number: ['2', '-0.5', '{t.part}', '{t.much}'],
  time: ['40ms', '0.1s', '{t.time}'],
} as const;

/** A well-formed calculation that comes to a dimension, and refers only to properties that come before. */
function calculation(
  dimension: 'length' | 'number' | 'time',
  before: (other: Property) => readonly string[],
  depth: number,
): fc.Arbitrary<string> {
  const references = sized(dimension).flatMap(other => before(other).map(part => `@${part}.${other.name}`));
  const leaf = fc.oneof(
    fc.constantFrom(...LEAVES[dimension]),
    ...(references.length > 0 ? [fc.constantFrom(...references)] : []),
  );
  if (depth === 0) return leaf;
  const inner = calculation(dimension, before, depth - 1);
  const factor = fc.constantFrom('2', '0.5', '-1', '{t.part}');
  return fc.oneof(
    leaf,
    fc.tuple(inner, fc.constantFrom('+', '-'), inner).map(([a, sign, b]) => `(${a} ${sign} ${b})`),
    fc.tuple(inner, factor).map(([a, by]) => `${a} * ${by}`),
    inner.map(a => `${a} / 4`),
    fc.tuple(fc.constantFrom('min', 'max'), inner, inner).map(([name, a, b]) => `${name}(${a}, ${b})`),
    fc.tuple(inner, inner, inner).map(([a, b, c]) => `clamp(${a}, ${b}, ${c})`),
  );
}

/** Everything that can be said of a property of a part. */
function textsFor(property: Property, partIndex: number): fc.Arbitrary<string> {
  const kind = valueType(property.kind);
  const literals = [
    ...(LITERALS[property.kind] ?? []),
    ...property.keywords,
    ...(kind.ours ? [] : WIDE),
  ].filter(text => readValue(property, text).ok);
  const tokens = Object.entries(TOKENS)
    .filter(([, { type }]) => (kind.tokenTypes as readonly string[]).includes(type))
    .map(([name]) => `{t.${name}}`);
  const own = PROPERTIES.indexOf(property);
  const before = (other: Property): readonly string[] =>
    PARTS.slice(0, partIndex + (PROPERTIES.indexOf(other) < own ? 1 : 0)).filter(part => !isPseudo(part));
  const [dimension] = kind.calc;
  return fc.oneof(
    ...(literals.length > 0 ? [fc.constantFrom(...literals)] : []),
    ...(tokens.length > 0 ? [fc.constantFrom(...tokens)] : []),
    ...(dimension ? [calculation(dimension, before, 2).map(text => `calc(${text})`)] : []),
  );
}

const pseudoPart = (part: string): PseudoPart =>
  readAnatomy(ANATOMY, new ProblemList()).byName.get(part)!.pseudo!;

const settings = (part: string): fc.Arbitrary<Record<string, string>> => {
  const index = PARTS.indexOf(part as (typeof PARTS)[number]);
  // Font sizes decide on what `em` comes to everywhere else: they are said often.
  const property = isPseudo(part)
    ? fc.constantFrom(...PROPERTIES.filter(({ name }) => pseudoPart(part).properties.has(name)))
    : fc.oneof(
        { weight: 6, arbitrary: fc.constantFrom(...PROPERTIES) },
        { weight: 1, arbitrary: fc.constant(PROPERTIES.find(({ name }) => name === 'font-size')!) },
      );
  return fc
    .array(
      property.chain(each => textsFor(each, index).map(text => [each.name, text] as const)),
      { minLength: 1, maxLength: 5 },
    )
    .map(entries => Object.fromEntries(entries));
};

const rulesOver = (axes: readonly NonNullable<ComponentDocument['axes']>[number][]) =>
  fc
    .array(
      fc.record({
        when: conditionOver(axes),
        set: fc
          .subarray([...PARTS], { minLength: 1, maxLength: 4 })
          .chain(parts => fc.tuple(...parts.map(part => settings(part).map(own => [part, own] as const))))
          .map(entries => Object.fromEntries(entries)),
      }),
      { minLength: 2, maxLength: 8 },
    )
    .map(rules => rules.map((rule, index): RuleDocument => ({ id: `r${index}`, ...rule })));

export interface RandomLooks {
  readonly component: ComponentDocument;
  readonly documents: ReadonlyMap<string, unknown>;
}

const component: fc.Arbitrary<ComponentDocument> = randomAxes.chain(axes =>
  fc.record({ limits: settlingLimits(axes), rules: rulesOver(axes) }).map(rest => ({
    format: 'periwinkle-component/1',
    id: 'specimen',
    anatomy: ANATOMY,
    axes,
    ...rest,
    samples: [LOOKS_SAMPLE],
  })),
);

export const randomLooks: fc.Arbitrary<RandomLooks> = fc
  .tuple(
    component,
    tokenTree(Object.keys(TOKENS)),
    fc.record(Object.fromEntries(Object.entries(DECLARED).map(([name, own]) => [name, tokenTree(own)]))),
  )
  .map(([own, base, contexts]) => ({
    component: own,
    documents: smallDocuments({
      tokens: base,
      modifiers: {
        theme: { day: contexts['day']!, night: contexts['night']! },
        density: { roomy: contexts['roomy']!, close: contexts['close']! },
      },
      documents: [
        ['components/specimen.component.json', own],
        ['icons/mark.svg', '<svg viewBox="0 0 8 8"><path d="M0 0h8v8z"/></svg>'],
      ],
    }),
  }));
