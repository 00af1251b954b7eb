import { randomly } from '../test/runs';
import fc from 'fast-check';
import { compileSystem, componentNamed, type System } from '../components/system';
import type { Component } from '../components/component';
import type { BehaviourDocument, CheckDocument } from '../documents/behaviour-document';
import type { ComponentDocument, SampleDocument } from '../documents/component-document';
import { ProblemList } from '../json/problem';
import type { Box } from '../space/box';
import { readCondition } from '../space/condition';
import { inBox } from '../space/space';
import { demoSystem, documentsWithoutBehaviour } from '../test/demo';
import { smallDocuments } from '../test/small-system';
import { readAct, RefusedAct } from './acts';
import { candidateActs } from './candidate-acts';
import { seenAt } from './rendered-field';
import type { FieldState } from './field-state';
import { performAct, type Seen } from './user-input';
import { beginning, play } from './play';
import { named } from './make-plan';
import { reach, searchAim, type Reached } from './reach';
import { combinationAt } from './derived-states';
import { candidateValues } from './candidate-values';

const system = demoSystem();
const family = system.components.filter(({ anatomy, document }) => anatomy.control && document.behaviour);

const boxOf = ({ space }: Component, when: Record<string, string>): Box =>
  readCondition(when, space.axes, '', new ProblemList())!;

function reached(id: string, when: Record<string, string>): Reached {
  const component = componentNamed(system, id)!;
  return reach({ system, component, sample: component.samples[0], target: boxOf(component, when) });
}

/** A field with a behaviour of the test's own. */
function behaving(id: string, behaviour: BehaviourDocument): Component {
  const documents = documentsWithoutBehaviour(system);
  const path = system.fileOf.get(id)!;
  const document = { ...(documents.get(path) as ComponentDocument), behaviour };
  return componentNamed(compileSystem(documents.set(path, document)), id)!;
}

test('every situation of a field of the demo comes about', () => {
  const told = family.flatMap(component =>
    component.situations.map(({ id, region }) => {
      const found = reach({ system, component, sample: component.samples[0], target: region });
      return `${component.id}, ${id}: ${found.reachable === true ? found.acts.join(' · ') : found.because}`;
    }),
  );
  expect(told).toMatchSnapshot();
  expect(told.filter(text => text.includes('Nothing that') || text.includes('together'))).toEqual([]);
});

test.each([
  ['text-field', { validity: 'invalid', availability: 'readonly' }, 'The limits allow no such combination.'],
  ['text-field', { size: 'large', appearance: 'rising', validity: 'invalid' }, null],
  ['berth', { disclosure: 'open', element: 'select' }, 'The limits allow no such combination.'],
  ['berth', { disclosure: 'closed', element: 'select', validity: 'invalid' }, null],
  ['crew', { range: 'max', focus: 'keyboard', size: 'small' }, null],
  ['tide-time', { clock: 'twelve', validity: 'valid' }, null],
])('%s, %j', (id, when, because) => {
  const found = reached(id, when);
  if (because === null) {
    const { space } = componentNamed(system, id)!;
    expect(
      found.reachable === true &&
        inBox(boxOf(componentNamed(system, id)!, when), space.indices(found.combination)),
    ).toBe(true);
  } else expect(found).toEqual({ reachable: false, because });
});

test('what never comes about is told: nothing approves, nothing reveals', () => {
  const plain = behaving('passphrase', { value: { kind: 'secret' } });
  const told = (when: Record<string, string>): unknown =>
    reach({ system, component: plain, sample: plain.samples[0], target: boxOf(plain, when) });
  expect(told({ validity: 'valid' })).toEqual({
    reachable: false,
    because: 'Nothing that a person or the application does leads to validity=valid.',
  });
  expect(told({ secret: 'shown', focus: 'keyboard' })).toEqual({
    reachable: false,
    because: 'Nothing that a person or the application does leads to secret=shown.',
  });
});

test('moves of a component’s own are tried, before what the application does', () => {
  const moved = behaving('passphrase', {
    value: { kind: 'secret' },
    moves: [{ id: 'hint', on: 'press help', do: ['set requirement=required'] }],
  });
  const found = reach({
    system,
    component: moved,
    sample: moved.samples[0],
    target: boxOf(moved, { requirement: 'required' }),
  });
  expect(found).toMatchObject({ reachable: true, acts: ['press help'] });
});

