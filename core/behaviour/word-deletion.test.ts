import { withoutWord } from './word-deletion';

/** What a browser leaves, by place of the caret. */
test.each([
  ['Backspace', 'one  two ', ['one  two ', 'ne  two ', 'e  two ', '  two ', ' two ', 'two ']],
  ['Delete', 'one  two ', ['  two ', 'o  two ', 'on  two ', 'one ', 'one  ']],
  ['Backspace', '12.5', ['12.5', '2.5', '.5', '5', '']],
  ['Backspace', 'a.b', ['a.b', '.b', 'ab', 'a.']],
  ['Delete', 'a:b', [':b', 'ab', 'a:', 'a:b']],
  ['Backspace', "it's so", ["it's so", "t's so", "'s so", 's so', ' so', 'so']],
  ['Backspace', 'a..b', ['a..b', '..b', 'a.b', 'ab']],
  ['Delete', 'x -y', [' -y', 'xy', 'x y']],
])('Control and %s in “%s”', (key, text, left) => {
  expect(left.map((_, caret) => withoutWord({ text, selection: [caret, caret] }, key, false)!.text)).toEqual(
    left,
  );
});

test('what is masked is one word, what is selected goes alone, a line break is by itself', () => {
  expect(withoutWord({ text: 'brass lantern', selection: [13, 13] }, 'Backspace', true)!.text).toBe('');
  expect(withoutWord({ text: 'brass lantern', selection: [1, 3] }, 'Delete', false)).toEqual({
    text: 'bss lantern',
    selection: [1, 1],
  });
  expect(withoutWord({ text: 'one\n', selection: [4, 4] }, 'Backspace', false)!.text).toBe('one');
  expect(withoutWord({ text: 'one', selection: [3, 3] }, 'ArrowLeft', false)).toBeNull();
});
