import fc from 'fast-check';
import type {
  AxisDocument,
  ComponentDocument,
  DerivedDocument,
  OverlayDocument,
  ParameterDocument,
  RuleDocument,
} from '../documents/component-document';
import type { PartDocument } from '../documents/part-document';
import { plainDerived } from './naive-derivation';
import { conditionOver, settlingLimits, valuesOf } from './random-component';
import type { Library } from './naive-nesting';

/** Random systems of three levels: a leaf, what uses it once or twice, and what uses that; bindings in all forms. */

type Texts = Readonly<Record<string, readonly string[]>>;

const TEXTS: Texts = {
  'border-top-color': ['#112233', '#445566', '#778899'],
  'min-height': ['4px', '6px'],
  opacity: ['0.5', '1'],
  width: ['7px', 'calc(@root.min-height * 2 + 1px)'],
};

/** Texts of which some name the parameter that every component has, directly or through what others say of themselves. */
const WITH_PARAMETERS: Texts = {
  ...TEXTS,
  'padding-inline-start': ['@room', '3px', 'calc(@room + 1px)', '1em'],
  'font-size': ['20px', 'calc(@room + 9px)'],
  width: ['calc(@root.padding-inline-start * 3)', 'calc(@bearer.padding-inline-start * 2)', '@room'],
};

/** What whoever uses a component may set of it, and what uses give. */
const PARAMETERS: readonly ParameterDocument[] = [{ id: 'room', type: 'dimension', default: '9px' }];
const GIVEN = ['2px', '0px', '1em', '@room'];

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
  const given = other.parameters
    ? fc
        .option(fc.constantFrom(...GIVEN), { nil: undefined })
        .map(room => (room === undefined ? {} : { parameters: { room } }))
    : fc.constant({});
  return fc
    .tuple(
      given,
      fc
        .subarray([...other.axes!])
        .chain(bound =>
          fc.tuple(...bound.map(axis => binding(axis, parent).map(written => [axis.id, written] as const))),
        ),
    )
    .map(([parameters, entries]) => ({
      part,
      kind: 'use',
      component: other.id,
      with: Object.fromEntries(entries),
      ...parameters,
    }));
}

const rules = (
  own: readonly AxisDocument[],
  parts: readonly string[],
  nested: readonly string[],
  texts: Texts,
): fc.Arbitrary<RuleDocument[]> => {
  const setting = fc
    .constantFrom(...Object.keys(texts))
    .chain(name => fc.constantFrom(...texts[name]!).map(text => [name, text] as const));
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

function level(id: string, below: Level | null, texts = TEXTS): fc.Arbitrary<Level> {
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
      return fc
        .record({ limits: settlingLimits(own), rules: rules(own, parts, nested, texts) })
        .map(rest => ({
          document: {
            format: 'periwinkle-component/1',
            id,
            anatomy: {
              part: 'root',
              kind: 'row',
              children: [{ part: 'frame', kind: 'row', children: [...children, bearer] }],
            },
            axes: own,
            ...(texts === WITH_PARAMETERS ? { parameters: PARAMETERS } : {}),
            ...rest,
          },
          parts,
          rules: [...nested, ...rest.rules.map(rule => rule.id)],
        }));
    });
  });
}

const threeLevels = (texts: Texts): fc.Arbitrary<Library> =>
  level('leaf', null, texts).chain(leaf =>
    level('middle', leaf, texts).chain(middle =>
      level('outer', middle, texts).map(
        outer => new Map([leaf, middle, outer].map(({ document }) => [document.id, document])),
      ),
    ),
  );

/** Documents by id; the last one holds the others. */
export const randomNested = threeLevels(TEXTS);

/** The same with parameters that uses give and calculations refer through. */
export const randomNestedWithParameters = threeLevels(WITH_PARAMETERS);

