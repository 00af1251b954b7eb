import fc from 'fast-check';
import type {
  AxisDocument,
  ComponentDocument,
  LimitDocument,
  RuleDocument,
} from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import { STATE_CATALOGUE } from '../space/state-catalogue';

/** Random small components for property tests: options and states, ladders, limits that settle, overlapping rules. */

const PROPERTIES: Readonly<Record<string, readonly string[]>> = {
  'border-color': ['#112233', '#445566', 'transparent', '#a1b2c3d4'],
  'border-width': ['1px', '2px', '0.5rem'],
  'border-top-width': ['3px', '4px'],
  height: ['20px', '30px', 'calc(@frame.border-width * 2 + 10px)'],
  opacity: ['0.5', '1'],
};

const option = (id: string): fc.Arbitrary<AxisDocument> =>
  fc.integer({ min: 1, max: 4 }).chain(size =>
    fc.integer({ min: 0, max: size - 1 }).map(preset => ({
      id,
      kind: 'option' as const,
      values: Array.from({ length: size }, (_, index) => ({ id: `${id}${index}` })),
      default: `${id}${preset}`,
    })),
  );

const states = fc.subarray(
  STATE_CATALOGUE.slice(0, 6).map(({ id }) => ({ id, kind: 'state' as const })),
  { maxLength: 3 },
);

export const randomAxes = fc
  .tuple(
    fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 2 }).map(ids => [...new Set(ids)]),
    states,
  )
  .chain(([ids, chosen]) => fc.tuple(...ids.map(option)).map(options => [...options, ...chosen]));

export const valuesOf = (axis: AxisDocument): string[] =>
  (axis.values ?? STATE_CATALOGUE.find(row => row.id === axis.id)!.values).map(value => value.id);

export const conditionOver = (all: readonly AxisDocument[]): fc.Arbitrary<ConditionDocument> =>
  fc
    .subarray([...all], { maxLength: Math.min(3, all.length) })
    .chain(chosen => fc.tuple(...chosen.map(axis => wanted(axis).map(value => [axis.id, value] as const))))
    .map(entries => Object.fromEntries(entries));

const wanted = (axis: AxisDocument): fc.Arbitrary<string | string[]> =>
  fc.oneof(
    fc.constantFrom(...valuesOf(axis)),
    fc
      .subarray(valuesOf(axis), { minLength: 1 })
      .chain(values => fc.shuffledSubarray(values, { minLength: values.length })),
  );

/** Holds only axes that come before every axis of its condition, so that limits cannot go round in a circle. */
const limitOver = (all: readonly AxisDocument[]): fc.Arbitrary<LimitDocument> =>
  fc
    .integer({ min: 1, max: Math.max(1, all.length - 1) })
    .chain(cut => fc.tuple(conditionOver(all.slice(cut)), conditionOver(all.slice(0, cut))))
    .map(([condition, holds]) => ({ while: condition, holds }));

export const settlingLimits = (all: readonly AxisDocument[]): fc.Arbitrary<LimitDocument[]> =>
  all.length > 1 ? fc.array(limitOver(all), { maxLength: 3 }) : fc.constant([]);

const rulesOver = (all: readonly AxisDocument[]): fc.Arbitrary<RuleDocument[]> => {
  const setting = fc
    .constantFrom(...Object.keys(PROPERTIES))
    .chain(name => fc.constantFrom(...PROPERTIES[name]!).map(value => [name, value] as const));
  const part = fc.array(setting, { minLength: 1, maxLength: 3 }).map(entries => Object.fromEntries(entries));
  const rule = fc.record({
    when: conditionOver(all),
    set: fc.dictionary(fc.constantFrom('frame', 'root'), part, { minKeys: 1, maxKeys: 2 }),
  });
  return fc
    .array(rule, { maxLength: 6 })
    .map(rules => rules.map((each, index) => ({ id: `r${index}`, ...each, set: { ...each.set } })));
};

export const randomComponent: fc.Arbitrary<ComponentDocument> = randomAxes.chain(all =>
  fc
    .record({
      limits: settlingLimits(all),
      rules: rulesOver(all),
    })
    .map(rest => ({
      format: 'periwinkle-component/1',
      id: 'specimen',
      anatomy: {
        part: 'root',
        kind: 'stack',
        children: [{ part: 'frame', kind: 'row', children: [{ part: 'control', kind: 'control' }] }],
      },
      axes: all,
      ...rest,
    })),
);