/** A field on its own: a frame with a control and the buttons that its kind knows. */
function small(
  behaviour: BehaviourDocument,
  axes: readonly string[],
  content: SampleDocument['content'],
  more: object = {},
): { readonly system: System; readonly component: Component } {
  const parts = Object.values(behaviour.parts ?? {});
  const documents = smallDocuments({
    component: {
      anatomy: {
        part: 'root',
        kind: 'stack',
        children: [
          {
            part: 'frame',
            kind: 'row',
            children: [
              { part: 'inner', kind: 'control', element: 'input', content: 'value' },
              ...parts.map(part => ({ part, kind: 'action' })),
            ],
          },
          { part: 'message', kind: 'text', content: 'message' },
        ],
      },
      axes: axes.map(id => ({ id, kind: 'state' })),
      behaviour,
      samples: [{ id: 'x', title: 'X', content }],
      ...more,
    },
  });
  const made = compileSystem(documents);
  return { system: made, component: made.components[0]! };
}

/** Whether it comes about, and why not. */
function answered(
  { system: own, component }: ReturnType<typeof small>,
  when: Record<string, string>,
): Reached {
  return reach({ system: own, component, sample: component.samples[0], target: boxOf(component, when) });
}

const CAPITAL = { id: 'capital', kind: 'pattern', pattern: '^[A-Z]' };
const STATES = ['pointer', 'focus', 'content', 'validity'];

test.each<[string, BehaviourDocument, readonly string[], SampleDocument['content'], Record<string, string>]>([
  ['a pattern without a sample', { checks: [CAPITAL] }, STATES, {}, { validity: 'invalid' }],
  [
    'an approved pattern',
    { checks: [CAPITAL], judging: { approve: true } },
    STATES,
    {},
    { validity: 'valid' },
  ],
  [
    'a length without anything wrong',
    { value: { kind: 'text', most: 20 }, checks: [{ id: 'long', kind: 'length' }] },
    STATES,
    { value: 'Tern' },
    { validity: 'invalid' },
  ],
  [
    'a time that is none',
    { value: { kind: 'time' }, checks: [{ id: 'kind', kind: 'kind' }] },
    STATES,
    {},
    { validity: 'invalid' },
  ],
  [
    'a count within its ends that is wrong',
    {
      value: { kind: 'count', least: 1, most: 24 },
      checks: ['kind', 'least', 'most'].map(kind => ({ id: kind, kind })),
    },
    [...STATES, 'range'],
    { value: '3' },
    { validity: 'invalid', range: 'within' },
  ],
  ...['min', 'max'].map(
    (
      range,
    ): [string, BehaviourDocument, readonly string[], SampleDocument['content'], Record<string, string>] => [
      `a count beyond its ${range}`,
      {
        value: { kind: 'count', least: -1, most: 1 },
        checks: ['least', 'most'].map(kind => ({ id: kind, kind })),
      },
      [...STATES, 'range'],
      {},
      { validity: 'invalid', range },
    ],
  ),
  [
    'what is not the same as in another field',
    { checks: [{ id: 'same', kind: 'equals', equals: 'first' }] },
    STATES,
    {},
    { validity: 'invalid' },
  ],
  [
    'what is later than in another field',
    { value: { kind: 'time' }, checks: [{ id: 'late', kind: 'most', most: { field: 'arrival' } }] },
    STATES,
    { value: '12:00' },
    { validity: 'invalid', content: 'filled' },
  ],
])('%s comes about', (_, behaviour, axes, content, when) => {
  const made = small(behaviour, axes, content);
  const found = answered(made, when);
  expect(found).toMatchObject({ reachable: true });
  if (found.reachable !== true) return;
  const { system: own, component } = made;
  const last = play({ system: own, component, sample: component.samples[0], acts: found.acts }).at(-1)!;
  expect(inBox(boxOf(component, when), component.space.indices(last.combination))).toBe(true);
});

