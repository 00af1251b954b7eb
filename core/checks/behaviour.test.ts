import { compileSystem, componentNamed } from '../components/system';
import type { BehaviourDocument, WalkthroughDocument } from '../documents/behaviour-document';
import type { ComponentDocument } from '../documents/component-document';
import { demoSystem, documentsWithoutBehaviour } from '../test/demo';
import { checkSystem } from './check-system';
import { patternFault } from './pattern-fault';

const demo = demoSystem();
const path = demo.fileOf.get('text-field')!;

const documents = documentsWithoutBehaviour(demo);

/** Problems of the text field with a behaviour and a walkthrough. */
const problems = (behaviour: object, walkthroughs: readonly object[] = []) => {
  const document = {
    ...(demo.documents.get(path) as ComponentDocument),
    behaviour: behaviour as BehaviourDocument,
    walkthroughs: walkthroughs as readonly WalkthroughDocument[],
  };
  const found = checkSystem(new Map(documents).set(path, document)).problems;
  // The samples are those of the field as it was, with another kind of value and other checks.
  return found
    .filter(({ pointer }) => !pointer.startsWith('/samples'))
    .map(
      ({ pointer, code, suggestion }) =>
        `${pointer} ${code}${suggestion === undefined ? '' : ` (${suggestion})`}`,
    );
};

test('a sound behaviour has no problem', () => {
  expect(
    problems(
      {
        value: { kind: 'text', most: 40 },
        checks: [
          { id: 'required', kind: 'required' },
          { id: 'capital', kind: 'pattern', pattern: '^[A-Z][\\w ]*$' },
          { id: 'known', kind: 'ask', ask: 'register' },
          { id: 'long', kind: 'length', length: { least: 2, most: 40 } },
        ],
        judging: { complain: 'leaving', forgive: 'typing', approve: true },
      },
      [
        {
          id: 'mend',
          sample: 'vessel',
          set: { size: 'medium' },
          acts: ['press frame', 'type osprey', 'leave'],
        },
      ],
    ),
  ).toEqual([]);
});

test.each([
  [{ value: { kind: 'txt' } }, '/behaviour/value/kind unknown-value-kind (text)'],
  [{ value: { kind: 'amount', least: 5, most: 2 } }, '/behaviour/value/least no-value'],
  [{ parts: { revel: 'frame' } }, '/behaviour/parts/revel unknown-role (reveal)'],
  [{ parts: { reveal: 'eye' } }, '/behaviour/parts/reveal unknown-part'],
  [{ parts: { reveal: 'frame' } }, '/behaviour/parts/reveal wrong-part'],
  [{ checks: [{ id: 'a', kind: 'patern' }] }, '/behaviour/checks/0/kind unknown-check (pattern)'],
  [{ checks: [{ id: 'a', kind: 'pattern' }] }, '/behaviour/checks/0 missing-member'],
  [{ checks: [{ id: 'a', kind: 'pattern', pattern: '[' }] }, '/behaviour/checks/0/pattern wrong-pattern'],
  [
    {
      checks: [
        { id: 'a', kind: 'required' },
        { id: 'a', kind: 'required' },
      ],
    },
    '/behaviour/checks/1/id duplicate-id',
  ],
  [
    { checks: [{ id: 'a', kind: 'length', length: { least: 5, most: 2 } }] },
    '/behaviour/checks/0/length no-value',
  ],
  [{ moves: [{ id: 'm', on: 'pres frame', do: ['step 1'] }] }, '/behaviour/moves/0/on wrong-act'],
  [{ moves: [{ id: 'm', on: 'press frame', do: ['jump'] }] }, '/behaviour/moves/0/do/0 wrong-act'],
  [
    { moves: [{ id: 'm', on: 'leave', do: ['set sise=small'] }] },
    '/behaviour/moves/0/do/0 unknown-axis (size)',
  ],
  [
    {
      moves: [
        { id: 'm', on: 'press frame', when: { size: ['small', 'medium'] }, do: ['set size=large'] },
        { id: 'n', on: 'press frame', when: { size: ['medium', 'large'] }, do: ['step 1', 'set size=small'] },
        { id: 'o', on: 'leave', do: ['set size=small'] },
      ],
    },
    '/behaviour/moves/1/do/1 undone-move',
  ],
  [{ moves: [{ id: 'm', on: 'leave', do: ['focus contrl'] }] }, '/behaviour/moves/0/do/0 unknown-part'],
  [
    { moves: [{ id: 'm', on: 'leave', when: { size: 'smal' }, do: ['step 1'] }] },
    '/behaviour/moves/0/when/size unknown-value (small)',
  ],
])('%j: %s', (behaviour, problem) => {
  expect(problems(behaviour)).toEqual([problem]);
});

