import { compileSystem, componentNamed } from '../components/system';
import type { BehaviourDocument } from '../documents/behaviour-document';
import type { ComponentDocument } from '../documents/component-document';
import { demoSystem, documentsWithoutBehaviour } from '../test/demo';
import { moments, type Moment } from './play';

const demo = demoSystem();
const documents = documentsWithoutBehaviour(demo);

/** Plays acts on a component of the demo with a behaviour of the test's own. */
function done(
  id: string,
  behaviour: BehaviourDocument,
  acts: readonly string[],
  { set = {}, content = {} }: { set?: Record<string, string>; content?: Record<string, unknown> } = {},
): Moment[] {
  const path = demo.fileOf.get(id)!;
  const document = { ...(documents.get(path) as ComponentDocument), behaviour };
  const system = compileSystem(new Map(documents).set(path, document));
  const component = componentNamed(system, id)!;
  const sample = component.samples[0]!;
  const given = { ...sample, content: { ...sample.content, value: '', ...content } } as typeof sample;
  return moments({ system, component, sample: given, set, acts });
}

/** `text = value`, and what is announced, after each act. */
const texts = (found: readonly Moment[]): string[] =>
  found.map(({ played, state }) => [`${state.text} = ${played.value}`, ...played.announced].join(' | '));

describe('an amount', () => {
  const AMOUNT: BehaviourDocument = {
    value: { kind: 'amount' },
    checks: [
      { id: 'kind', kind: 'kind', message: 'That is no amount.' },
      { id: 'least', kind: 'least', least: 25, message: 'The least due is 25.' },
    ],
  };

  test('is grouped at rest, plain while it is edited', () => {
    expect(
      texts(done('harbour-dues', AMOUNT, ['press frame', 'type 1240.5', 'leave', 'press frame'])),
    ).toEqual([' = ', '1240.5 = 1240.5', '1,240.5 = 1240.5', '1240.5 = 1240.5']);
  });

  test('is written as the locale writes it, and submitted as a decimal', () => {
    const acts = ['app locale=de', 'press frame', 'type 1240,5', 'leave', 'app locale=en'];
    expect(texts(done('harbour-dues', AMOUNT, acts)).slice(1)).toEqual([
      ' = ',
      '1240,5 = 1240.5',
      '1.240,5 = 1240.5',
      '1,240.5 = 1240.5',
    ]);
  });

  test('that cannot be read stands as it was written, and is told', () => {
    expect(
      texts(done('harbour-dues', AMOUNT, ['press frame', 'type 12,50', 'leave', 'app locale=xx'])),
    ).toEqual([' = ', '12,50 = 12,50', '12,50 = 12,50 | That is no amount.', '12,50 = 12,50']);
  });

  test('below its least is told; a locale that is none is refused', () => {
    expect(texts(done('harbour-dues', AMOUNT, ['press frame', 'type 12', 'leave'])).at(-1)).toContain(
      'least due',
    );
    expect(() => done('harbour-dues', AMOUNT, ['app locale=no locale'])).toThrow('no locale');
  });
});

describe('a time', () => {
  const TIME: BehaviourDocument = { value: { kind: 'time' }, checks: [{ id: 'kind', kind: 'kind' }] };

  test('is understood however it is written', () => {
    const acts = ['press frame', 'type 330p', 'leave', 'press frame', 'type 1530', 'leave'];
    expect(texts(done('tide-time', TIME, acts, { set: { clock: 'twelve' } })).slice(0, 4)).toEqual([
      ' = ',
      '330p = 15:30',
      '3:30 = 15:30',
      '3:30 = 15:30',
    ]);
    expect(texts(done('tide-time', TIME, ['press frame', 'type 330p', 'leave'])).at(-1)).toBe(
      '15:30 = 15:30',
    );
  });
});

describe('a code', () => {
  const CODE: BehaviourDocument = { value: { kind: 'code', length: 6, of: 'digits' } };

  test('goes on from box to box, back with Backspace; pasting fills', () => {
    const acts = [
      'press frame',
      'type 41',
      'key Backspace',
      'paste 17-7 0',
      'key ArrowLeft',
      'key Backspace',
    ];
    expect(texts(done('gate-code', CODE, acts))).toEqual([
      ' = ',
      '41 = 41',
      '4 = 4',
      '41770 = 41770',
      '41770 = 41770',
      '4170 = 4170',
    ]);
  });

  test('refuses aloud what does not fit', () => {
    expect(texts(done('gate-code', CODE, ['press frame', 'type 4x', 'paste 1234567']))).toEqual([
      ' = ',
      '4 = 4 | “x” is not taken here.',
      '412345 = 412345 | “67” is not taken here.',
    ]);
  });
});

