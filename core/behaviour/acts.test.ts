import { ACT_WORDS, readAct, RefusedAct } from './acts';

test.each([
  ['point frame', { kind: 'point', part: 'frame', entry: null }],
  ['point away', { kind: 'point', part: null, entry: null }],
  ['press less/button', { kind: 'press', part: 'less/button', entry: null }],
  ['press entry:2', { kind: 'press', part: 'entry', entry: { place: 2 } }],
  ['press entry "North quay"', { kind: 'press', part: 'entry', entry: { text: 'North quay' } }],
  ['press entry "says \\"no\\""', { kind: 'press', part: 'entry', entry: { text: 'says \\"no\\"' } }],
  ['type Osprey of Merrow ', { kind: 'type', text: 'Osprey of Merrow ' }],
  ['type  ', { kind: 'type', text: ' ' }],
  ['paste two\nlines', { kind: 'paste', text: 'two\nlines' }],
  ['key Shift+Tab', { kind: 'key', key: 'Tab', shift: true, control: false, alt: false }],
  ['key +', { kind: 'key', key: '+', shift: false, control: false, alt: false }],
  ['key Control++', { kind: 'key', key: '+', shift: false, control: true, alt: false }],
  ['key Space', { kind: 'key', key: ' ', shift: false, control: false, alt: false }],
  ['wait 300ms', { kind: 'wait', ms: 300 }],
  ['wait 1.5s', { kind: 'wait', ms: 1500 }],
  ['answer register rejected', { kind: 'answer', ask: 'register', accepted: false }],
  ['app availability=disabled', { kind: 'app', axis: 'availability', value: 'disabled' }],
  ['app value=a = b', { kind: 'app', axis: 'value', value: 'a = b' }],
  ['app value=', { kind: 'app', axis: 'value', value: '' }],
  ['leave', { kind: 'leave' }],
])('%s', (text, act) => {
  expect(readAct(text)).toEqual(act);
});

test.each([
  ['', 'is no act'],
  ['prss frame', 'is no act'],
  ['constructor x', 'is no act'],
  ['press', 'press PART'],
  ['leave now', 'too much'],
  ['wait', 'wait 300ms'],
  ['wait -5ms', 'wait 300ms'],
  ['wait 5', 'wait 300ms'],
  ['answer register', 'answer ASK accepted'],
  ['app availability', 'app availability=disabled'],
  ['app =x', 'app availability=disabled'],
  ['key Shift+', 'key ArrowUp'],
  ['type', 'type TEXT'],
])('“%s” is refused with how it is written', (text, reason) => {
  expect(() => readAct(text)).toThrow(RefusedAct);
  expect(() => readAct(text)).toThrow(reason);
});

test('every word has its act', () => {
  expect(ACT_WORDS).toEqual(
    expect.arrayContaining(['point', 'press', 'hold', 'release', 'type', 'key', 'paste']),
  );
  expect(ACT_WORDS).toHaveLength(14);
});