test.each<[BehaviourDocument, Record<string, string>, string]>([
  [
    { checks: [{ id: 'odd', kind: 'pattern', pattern: 'a{3}(?!a|b|c)(?<!a)' }], judging: { approve: true } },
    { validity: 'valid' },
    'no value is known that passes “odd”',
  ],
  [
    { checks: [{ id: 'any', kind: 'pattern', pattern: '^.*$' }] },
    { validity: 'invalid', focus: 'in' },
    'no value is known that fails “any”',
  ],
])('what no value is known for is told so, and nothing claimed: %j', (behaviour, when, because) => {
  expect(answered(small(behaviour, STATES, {}), when)).toEqual({ reachable: 'unknown', because });
});

test('what depends on no value is claimed all the same', () => {
  const odd = small(
    { checks: [{ id: 'odd', kind: 'pattern', pattern: '(?<=x)$.' }] },
    [...STATES, 'secret'],
    {},
  );
  expect(answered(odd, { secret: 'shown' })).toMatchObject({ reachable: false });
});

/** States that a region may name, with any of their values. */
const regions = (component: Component): fc.Arbitrary<Record<string, string>> =>
  fc
    .subarray(
      component.space.axes.filter(
        ({ id, kind }) => kind === 'state' && !['pointer', 'autofill'].includes(id),
      ),
      { minLength: 1, maxLength: 3 },
    )
    .chain(axes =>
      fc.record(
        Object.fromEntries(
          axes.map(({ id, values }) => [id, fc.constantFrom(...values.map(value => value.id))]),
        ),
      ),
    );

/** Places within some acts of rest, told apart by all that a state holds: the plain walk. */
function plainWalk(
  component: Component,
  target: Box,
  own: System = system,
  most = 3,
  more: readonly string[] = [],
): number | null {
  const { field, state: start } = beginning({ system: own, component, sample: component.samples[0] });
  const tries = [...candidateActs(field, candidateValues(field), searchAim(component, target)), ...more];
  const acts = tries.map(text => named(component, readAct(text)));
  const seen = new Map<string, Seen>();
  const look = (state: FieldState): Seen => {
    const key = JSON.stringify([
      combinationAt(field.plan, state),
      state.complaint,
      state.isOpen,
      state.value,
    ]);
    if (!seen.has(key)) seen.set(key, seenAt(field, state));
    return seen.get(key)!;
  };
  let level = [start];
  const known = new Set([JSON.stringify(start)]);
  for (let depth = 0; depth <= most; depth++) {
    if (level.some(state => inBox(target, combinationAt(field.plan, state)))) return depth;
    const next: FieldState[] = [];
    for (const state of level)
      for (const what of acts) {
        if (what.kind === 'answer' && !state.asking) continue;
        try {
          const { state: then } = performAct(field.plan, state, what, look);
          const key = JSON.stringify(then);
          if (!known.has(key)) next.push(then);
          known.add(key);
        } catch (error) {
          if (!(error instanceof RefusedAct)) throw error;
        }
      }
    level = next;
  }
  return null;
}

test('is as short as a plain walk finds it, and leads there when it is played', () => {
  fc.assert(
    fc.property(
      fc
        .constantFrom(...family.map(({ id }) => id))
        .chain(id => fc.tuple(fc.constant(id), regions(componentNamed(system, id)!))),
      ([id, when]) => {
        const component = componentNamed(system, id)!;
        const target = boxOf(component, when);
        const found = reach({ system, component, sample: component.samples[0], target });
        const plain = plainWalk(component, target);
        if (plain !== null) expect(found.reachable === true && found.acts.length).toBe(plain);
        if (found.reachable !== true) return;
        const played = play({ system, component, sample: component.samples[0], acts: found.acts }).at(-1);
        if (played) expect(inBox(target, component.space.indices(played.combination))).toBe(true);
      },
    ),
    randomly('reach'),
  );
});

/** Patterns, each with a text that matches and one that does not. */
const PATTERNS: readonly (readonly [pattern: string, matches: string, not: string])[] = [
  ['^[A-Z]', 'Heron', 'heron'],
  ['^\\d{2,3}$', '12', '1'],
  ['^[A-Z]{2}-\\d+$', 'QX-7', 'Q'],
  ['quay', 'north quay', 'pier'],
  ['^(?=.*\\d).{4,}$', 'abc1', 'abcd'],
];

