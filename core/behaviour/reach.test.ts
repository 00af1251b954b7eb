import fc from 'fast-check';
import { compileSystem, componentNamed } from '../components/system';
import type { Component } from '../components/component';
import type { BehaviourDocument, ComponentDocument } from '../formats/component-document';
import { ProblemList } from '../formats/problem';
import type { Box } from '../space/box';
import { readCondition } from '../space/condition';
import { inBox } from '../space/space';
import { demoSystem, documentsWithoutBehaviour } from '../test/demo';
import { freshSeed } from '../test/seed';
import { readAct, RefusedAct } from './acts';
import { alphabetOf } from './alphabet';
import { seenAt } from './drawn-field';
import type { FieldState } from './field-state';
import { act, type Seen } from './hands';
import { beginning, play } from './play';
import { named } from './plan-of';
import { reach, textsOf, wantedOf, type Reached } from './reach';
import { combinationAt } from './states';

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
      return `${component.id}, ${id}: ${found.reachable ? found.acts.join(' · ') : found.because}`;
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
      found.reachable && inBox(boxOf(componentNamed(system, id)!, when), space.indices(found.combination)),
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

/** Places within three acts of rest, told apart by all that a state holds: the plain walk. */
function plainWalk(component: Component, target: Box): number | null {
  const { field, state: start } = beginning({ system, component, sample: component.samples[0] });
  const tries = alphabetOf(field, textsOf(field), wantedOf(component, target));
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
  for (let depth = 0; depth <= 3; depth++) {
    if (level.some(state => inBox(target, combinationAt(field.plan, state)))) return depth;
    const next: FieldState[] = [];
    for (const state of level)
      for (const what of acts) {
        if (what.kind === 'answer' && !state.asking) continue;
        try {
          const { state: then } = act(field.plan, state, what, look);
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
        if (plain !== null) expect(found.reachable && found.acts.length).toBe(plain);
        if (!found.reachable) return;
        const played = play({ system, component, sample: component.samples[0], acts: found.acts }).at(-1);
        if (played) expect(inBox(target, component.space.indices(played.combination))).toBe(true);
      },
    ),
    { seed: freshSeed('reach'), numRuns: Number(process.env['PERIWINKLE_RUNS'] ?? 25) },
  );
});