/** A level, or what is derived from it: an option more, rules laid over others, left out, added, behind nested ones too. */
const derivedFrom = (base: Level): fc.Arbitrary<Written> => {
  const { document, parts, rules: names } = base;
  const own = document.rules ?? [];
  const id = `${document.id}-over`;
  const extra: AxisDocument = { id: 'extra', kind: 'option', values: [{ id: 'less' }, { id: 'more' }] };
  const setting = fc
    .constantFrom(...parts)
    .chain(part =>
      fc
        .constantFrom(...Object.keys(TEXTS))
        .chain(name => fc.constantFrom(...TEXTS[name]!).map(text => [part, name, text] as const)),
    );
  const overlay = (rule: RuleDocument): fc.Arbitrary<OverlayDocument> => {
    const there = Object.entries(rule.set).flatMap(([part, set]) =>
      Object.keys(set).map(name => [part, name, null] as const),
    );
    return fc
      .tuple(
        fc.subarray(there, { maxLength: Math.min(1, there.length) }),
        fc.array(setting, { maxLength: 2 }),
      )
      .map(([out, more]) => ({ id: rule.id, set: bySlot([...out, ...more]) }));
  };
  return fc
    .record({
      axes: fc.subarray([extra]),
      out: fc.subarray([...own], { maxLength: Math.min(1, own.length) }),
    })
    .chain(({ axes: added, out }) => {
      const left = own.filter(rule => !out.includes(rule));
      const behind = [...names.filter(name => name.includes('/')), ...left.map(rule => rule.id)];
      const fresh = fc.record({
        when: conditionOver([...document.axes!, ...added]),
        set: fc.array(setting, { minLength: 1, maxLength: 2 }).map(bySlot),
        after: fc.option(fc.constantFrom(...(behind.length > 0 ? behind : [''])), { nil: '' }),
      });
      return fc
        .record({
          laid: fc
            .subarray(left, { maxLength: Math.min(2, left.length) })
            .chain(some => fc.tuple(...some.map(overlay))),
          more: fc.array(fresh, { maxLength: 2 }),
        })
        .map(({ laid, more }): Written => {
          const derived = {
            format: 'periwinkle-component/1',
            id,
            extends: document.id,
            axes: added,
            without: { rules: out.map(rule => rule.id) },
            rules: [
              ...laid,
              ...more.map(({ after, ...rule }, index) => ({
                id: `n${index}`,
                ...rule,
                ...(after === '' ? {} : { after }),
              })),
            ],
          } as DerivedDocument;
          const plain = plainDerived(document, derived);
          const nested = names.filter(name => name.includes('/'));
          return {
            level: {
              document: plain,
              parts,
              rules: [...nested, ...(plain.rules ?? []).map(rule => rule.id)],
            },
            written: [document, derived],
          };
        });
    });
};

interface Written {
  /** What it stands for. */
  readonly level: Level;
  readonly written: readonly (ComponentDocument | DerivedDocument)[];
}

function bySlot(entries: readonly (readonly [part: string, property: string, text: string | null])[]) {
  const set: Record<string, Record<string, string>> = {};
  for (const [part, property, text] of entries) (set[part] ??= {})[property] = text as string;
  return set;
}

export interface NestedAndDerived {
  /** What each component stands for, by id; the last one holds the others. */
  readonly library: Library;
  readonly written: readonly (ComponentDocument | DerivedDocument)[];
}

/** The same with components derived at every level: a derived one holds derived ones, which hold derived ones. */
export const randomNestedAndDerived: fc.Arbitrary<NestedAndDerived> = level('leaf', null)
  .chain(derivedFrom)
  .chain(leaf =>
    level('middle', leaf.level)
      .chain(derivedFrom)
      .chain(middle =>
        level('outer', middle.level)
          .chain(derivedFrom)
          .map(outer => {
            const all = [leaf, middle, outer];
            return {
              library: new Map(all.map(({ level: { document } }) => [document.id, document])),
              written: all.flatMap(each => each.written),
            };
          }),
      ),
  );
