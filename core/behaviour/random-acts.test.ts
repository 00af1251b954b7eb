import { randomly } from '../test/runs';
import fc from 'fast-check';
import { componentNamed } from '../components/system';
import type { BehaviourDocument } from '../documents/behaviour-document';
import { demoSystem } from '../test/demo';
import { readAct, RefusedAct, type Act } from './acts';
import type { FieldState } from './field-state';
import { performAct, type Seen } from './user-input';
import { firstFailing } from './validation';
import { atRest } from './machine';
import { planOf } from './make-plan';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';

/** Whatever acts come in whatever order, the field stays in order. */

const EVERYTHING_THERE: Seen = {
  isThere: () => true,
  letsThrough: () => false,
  isDisabled: () => false,
  entries: () =>
    ['North quay 2', 'North quay 4', 'Salt wharf', 'Lantern pier'].map((text, place) => ({
      id: text,
      text,
      isDisabled: place === 3,
    })),
};

const demo = demoSystem();
const BEHAVIOURS: Readonly<Record<string, BehaviourDocument>> = {
  'text-field': { value: { kind: 'text', most: 5 } },
  notes: { value: { kind: 'area' } },
  passphrase: { value: { kind: 'secret' }, parts: { reveal: 'reveal' } },
  crew: { value: { kind: 'count', least: -1, most: 3, step: 0.5 }, parts: { less: 'less', more: 'more' } },
  'harbour-dues': { value: { kind: 'amount' } },
  'tide-time': { value: { kind: 'time' } },
  'gate-code': { value: { kind: 'code', length: 4, of: 'digits' } },
  berth: { value: { kind: 'choice' } },
  'find-vessel': { value: { kind: 'search' }, parts: { clear: 'clear' } },
};
const CHECKS: BehaviourDocument['checks'] = [
  { id: 'required', kind: 'required' },
  { id: 'kind', kind: 'kind' },
  { id: 'capital', kind: 'pattern', pattern: '^[A-Z0-9-]' },
  { id: 'long', kind: 'length', length: { most: 4 } },
  { id: 'known', kind: 'ask', ask: 'register' },
];

const plans: readonly Plan[] = Object.entries(BEHAVIOURS).flatMap(([id, behaviour]) => {
  const component = componentNamed(demo, id)!;
  return (['leaving', 'sending', 'typing'] as const).map(complain =>
    planOf({
      ...component,
      document: {
        ...component.document,
        behaviour: { ...behaviour, checks: CHECKS, judging: { complain, forgive: 'typing', approve: true } },
      },
    }),
  );
});

const words = fc.constantFrom(
  'a',
  'Osprey',
  '3',
  '330p',
  '1,240.5',
  '-',
  '.5',
  ' ',
  '👩‍👩‍👧',
  'خوش',
  'two\nlines',
);
const keys = fc.constantFrom(
  ...[
    'Backspace',
    'Delete',
    'ArrowLeft',
    'ArrowRight',
    'ArrowUp',
    'ArrowDown',
    'Home',
    'End',
    'PageUp',
    'Enter',
    'Escape',
    'Tab',
  ],
  ...['Shift+Tab', 'Shift+ArrowLeft', 'Control+a', 'Space', 'x', 'F5'],
);
const acts = (plan: Plan): fc.Arbitrary<readonly string[]> => {
  const parts = fc.constantFrom(...Object.keys(plan.targets));
  const one = fc.oneof(
    { weight: 3, arbitrary: words.map(word => `type ${word}`) },
    { weight: 3, arbitrary: keys.map(key => `key ${key}`) },
    { weight: 3, arbitrary: parts.map(part => `press ${part}`) },
    parts.map(part => `point ${part}`),
    words.map(word => `paste ${word}`),
    words.map(word => `autofill ${word}`),
    fc.constantFrom('leave', 'send', 'reset', 'point away', 'release', 'wait 300ms'),
    fc.constantFrom('answer register accepted', 'answer register rejected'),
    fc.constantFrom('app availability=disabled', 'app availability=readonly', 'app availability=enabled'),
    fc.constantFrom('app locale=de', 'app locale=ar-EG', 'hold more', 'press entry:1', 'press entry:4'),
    fc.constantFrom('app requirement=required', 'app requirement=optional', 'app value=Heron'),
  );
  return fc.array(one, { minLength: 1, maxLength: 40 });
};

/** An act as it is written; entries of a list are called so. */
function read(plan: Plan, text: string): Act {
  const what = readAct(text);
  return 'part' in what && what.part === 'entry' ? { ...what, part: plan.roles.entry ?? 'entry' } : what;
}

/** Does an act; one that is refused changes nothing. */
function tried(plan: Plan, state: FieldState, what: Act): FieldState {
  try {
    // The buttons of a disabled field are off with it.
    const look = ({ set }: FieldState): Seen => ({
      ...EVERYTHING_THERE,
      isDisabled: () => set['availability'] === 'disabled',
    });
    return performAct(plan, state, what, look).state;
  } catch (error) {
    if (error instanceof RefusedAct) return state;
    throw error;
  }
}

const isAllowed = (plan: Plan, combination: readonly number[]): boolean =>
  plan.limits.every(
    ({ region, holds }) =>
      !region.every((mask, axis) => (mask >> combination[axis]!) & 1) ||
      holds.every(({ axis, allowed }) => (allowed >> combination[axis]!) & 1),
  );

/** Acts by which a person may change the value, or the application does. */
const CHANGING = /^(type|paste|autofill|key|press|app value|reset|hold|wait|release)/;

test('always an allowed combination, a readable value, a selection within it, a complaint that holds; nothing typed is lost by itself', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...plans).chain(plan => fc.tuple(fc.constant(plan), acts(plan))),
      ([plan, sequence]) => {
        let state = atRest(plan, { value: 'Tern' });
        for (const text of sequence) {
          const before = state;
          state = tried(plan, state, read(plan, text));
          expect(isAllowed(plan, combinationAt(plan, state))).toBe(true);
          const [from, to] = state.selection;
          expect(from >= 0 && from <= to && to <= state.text.length).toBe(true);
          if (!CHANGING.test(text)) expect(state.value).toBe(before.value);
          if (state.complaint !== null && text.startsWith('key')) {
            // What is complained of while one types still fails.
            const failing = firstFailing(plan, state);
            expect(failing === null || failing.isOpen).toBe(false);
          }
          if (state.complaint !== null) expect(state.isApproved).toBe(false);
          if (state.set['availability'] === 'disabled') expect(state.focus).toBeNull();
        }
        expect(tried(plan, state, readAct('reset'))).toMatchObject({
          value: 'Tern',
          complaint: null,
          isApproved: false,
          asking: null,
        });
      },
    ),
    randomly('acts'),
  );
});

test('the same acts come to the same, and leave what they are given as it was', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...plans).chain(plan => fc.tuple(fc.constant(plan), acts(plan))),
      ([plan, sequence]) => {
        const start = Object.freeze(atRest(plan));
        const once = sequence.reduce(
          (state, text) => Object.freeze(tried(plan, state, read(plan, text))),
          start,
        );
        const again = sequence.reduce((state, text) => tried(plan, state, read(plan, text)), start);
        expect(again).toEqual(once);
        // Plain data: it can be kept, sent to a worker, shipped.
        expect(JSON.parse(JSON.stringify([plan.targets, once]))).toEqual([plan.targets, once]);
      },
    ),
    randomly('acts again'),
  );
});