describe('a choice', () => {
  const CHOICE: BehaviourDocument = { value: { kind: 'choice' } };
  /** The value, whether the list is open, and which entry stands out. */
  const told = (found: readonly Moment[]): string[] =>
    found.map(({ played, state }) => {
      const at = state.active === null ? '' : ` at ${state.active + 1}`;
      return `${played.value || '—'} ${state.isOpen ? 'open' : 'closed'}${at}`;
    });

  test.each([
    [['key ArrowDown'], ['— open at 1']],
    [['key Enter'], ['— open at 1']],
    [['key Space'], ['— open at 1']],
    [['key ArrowUp'], ['— open at 1']],
    [['key Home'], ['— open at 1']],
    [['key End'], ['— open at 8']],
    [['key Alt+ArrowDown'], ['— open at 1']],
    [['key s'], ['— open at 3']],
    [
      ['type sal', 'key Enter'],
      ['— open at 3', 'Salt wharf closed'],
    ],
    [
      ['key ArrowDown', 'key Escape'],
      ['— open at 1', '— closed'],
    ],
    [
      ['key ArrowDown', 'key ArrowDown', 'key Enter'],
      ['— open at 1', '— open at 2', 'North quay 4 closed'],
    ],
    [
      ['key ArrowDown', 'key ArrowDown', 'key Space'],
      ['— open at 1', '— open at 2', 'North quay 4 closed'],
    ],
    [
      ['key End', 'key ArrowDown', 'key PageUp'],
      ['— open at 8', '— open at 8', '— open at 1'],
    ],
    [
      ['key ArrowDown', 'key Alt+ArrowUp'],
      ['— open at 1', 'North quay 2 closed'],
    ],
    [
      ['key ArrowDown', 'key ArrowDown', 'key Tab'],
      ['— open at 1', '— open at 2', 'North quay 4 closed'],
    ],
    // Lantern pier is taken: keys and letters pass over it.
    [
      ['key s', 'key ArrowDown'],
      ['— open at 3', '— open at 5'],
    ],
    [['key l'], ['— open at 1']],
    // The same letter goes to the next of that beginning, and round.
    [
      ['key r', 'key r', 'key r'],
      ['— open at 5', '— open at 6', '— open at 5'],
    ],
    [
      ['type ro', 'wait 600ms', 'key s'],
      ['— open at 5', '— open at 5', '— open at 3'],
    ],
    [
      ['press frame', 'press frame'],
      ['— open at 1', '— closed'],
    ],
  ])('%j comes to %j', (acts, expected) => {
    expect(told(done('berth', CHOICE, ['press frame', 'key Escape', ...acts])).slice(2)).toEqual(expected);
  });

  test('entries are pressed by place or by text; one that is disabled is not chosen', () => {
    const acts = ['press frame', 'press entry:4', 'point entry:2', 'press entry "Salt wharf"', 'press frame'];
    expect(told(done('berth', CHOICE, acts))).toEqual([
      '— open at 1',
      '— open at 1',
      '— open at 1',
      'Salt wharf closed',
      'Salt wharf open at 3',
    ]);
    expect(() => done('berth', CHOICE, ['press entry:2'])).toThrow('is not there');
    expect(() => done('berth', CHOICE, ['press frame', 'press entry:9'])).toThrow('no entry 9');
    expect(() => done('berth', CHOICE, ['press frame', 'press entry "Quay"'])).toThrow('no entry “Quay”');
    expect(() => done('berth', CHOICE, ['press frame', 'press option'])).toThrow('Which entry');
  });

  test('several are put together and taken out again, with the list left open', () => {
    const several: BehaviourDocument = { value: { kind: 'choice', several: true } };
    const acts = [
      'press frame',
      'press entry:1',
      'key ArrowDown',
      'key Space',
      'press entry:1',
      'key Escape',
    ];
    expect(told(done('berth', several, acts))).toEqual([
      '— open at 1',
      'North quay 2 open at 1',
      'North quay 2 open at 2',
      'North quay 2\nNorth quay 4 open at 2',
      'North quay 4 open at 1',
      'North quay 4 closed',
    ]);
  });

  test('an element that opens a list of its own changes by keys alone', () => {
    const acts = ['press frame', 'key ArrowDown', 'key ArrowDown', 'key s', 'key End'];
    expect(told(done('berth', CHOICE, acts, { set: { element: 'select' } }))).toEqual([
      '— closed',
      'North quay 2 closed',
      'North quay 4 closed',
      'Salt wharf closed',
      'Outer roads closed',
    ]);
  });
});

test('a button that is held acts at once, after 400 ms, and every 60 ms, until it is let go or an end is reached', () => {
  const count: BehaviourDocument = {
    value: { kind: 'count', least: 0, most: 9 },
    parts: { less: 'less', more: 'more' },
  };
  const acts = [
    'hold more',
    'wait 399ms',
    'wait 1ms',
    'wait 120ms',
    'release',
    'wait 1s',
    'hold more',
    'wait 9s',
  ];
  expect(done('crew', count, acts).map(({ played }) => played.value)).toEqual([
    '0',
    '0',
    '1',
    '3',
    '3',
    '3',
    '4',
    '9',
  ]);
});

test('what is checked against another field is judged again when that one is left', () => {
  const behaviour: BehaviourDocument = {
    value: { kind: 'time' },
    checks: [
      { id: 'later', kind: 'least', least: { field: 'arrival' }, message: 'Before the arrival.' },
      { id: 'same', kind: 'equals', equals: 'again' },
    ],
  };
  const acts = ['press frame', 'type 1400', 'leave', 'app field:arrival=15:00'];
  expect(done('tide-time', behaviour, acts).at(-1)!.played.messages).toEqual([]);
  const judged = [...acts, 'press frame', 'leave', 'app field:arrival=13:00'];
  expect(
    done('tide-time', behaviour, judged)
      .slice(-2)
      .map(({ played }) => played.messages),
  ).toEqual([['Before the arrival.'], []]);
});
