import fc from 'fast-check';
import type {
  AxisDocument,
  ComponentDocument,
  PartDocument,
  RuleDocument,
} from '../formats/component-document';
import { conditionOver, settlingLimits, valuesOf } from './random-component';
import type { Library } from './naive-nesting';

/** Random systems of three levels: a leaf, what uses it once or twice, and what uses that; bindings in all forms. */

const TEXTS: Readonly<Record<string, readonly string[]>> = {
  'border-top-color': ['#112233', '#445566', '#778899'],
  'min-height': ['4px', '6px'],
  opacity: ['0.5', '1'],
  width: ['7px', 'calc(@root.min-height * 2 + 1px)'],
};

const AXES: readonly AxisDocument[] = [
  { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }], default: 'large' },
  { id: 'tone', kind: 'option', values: [{ id: 'calm' }, { id: 'loud' }, { id: 'bad' }] },
  { id: 'pointer', kind: 'state' },
  { id: 'validity', kind: 'state' },
  { id: 'availability', kind: 'state' },
];

const axes = (least: number): fc.Arbitrary<AxisDocument[]> =>
  fc.subarray([...AXES], { minLength: least, maxLength: 2 });

/** One of the forms in which an axis can follow its parent's. */
function binding(axis: AxisDocument, parent: readonly AxisDocument[]): fc.Arbitrary<unknown> {
  const value = fc.constantFrom(...valuesOf(axis));
  const same = parent.filter(each => each.id === axis.id).map(each => fc.constant<unknown>(each.id));
  const mapped = parent.map(each =>
    fc
      .subarray(valuesOf(each), { minLength: 1 })
      .chain(keys => fc.tuple(...keys.map(key => value.map(to => [key, to] as const))))
      .map((entries): unknown => ({ axis: each.id, map: Object.fromEntries(entries) })),
  );
  const cases = fc
    .array(fc.record({ when: conditionOver(parent), is: value }), { maxLength: 3 })
    .map((list): unknown => list);
  return fc.oneof(
    value.map((is): unknown => ({ is })),
    cases,
    ...same,
    ...mapped,
  );
}

function use(
  part: string,
  other: ComponentDocument,
  parent: readonly AxisDocument[],
): fc.Arbitrary<PartDocument> {
  return fc
    .subarray([...other.axes!])
    .chain(bound =>
      fc.tuple(...bound.map(axis => binding(axis, parent).map(written => [axis.id, written] as const))),
    )
    .map(entries => ({ part, kind: 'use', component: other.id, with: Object.fromEntries(entries) }));
}

const rules = (
  own: readonly AxisDocument[],
  parts: readonly string[],
  nested: readonly string[],
): fc.Arbitrary<RuleDocument[]> => {
  const setting = fc
    .constantFrom(...Object.keys(TEXTS))
    .chain(name => fc.constantFrom(...TEXTS[name]!).map(text => [name, text] as const));
  const set = fc.array(setting, { minLength: 1, maxLength: 2 }).map(entries => Object.fromEntries(entries));
  return fc
    .array(
      fc.record({
        when: conditionOver(own),
        set: fc.dictionary(fc.constantFrom(...parts), set, { minKeys: 1, maxKeys: 2 }),
        after: fc.oneof(
          { weight: 3, arbitrary: fc.constant(undefined) },
          ...(nested.length > 0 ? [{ weight: 1, arbitrary: fc.constantFrom(...nested) }] : []),
        ),
      }),
      { maxLength: 4 },
    )
    .map(list =>
      list.map(({ after, when, set: said }, index) => ({
        id: `r${index}`,
        when,
        ...(after === undefined ? {} : { after }),
        set: { ...said },
      })),
    );
};

interface Level {
  readonly document: ComponentDocument;
  /** Names of all parts within, and of all rules. */
  readonly parts: readonly string[];
  readonly rules: readonly string[];
}

function level(id: string, below: Level | null): fc.Arbitrary<Level> {
  // Each bears states of its own, so that no two are told by one element.
  const bearer: PartDocument = { part: 'bearer', kind: id === 'outer' ? 'control' : 'action' };
  return axes(below ? 1 : 0).chain(own => {
    const uses = below
      ? fc.oneof(
          use('one', below.document, own).map(one => [one]),
          fc.tuple(use('one', below.document, own), use('two', below.document, own)),
        )
      : fc.constant<PartDocument[]>([]);
    return uses.chain(children => {
      const inside = children.flatMap(({ part }) => [part, ...below!.parts.map(name => `${part}/${name}`)]);
      const nested = children.flatMap(({ part }) => below!.rules.map(name => `${part}/${name}`));
      const parts = ['root', 'frame', 'bearer', ...inside];
      return fc.record({ limits: settlingLimits(own), rules: rules(own, parts, nested) }).map(rest => ({
        document: {
          format: 'periwinkle-component/1',
          id,
          anatomy: {
            part: 'root',
            kind: 'row',
            children: [{ part: 'frame', kind: 'row', children: [...children, bearer] }],
          },
          axes: own,
          ...rest,
        },
        parts,
        rules: [...nested, ...rest.rules.map(rule => rule.id)],
      }));
    });
  });
}

/** Documents by id; the last one holds the others. */
export const randomNested: fc.Arbitrary<Library> = level('leaf', null).chain(leaf =>
  level('middle', leaf).chain(middle =>
    level('outer', middle).map(
      outer => new Map([leaf, middle, outer].map(({ document }) => [document.id, document])),
    ),
  ),
);
