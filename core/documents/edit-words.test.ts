import { editWords, placeWords } from './edit-words';

const DOCUMENT = {
  id: 'text-field',
  title: 'Text field',
  axes: [{ id: 'size', title: 'Size', values: [{ id: 'small' }, { id: 'large' }] }],
  anatomy: { part: 'root', children: [{ part: 'frame' }] },
  rules: [{ id: 'over', when: {}, set: { frame: { 'border-color': 'red' } } }],
  order: ['a', 'b'],
};

test.each<[string, readonly string[]]>([
  ['rule “over”, frame, border-color', ['rules', '0', 'set', 'frame', 'border-color']],
  ['axis “Size”, value “large”, title', ['axes', '0', 'values', '1', 'title']],
  ['part “frame”, kind', ['anatomy', 'children', '0', 'kind']],
  ['place in the order “b”', ['order', '1']],
  ['rules', ['rules']],
  ['the whole', []],
])('a place is called %s', (words, steps) => {
  expect(placeWords(DOCUMENT, steps)).toBe(words);
});

test('an edit says what it does, each on what those before it have left', () => {
  expect(
    editWords(DOCUMENT, [
      { op: 'test', path: '/rules/0/id', value: 'over' },
      { op: 'replace', path: '/rules/0/set/frame/border-color', value: 'blue' },
      { op: 'add', path: '/rules/-', value: { id: 'last' } },
      { op: 'replace', path: '/rules/1/id', value: 'end' },
      { op: 'move', from: '/rules/1', path: '/rules/0' },
      { op: 'remove', path: '/axes/0/title' },
    ]),
  ).toEqual([
    { place: 'rule “over”, frame, border-color', value: 'blue' },
    { place: 'new rule “last”', value: '{\n "id": "last"\n}' },
    { place: 'rule “last”, id', value: 'end' },
    { place: 'rule “end”', value: 'to rules', isMove: true },
    { place: 'axis “Size”, title', value: null },
  ]);
});

test('of what does not fit it says as much as can be said', () => {
  expect(editWords({}, [{ op: 'remove', path: '/rules/3' }])).toEqual([{ place: 'rules, 3', value: null }]);
});
