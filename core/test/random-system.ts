import fc from 'fast-check';
import type {
  AxisDocument,
  ComponentDocument,
  LimitDocument,
  RuleDocument,
} from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import { conditionOver, randomAxes, settlingLimits } from './random-component';
import { smallDocuments } from './small-system';

/** Random small systems: options, states, ladders, limits, overlapping rules, tokens in two contexts that refer to others. */

export const TEXTS: Readonly<Record<string, readonly string[]>> = {
  'border-color': ['#112233', '#445566', '{t.line}', '{t.again}'],
  'border-width': ['1px', '2px', '8px', '{t.thin}'],
  'border-top-width': ['3px', '{t.thin}'],
  border: ['{t.edge}', '{t.brink}'],
  height: [
    '20px',
    'calc(@frame.border-width * 2 + 10px)',
    'calc(@label.font-size - 11px)',
    'calc({t.thin} + 1px)',
  ],
  'font-size': ['10px', '12px', '{t.size}', 'inherit'],
  opacity: ['0.5', '1'],
  present: ['true', 'false'],
};

/** Which properties are tried on which part. */
export const ON_PART: Readonly<Record<string, readonly string[]>> = {
  root: ['border-color', 'font-size', 'opacity'],
  frame: ['border-color', 'border-width', 'border-top-width', 'border', 'height', 'opacity', 'present'],
  label: ['font-size', 'opacity', 'present'],
};

const settings = (part: string): fc.Arbitrary<Record<string, string>> =>
  fc
    .array(
      fc
        .constantFrom(...ON_PART[part]!)
        .chain(name => fc.constantFrom(...TEXTS[name]!).map(text => [name, text] as const)),
      { minLength: 1, maxLength: 3 },
    )
    .map(entries => Object.fromEntries(entries));

export const rulesOver = (axes: readonly AxisDocument[]): fc.Arbitrary<RuleDocument[]> =>
  fc
    .array(
      fc.record({
        when: conditionOver(axes),
        set: fc
          .subarray(Object.keys(ON_PART), { minLength: 1, maxLength: 2 })
          .chain(parts => fc.tuple(...parts.map(part => settings(part).map(own => [part, own] as const))))
          .map(entries => Object.fromEntries(entries)),
      }),
      { maxLength: 7 },
    )
    .map(rules => rules.map((rule, index) => ({ id: `r${index}`, ...rule })));

/** Limits over any axes: they may depend on order, or never settle. */
const anyLimits = (axes: readonly AxisDocument[]): fc.Arbitrary<LimitDocument[]> =>
  fc.array(
    fc.record({
      while: conditionOver(axes),
      holds: conditionOver(axes).filter((holds: ConditionDocument) => Object.keys(holds).length > 0),
    }),
    { maxLength: 3 },
  );

const componentWith = (
  limits: (axes: readonly AxisDocument[]) => fc.Arbitrary<LimitDocument[]>,
): fc.Arbitrary<ComponentDocument> =>
  randomAxes.chain(axes =>
    fc
      .record({
        limits: axes.length > 0 ? limits(axes) : fc.constant([]),
        rules: rulesOver(axes),
      })
      .map(rest => ({
        format: 'periwinkle-component/1',
        id: 'specimen',
        anatomy: {
          part: 'root',
          kind: 'stack',
          children: [
            { part: 'label', kind: 'label', content: 'label' },
            { part: 'frame', kind: 'row', children: [{ part: 'control', kind: 'control' }] },
          ],
        },
        axes,
        ...rest,
      })),
  );

/** Token values by key, as plain text or an alias in braces; composites by member. */
export type PlainTokens = Readonly<Record<string, string | Readonly<Record<string, string>>>>;

export interface RandomSystem {
  readonly component: ComponentDocument;
  readonly contexts: Readonly<Record<'day' | 'night', PlainTokens>>;
  readonly documents: ReadonlyMap<string, unknown>;
}

const context = fc.record({
  't.line': fc.constantFrom('#112233', '#778899'),
  't.again': fc.constantFrom('{t.line}', '#445566'),
  't.thin': fc.constantFrom('1px', '2px'),
  't.size': fc.constantFrom('10px', '14px'),
  't.edge': fc.record({
    color: fc.constantFrom('{t.line}', '#000000'),
    width: fc.constantFrom('{t.thin}', '2px'),
    style: fc.constantFrom('solid', 'dashed'),
  }),
});

const TYPES: Readonly<Record<string, string>> = {
  line: 'color',
  again: 'color',
  thin: 'dimension',
  size: 'dimension',
};

function tokenTree(tokens: Record<string, string | Record<string, string>>): object {
  const plain = (text: string): unknown => {
    if (text.startsWith('{')) return text;
    if (text.endsWith('px')) return { value: Number.parseFloat(text), unit: 'px' };
    if (!text.startsWith('#')) return text;
    const part = (from: number): number => Number.parseInt(text.slice(from, from + 2), 16) / 255;
    return { colorSpace: 'srgb', components: [part(1), part(3), part(5)] };
  };
  const members = Object.entries(tokens).map(([key, value]) => {
    const name = key.slice(2);
    const $value =
      typeof value === 'string'
        ? plain(value)
        : Object.fromEntries(Object.entries(value).map(([member, text]) => [member, plain(text)]));
    return [name, { $type: TYPES[name] ?? 'border', $value }];
  });
  return { t: Object.fromEntries(members) as object };
}

const systemWith = (component: fc.Arbitrary<ComponentDocument>): fc.Arbitrary<RandomSystem> =>
  systemOf(component.map(own => ({ component: own, written: [own] })));

/** Systems of some documents as they are written, with what one of their components stands for. */
export const systemOf = (
  components: fc.Arbitrary<{ component: ComponentDocument; written: readonly { readonly id: string }[] }>,
): fc.Arbitrary<RandomSystem> =>
  fc
    .record({ components, day: context, night: context })
    .map(({ components: { component, written }, day, night }) => {
      const whole = (tokens: typeof day): PlainTokens => ({ ...tokens, 't.brink': '{t.edge}' });
      const contexts = { day: whole(day), night: whole(night) };
      return {
        component,
        contexts,
        documents: smallDocuments({
          modifiers: {
            theme: { day: tokenTree(contexts.day as never), night: tokenTree(contexts.night as never) },
          },
          documents: written.map(own => [`components/${own.id}.component.json`, own] as const),
        }),
      };
    });

/** Components whose limits settle. */
export const settlingComponent: fc.Arbitrary<ComponentDocument> = componentWith(settlingLimits);

export const randomSystem: fc.Arbitrary<RandomSystem> = systemWith(settlingComponent);

/** Components whose limits may be anything. */
export const entangledComponent: fc.Arbitrary<ComponentDocument> = componentWith(anyLimits);
