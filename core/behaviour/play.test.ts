import { compileSystem, componentNamed } from '../components/system';
import type { BehaviourDocument } from '../documents/behaviour-document';
import type { ComponentDocument } from '../documents/component-document';
import { demoSystem, documentsWithoutBehaviour } from '../test/demo';
import { play, type Played, type StoppedPlay } from './play';

const demo = demoSystem();
const documents = documentsWithoutBehaviour(demo);

/** Plays acts on a component of the demo that has a behaviour. */
function played(
  id: string,
  behaviour: BehaviourDocument,
  acts: readonly string[],
  { set = {}, value = '' }: { set?: Record<string, string>; value?: string } = {},
): Played[] {
  const path = demo.fileOf.get(id)!;
  const document = { ...(documents.get(path) as ComponentDocument), behaviour };
  const system = compileSystem(new Map(documents).set(path, document));
  const component = componentNamed(system, id)!;
  const [sample] = component.samples;
  const content = { ...sample!.content, value };
  return play({ system, component, sample: { ...sample!, content }, set, acts });
}

/** What changes from act to act: `act: value | states`. */
const told = (entries: readonly Played[], ...axes: string[]): string[] =>
  entries.map(
    ({ act, value, combination, messages }) =>
      `${act}: ${value} | ${[...axes.map(axis => combination[axis]), ...messages].join(', ')}`,
  );

const CHECKS: BehaviourDocument = {
  value: { kind: 'text', most: 40 },
  checks: [
    { id: 'required', kind: 'required', message: 'missing' },
    { id: 'capital', kind: 'pattern', pattern: '^[A-Z]', message: 'capital' },
  ],
};

test('complains late and forgives early', () => {
  const acts = [
    'point frame',
    'press frame',
    'type osprey',
    'leave',
    'press frame',
    'key Home',
    'key Delete',
    'type O',
    'leave',
  ];
  expect(told(played('text-field', CHECKS, acts), 'focus', 'content', 'validity')).toEqual([
    'point frame:  | out, empty, none',
    'press frame:  | keyboard, empty, none',
    'type osprey: osprey | keyboard, filled, none',
    'leave: osprey | out, filled, invalid, capital',
    'press frame: osprey | keyboard, filled, invalid, capital',
    'key Home: osprey | keyboard, filled, invalid, capital',
    'key Delete: sprey | keyboard, filled, invalid, capital',
    'type O: Osprey | keyboard, filled, none',
    'leave: Osprey | out, filled, none',
  ]);
});

test('a message is announced once, when it comes', () => {
  const acts = ['press frame', 'type a', 'leave', 'press frame', 'type b', 'leave'];
  expect(played('text-field', CHECKS, acts).map(({ announced }) => announced)).toEqual([
    [],
    [],
    ['capital'],
    [],
    [],
    [],
  ]);
});

test('only where an entry is required an empty one is wrong; sending judges always, and brings the focus to it', () => {
  expect(told(played('text-field', CHECKS, ['press frame', 'leave']), 'validity').at(-1)).toBe(
    'leave:  | none',
  );
  const [sent] = played('text-field', CHECKS, ['send'], { set: { requirement: 'required' } });
  expect(sent).toMatchObject({ focus: 'control', messages: ['missing'] });
  expect(sent!.combination).toMatchObject({ validity: 'invalid', focus: 'keyboard' });
});

test.each([
  ['typing', 'typing', ['invalid', 'none', 'none']],
  ['leaving', 'leaving', ['none', 'none', 'none']],
  ['sending', 'sending', ['none', 'none', 'none']],
] as const)('complains while %s and forgives while %s', (complain, forgive, states) => {
  const judged = { ...CHECKS, judging: { complain, forgive } };
  const entries = played('text-field', judged, ['press frame', 'type a', 'key Backspace', 'type A']);
  expect(entries.slice(1).map(({ combination }) => combination['validity'])).toEqual(states);
});

test('what is approved counts as valid until it changes', () => {
  const approving = { ...CHECKS, judging: { approve: true } };
  const acts = ['press frame', 'type Osprey', 'leave', 'press frame', 'type !', 'key Backspace', 'leave'];
  expect(told(played('text-field', approving, acts), 'validity').map(each => each.split(' | ')[1])).toEqual([
    'none',
    'none',
    'valid',
    'valid',
    'none',
    'none',
    'valid',
  ]);
});

