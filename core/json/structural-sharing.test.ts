import fc from 'fast-check';
import { shared } from './structural-sharing';

test('gives an equal value, and the same object where nothing differs', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (before, after) => {
      expect(JSON.stringify(shared(before, after))).toBe(JSON.stringify(after));
      expect(shared(before, structuredClone(before))).toEqual(before);
    }),
  );
  const before = { axes: [{ id: 'a' }, { id: 'b' }], rules: [{ id: 'r', set: { frame: { opacity: '1' } } }] };
  expect(shared(before, structuredClone(before))).toBe(before);
});

test('keeps every part that an edit has left alone', () => {
  const before = { axes: [{ id: 'a' }], rules: [{ id: 'r' }, { id: 's', note: 'x' }] };
  const edited = structuredClone(before);
  edited.rules[1]!.note = 'y';
  const result = shared(before, edited) as typeof before;
  expect(result).toEqual(edited);
  expect(result.axes).toBe(before.axes);
  expect(result.rules[0]).toBe(before.rules[0]);
  expect(result.rules).not.toBe(before.rules);
});

test('the order of keys counts: it is kept when a document is written', () => {
  const before = { a: 1, b: 2 };
  expect(Object.keys(shared(before, { b: 2, a: 1 }) as object)).toEqual(['b', 'a']);
});