test.each([
  [{ acts: ['press frane'] }, '/walkthroughs/0/acts/0 unknown-part (frame)'],
  [{ acts: ['press frame', 'shout'] }, '/walkthroughs/0/acts/1 wrong-act'],
  [{ acts: [], sample: 'vesel' }, '/walkthroughs/0/sample unknown-sample (vessel)'],
  [{ acts: [], set: { sise: 'small' } }, '/walkthroughs/0/set/sise unknown-axis (size)'],
  [{ acts: [], set: { size: 'smal' } }, '/walkthroughs/0/set/size unknown-value (small)'],
])('of a walkthrough %j: %s', (walkthrough, problem) => {
  expect(problems({}, [{ id: 'w', ...walkthrough }])).toEqual([problem]);
});

test.each([
  '(a+)+$',
  '(a*)*',
  '(a|a)*b',
  '([a-z]+)*',
  '(\\w+\\s?)*$',
  '.*.*.*.*x',
  '(x',
  'a{2}{3}',
  '\\p{Nope}',
  'a'.repeat(501),
])('the pattern %s is refused', pattern => {
  expect(patternFault(pattern)).not.toBeNull();
});

test.each([
  '^[A-Z]',
  '^\\d{4}-\\d{2}$',
  '^(?=.*[A-Z])(?=.*\\d).{8,}$',
  '^(north|south)$',
  '^\\p{Lu}\\p{L}+$',
  '^(ab)+$',
  'a\\+\\*b',
])('the pattern %s is taken, and tried on long texts soon', pattern => {
  expect(patternFault(pattern)).toBeNull();
  for (const text of ['a', 'A1', ' ', 'ab']) new RegExp(pattern, 'u').test(text.repeat(250));
});

test('a derived component has its base’s behaviour, and says what differs by member and by id', () => {
  const base: BehaviourDocument = {
    value: { kind: 'text', most: 40 },
    checks: [
      { id: 'required', kind: 'required' },
      { id: 'capital', kind: 'pattern', pattern: '^[A-Z]' },
    ],
    judging: { complain: 'leaving', approve: true },
  };
  const own: BehaviourDocument = {
    value: { kind: 'area' },
    checks: [
      { id: 'capital', kind: 'pattern', pattern: '.' },
      { id: 'long', kind: 'length', length: { most: 120 } },
    ],
    judging: { approve: false },
  };
  const notes = demo.fileOf.get('notes')!;
  const behaving = new Map(documents)
    .set(path, {
      ...(documents.get(path) as object),
      behaviour: base,
      walkthroughs: [{ id: 'w', acts: ['press frame'] }],
    })
    .set(notes, {
      ...(documents.get(notes) as object),
      behaviour: own,
      walkthroughs: [{ id: 'v', acts: ['press frayme'] }],
    });
  const derived = componentNamed(compileSystem(behaving), 'notes')!.document;
  expect(derived.behaviour).toEqual({
    value: { kind: 'area', most: 40 },
    checks: [base.checks![0], own.checks![0], own.checks![1]],
    judging: { complain: 'leaving', approve: false },
  });
  expect(derived.walkthroughs!.map(({ id }) => id)).toEqual(['w', 'v']);
  // Who says nothing has the base's own.
  expect(componentNamed(compileSystem(behaving), 'draught')!.document.behaviour).toBe(base);
  const errors = checkSystem(behaving).problems.filter(({ severity }) => severity === 'error');
  expect(errors.map(({ file, pointer }) => `${file} ${pointer}`)).toEqual([
    `${notes} /walkthroughs/0/acts/0`,
  ]);
});