test('the application is asked when the rest holds; busy until it answers, late answers are nothing', () => {
  const asking: BehaviourDocument = {
    ...CHECKS,
    checks: [...CHECKS.checks!, { id: 'known', kind: 'ask', ask: 'register', message: 'unknown' }],
    judging: { approve: true },
  };
  const acts = [
    'press frame',
    'type Osprey',
    'leave',
    'answer register rejected',
    'press frame',
    'type !',
    'leave',
  ];
  expect(told(played('text-field', asking, acts), 'availability', 'validity').slice(2)).toEqual([
    'leave: Osprey | busy, none',
    'answer register rejected: Osprey | enabled, invalid, unknown',
    'press frame: Osprey | enabled, invalid, unknown',
    'type !: Osprey! | enabled, none',
    'leave: Osprey! | busy, none',
  ]);
  const late = ['press frame', 'type Osprey', 'leave', 'app value=Heron', 'answer register rejected'];
  expect(told(played('text-field', asking, late), 'availability', 'validity').at(-1)).toBe(
    'answer register rejected: Heron | enabled, none',
  );
  const sent = ['press frame', 'type Osprey', 'key Enter', 'answer register accepted'];
  expect(told(played('text-field', asking, sent), 'availability', 'validity').at(-1)).toBe(
    'answer register accepted: Osprey | enabled, valid',
  );
});

test('what becomes disabled, read-only or is reset loses its complaint; read-only takes the focus and refuses typing', () => {
  const wrong = ['press frame', 'type a', 'leave'];
  for (const last of ['app availability=disabled', 'app availability=readonly', 'reset'])
    expect(played('text-field', CHECKS, [...wrong, last]).at(-1)!.combination['validity']).toBe('none');
  const readonly = played('text-field', CHECKS, ['app availability=readonly', 'press frame', 'type x'], {
    value: 'Kept',
  });
  expect(readonly.at(-1)).toMatchObject({ value: 'Kept', focus: 'control' });
  expect(played('text-field', CHECKS, ['press frame', 'app availability=disabled']).at(-1)!.focus).toBeNull();
});

test('a value of the application is not judged, but takes back what no longer holds', () => {
  const acts = ['press frame', 'type a', 'leave', 'app value=b', 'app value=B', 'app value=c'];
  expect(told(played('text-field', CHECKS, acts), 'validity').slice(2)).toEqual([
    'leave: a | invalid, capital',
    'app value=b: b | invalid, capital',
    'app value=B: B | none',
    'app value=c: c | none',
  ]);
});

test('caret and selection, in any script', () => {
  const value = (...acts: string[]): string =>
    played('text-field', CHECKS, ['press frame', ...acts]).at(-1)!.value;
  expect(value('type 👩‍👩‍👧é', 'key Backspace')).toBe('👩‍👩‍👧');
  expect(value('type ab👩‍👩‍👧', 'key ArrowLeft', 'key Backspace')).toBe('a👩‍👩‍👧');
  expect(value('type abc', 'key Shift+ArrowLeft', 'key Shift+ArrowLeft', 'type x')).toBe('ax');
  expect(value('type abc', 'key Shift+Home', 'key Delete')).toBe('');
  expect(value('type abc', 'key Control+a', 'paste two\nlines')).toBe('two lines');
  expect(value('key A', 'key Space', 'key b')).toBe('A b');
  expect(value('type خوش', 'key Backspace')).toBe('خو');
});

test('what comes beyond the most is kept, unless it stops there', () => {
  const kept = played('text-field', { value: { kind: 'text', most: 3 } }, ['press frame', 'type abcdef']);
  expect(kept.at(-1)!.value).toBe('abcdef');
  const stopped = played('text-field', { value: { kind: 'text', most: 3, stop: true } }, [
    'press frame',
    'type ab',
    'type cdef',
  ]);
  expect(stopped.at(-1)!.value).toBe('abc');
});

test('a count by keys and by its buttons, which leave the focus in the control', () => {
  const count: BehaviourDocument = {
    value: { kind: 'count', least: 0, most: 25, step: 0.1 },
    parts: { less: 'less', more: 'more' },
    checks: [{ id: 'number', kind: 'kind', message: 'no number' }],
  };
  const acts = [
    'press frame',
    'key ArrowUp',
    'key ArrowUp',
    'key ArrowUp',
    'key PageUp',
    'press more',
    'key End',
    'key ArrowUp',
    'press less',
    'key Home',
  ];
  const entries = played('crew', count, acts);
  expect(told(entries, 'range')).toEqual([
    'press frame:  | within',
    'key ArrowUp: 0 | min',
    'key ArrowUp: 0.1 | within',
    'key ArrowUp: 0.2 | within',
    'key PageUp: 1.2 | within',
    'press more: 1.3 | within',
    'key End: 25 | max',
    'key ArrowUp: 25 | max',
    'press less: 24.9 | within',
    'key Home: 0 | min',
  ]);
  expect(entries.every(({ focus }) => focus === 'control')).toBe(true);
  // By the pointer alone a button has the focus, and does not show it.
  const [pressed] = played('crew', count, ['press more']);
  expect(pressed).toMatchObject({ focus: 'more/button', value: '0', combination: { focus: 'in' } });
});