const checkOf = fc.oneof(
  fc.constantFrom<Omit<CheckDocument, 'id'>>(
    { kind: 'required' },
    { kind: 'kind' },
    { kind: 'ask', ask: 'register' },
    { kind: 'equals', equals: 'first' },
    { kind: 'least', least: 2 },
    { kind: 'most', most: 4 },
    { kind: 'most', most: { field: 'first' } },
    { kind: 'length', length: { least: 2 } },
    { kind: 'length', length: { most: 4 } },
    { kind: 'length', length: 3 },
  ),
  fc.constantFrom(...PATTERNS).map(([pattern]) => ({ kind: 'pattern', pattern })),
);
const valueOf = fc.oneof(
  fc.constantFrom<BehaviourDocument['value']>(
    { kind: 'text' },
    { kind: 'text', most: 3 },
    { kind: 'area' },
    { kind: 'amount' },
    { kind: 'time' },
    { kind: 'toggle' },
    { kind: 'code', length: 3 },
    { kind: 'secret' },
    { kind: 'search' },
  ),
  fc
    .tuple(fc.integer({ min: -2, max: 3 }), fc.integer({ min: 3, max: 5 }))
    .map(([least, most]) => ({ kind: 'count', least, most })),
);
const PARTS: Readonly<Record<string, object>> = {
  count: { less: 'less', more: 'more' },
  secret: { reveal: 'reveal' },
  search: { clear: 'clear' },
};
const EVERY_STATE = [
  'focus',
  'content',
  'validity',
  'requirement',
  'availability',
  'selection',
  'range',
  'secret',
];
const TEXTS = [
  'a',
  'A',
  '1',
  '3',
  '7',
  '-9',
  'abcd',
  'Abcdefgh',
  '12:30',
  ...PATTERNS.flatMap(([, ...texts]) => texts),
];

test('claims nothing that a plain walk with other texts finds to come about; little is unknown', () => {
  const told = { questions: 0, unknown: 0 };
  const behaviours = fc.record({
    value: valueOf,
    checks: fc.array(checkOf, { maxLength: 3 }),
    judging: fc.record({
      complain: fc.constantFrom('leaving', 'sending', 'typing'),
      forgive: fc.constantFrom('leaving', 'sending', 'typing'),
      approve: fc.boolean(),
    }),
  });
  fc.assert(
    fc.property(
      behaviours,
      fc.subarray(EVERY_STATE, { minLength: 2 }),
      fc.option(fc.constantFrom('3', 'Heron', '12:30'), { nil: undefined }),
      fc.infiniteStream(fc.nat()),
      ({ value, checks, judging }, axes, text, random) => {
        const behaviour = {
          value,
          judging,
          checks: checks.map((check, place) => ({ id: `c${place}`, ...check })),
          parts: PARTS[value!.kind] ?? {},
        } as BehaviourDocument;
        const made = small(behaviour, axes, text === undefined ? {} : { value: text });
        const { component } = made;
        for (let question = 0; question < 4; question++) {
          const named = component.space.axes.filter(() => random.next().value % 3 === 0);
          const when = Object.fromEntries(
            named.map(({ id, values }) => [id, values[random.next().value % values.length]!.id]),
          );
          const found = answered(made, when);
          told.questions++;
          if (found.reachable === 'unknown') told.unknown++;
          if (found.reachable !== false) continue;
          const more = [...TEXTS.map(each => `type ${each}`), 'app requirement=required'].filter(
            act => !act.startsWith('app') || axes.includes('requirement'),
          );
          const plain = plainWalk(component, boxOf(component, when), made.system, 3, more);
          expect(plain === null ? null : { plain, when, behaviour, text, because: found.because }).toBeNull();
        }
      },
    ),
    randomly('reach of small systems'),
  );
  // Of few questions many may be unknown by chance.
  if (told.questions > 100) expect(told.unknown).toBeLessThan(told.questions / 8);
});
