import { demoSystem } from '../../test/demo';
import { smallSystem } from '../../test/small-system';
import { reuse, reuseOf } from './reuse';

const BASE = {
  format: 'periwinkle-component/1',
  id: 'base',
  anatomy: { part: 'root', kind: 'stack', children: [{ part: 'inner', kind: 'control' }] },
  axes: [
    { id: 'focus', kind: 'state' },
    { id: 'content', kind: 'state' },
  ],
  rules: [
    {
      id: 'a',
      when: {},
      set: { root: { gap: '1px', color: 'red', opacity: '0.5' }, inner: { width: '4px' } },
    },
    { id: 'b', when: { focus: 'in' }, set: { inner: { width: '2px' } } },
  ],
};
const PIECE = {
  format: 'periwinkle-component/1',
  id: 'piece',
  anatomy: { part: 'root', kind: 'row', children: [{ part: 'words', kind: 'text', content: 'words' }] },
  axes: [{ id: 'pointer', kind: 'state' }],
  rules: [{ id: 'p', when: { pointer: 'over' }, set: { words: { color: 'red' } } }],
};
const DERIVED = {
  format: 'periwinkle-component/1',
  id: 'derived',
  extends: 'base',
  anatomyEdits: [{ insert: { part: 'more', kind: 'use', component: 'piece' }, after: 'inner' }],
  axes: [{ id: 'validity', kind: 'state' }],
  rules: [
    { id: 'a', set: { inner: { width: '5px' } } },
    { id: 'b', set: { inner: { width: '3px' } } },
    { id: 'c', when: { validity: 'invalid' }, set: { root: { gap: '3px' } } },
  ],
};

test('counts what stands in a component’s own document, and all that it has', () => {
  const system = smallSystem({
    documents: [BASE, PIECE, DERIVED].map(document => [`components/${document.id}.component.json`, document]),
  });
  const of = (id: string) =>
    reuseOf(
      system.components.find(component => component.id === id)!,
      system.fileOf.get(id)!,
    );
  expect(of('base')).toEqual({
    parts: { all: 2, own: 2 },
    rules: { all: 2, own: 2 },
    axes: { all: 2, own: 2 },
  });
  expect(of('derived')).toEqual({
    // The piece's two and the base's two are nobody's again.
    parts: { all: 4, own: 0 },
    // Of `a` a quarter is said anew, of `b` all.
    rules: { all: 4, own: 2 },
    axes: { all: 4, own: 1 },
  });
});

test('of the demo’s family two thirds are inherited or nested', () => {
  const { parts, rules, axes } = reuse(demoSystem());
  const all = parts.all + rules.all + axes.all;
  const own = parts.own + rules.own + axes.own;
  expect(own / all).toBeLessThan(1 / 3);
});