test('tiny steps add up exactly', () => {
  const tiny: BehaviourDocument = { value: { kind: 'count', least: 0, step: 1e-7 } };
  expect(
    played('crew', tiny, ['press frame', 'key ArrowUp', 'key ArrowUp', 'key ArrowUp', 'key ArrowUp']).at(-1)!
      .value,
  ).toBe('3e-7');
});

test('a secret is shown and hidden, and hidden again when it is sent', () => {
  const secret: BehaviourDocument = { value: { kind: 'secret' }, parts: { reveal: 'reveal' } };
  const entries = played('passphrase', secret, [
    'press frame',
    'type tide',
    'press reveal',
    'type s',
    'press reveal',
    'press reveal',
    'key Enter',
  ]);
  expect(told(entries, 'secret').map(each => each.split(' | ')[1])).toEqual([
    'masked',
    'masked',
    'shown',
    'shown',
    'masked',
    'shown',
    'masked',
  ]);
  expect(entries.at(-1)).toMatchObject({ value: 'tides', focus: 'control' });
});

test('Tab selects a line, and leaves the caret where it was among several', () => {
  const whole = 'Ladder to port';
  const area = (acts: readonly string[]): string =>
    played('notes', { value: { kind: 'area' } }, acts, { value: whole }).at(-1)!.value;
  expect(area(['key Tab', 'key Backspace'])).toBe(whole);
  expect(area(['key Tab', 'type One. '])).toBe(`One. ${whole}`);
  expect(area(['key Tab', 'key End', 'key Shift+Tab', 'key Tab', 'type !'])).toBe(`${whole}!`);
  expect(area(['app value=two', 'key Tab', 'type !'])).toBe('two!');
});

test('an area takes lines, a search is emptied by Escape', () => {
  expect(
    played('notes', { value: { kind: 'area' } }, ['press frame', 'type one', 'key Enter', 'type two']).at(-1)!
      .value,
  ).toBe('one\ntwo');
  const search: BehaviourDocument = { value: { kind: 'search' }, parts: { clear: 'clear' } };
  expect(played('find-vessel', search, ['press frame', 'type osp', 'key Escape']).at(-1)!.value).toBe('');
  expect(played('find-vessel', search, ['press frame', 'type osp', 'press clear']).at(-1)).toMatchObject({
    value: '',
    focus: 'control',
  });
});

test('moves of its own follow what the kind does, where what held before allows it', () => {
  const behaviour: BehaviourDocument = {
    value: { kind: 'count', least: 0, most: 9 },
    parts: { less: 'less', more: 'more' },
    moves: [
      { id: 'double', on: 'press more', when: { size: 'large' }, do: ['step 1'] },
      { id: 'empty', on: 'key Escape', do: ['value '] },
      { id: 'small', on: 'leave', do: ['set size=small'] },
    ],
  };
  const acts = ['press frame', 'press more', 'press more', 'key Escape', 'press more', 'leave', 'press more'];
  expect(told(played('crew', behaviour, acts, { set: { size: 'large' } }), 'size')).toEqual([
    'press frame:  | large',
    'press more: 1 | large',
    'press more: 3 | large',
    'key Escape:  | large',
    'press more: 1 | large',
    'leave: 1 | small',
    'press more: 2 | small',
  ]);
});

test.each([
  [['type x'], 'Nothing has the focus'],
  [['leave'], 'does not have the focus'],
  [['press mast'], 'There is no part “mast”'],
  [['press message'], '“message” is not there'],
  [['press leading'], '“leading” is not there'],
  [['app size=vast'], 'no value of size'],
  [['app colour=red'], 'There is no axis'],
  [['shout'], 'is no act'],
])('%s stops with its reason, and what was played before', (acts, reason) => {
  expect(() => played('text-field', CHECKS, ['point frame', ...acts])).toThrow(reason);
  try {
    played('text-field', CHECKS, ['point frame', ...acts]);
  } catch (error) {
    expect((error as StoppedPlay).played).toHaveLength(1);
    expect((error as StoppedPlay).place).toBe(1);
  }
});
