import { randomly } from '../test/runs';
import fc from 'fast-check';
import { BASE, patchOf, seeds } from '../test/random-patches';
import { differenceOf } from './difference';
import { applyPatch } from './patch';

const changed = (before: unknown, after: unknown): string[] => {
  const patch = differenceOf(before, after);
  expect(JSON.stringify(applyPatch(before, patch).document)).toBe(JSON.stringify(after));
  return patch.map(({ op, path }) => `${op} ${path}`);
};

test('an entry under another name is the same entry', () => {
  const before = { rules: [{ id: 'a', when: { size: 'small' } }, { id: 'b' }] };
  const after = { rules: [{ id: 'a2', when: { size: 'tiny' } }, { id: 'b' }] };
  expect(changed(before, after)).toEqual(['replace /rules/0/id', 'replace /rules/0/when/size']);
});

test('a member under another name is moved, with what differs in it, and keeps its place', () => {
  const before = { set: { frame: { color: 'red' }, label: { color: 'blue' } } };
  const after = { set: { box: { color: 'green' }, label: { color: 'blue' } } };
  expect(changed(before, after)).toEqual([
    'move /set/box',
    'replace /set/box/color',
    'move /set/box',
    'move /set/label',
  ]);
});

test('of a list in another order as little as possible is moved', () => {
  const list = (text: string): { id: string }[] => [...text].map(id => ({ id }));
  expect(changed(list('abcdef'), list('bcdefa'))).toEqual(['move /5']);
  expect(changed(list('abcdef'), list('fabcde'))).toEqual(['move /0']);
  expect(changed(list('abc'), list('axc'))).toEqual(['replace /1/id']);
  expect(changed(list('abc'), list('ac'))).toEqual(['remove /1']);
  expect(changed(list('ac'), list('abc'))).toEqual(['add /1']);
});

test('lists of texts and of what has no name', () => {
  expect(changed(['a', 'b', 'c'], ['c', 'a'])).toEqual(['remove /1', 'move /0']);
  expect(changed([{ while: 1 }, { while: 2 }], [{ while: 2 }])).toEqual(['remove /0']);
  expect(changed([{ while: 1 }], [{ while: 3 }])).toEqual(['replace /0/while']);
});

test('a document that is made or removed is replaced as a whole', () => {
  expect(differenceOf(null, { a: 1 })).toEqual([{ op: 'replace', path: '', value: { a: 1 } }]);
  expect(differenceOf({ a: 1 }, null)).toEqual([{ op: 'replace', path: '', value: null }]);
  expect(differenceOf('<svg/>', '<svg></svg>')).toHaveLength(1);
});

test('the patch leads to the later state to the byte, and its inverse back', () => {
  fc.assert(
    fc.property(seeds, seeds, (first, second) => {
      const before = applyPatch(BASE, patchOf('a', first)).document;
      const after = applyPatch(before, patchOf('b', second, before)).document;
      const { document, inverse } = applyPatch(before, differenceOf(before, after));
      expect(JSON.stringify(document)).toBe(JSON.stringify(after));
      expect(JSON.stringify(applyPatch(document, inverse).document)).toBe(JSON.stringify(before));
    }),
    randomly('differences'),
  );
});
