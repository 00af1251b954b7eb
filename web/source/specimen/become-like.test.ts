import { JSDOM } from 'jsdom';
import { becomeLike } from './become-like';

/** A tree becomes like another, each element one alone. */

const treeOf = (html: string): Element =>
  new JSDOM(`<!doctype html><body>${html}`).window.document.body.firstElementChild!;

const after = (before: string, wanted: string): string => {
  const tree = treeOf(before);
  becomeLike(tree, treeOf(wanted));
  return tree.outerHTML;
};

test.each([
  ['<svg><path d="1"></path><path d="2"></path></svg>', '<svg><path d="3"></path><path d="4"></path></svg>'],
  ['<svg><path d="1"></path></svg>', '<svg><path d="3"></path><path d="4"></path><g></g></svg>'],
  ['<svg><path d="1"></path><path d="2"></path><g></g></svg>', '<svg><g></g><path d="4"></path></svg>'],
  ['<span><svg><path d="1"></path></svg></span>', '<span></span>'],
  ['<span>Old</span>', '<span>New</span>'],
  ['<div class="a"><i class="x">1</i></div>', '<div class="b"><b class="y">2</b><i class="x">3</i></div>'],
])('%s becomes %s', (before, wanted) => {
  expect(after(before, wanted)).toBe(wanted);
});

test('elements of one part stay the same element', () => {
  const tree = treeOf('<div><input class="control"><i class="x"></i></div>');
  const [control] = tree.children;
  becomeLike(tree, treeOf('<div><b class="y"></b><input class="control" aria-invalid="true"></div>'));
  expect(tree.children[1]).toBe(control);
  expect(control!.getAttribute('aria-invalid')).toBe('true');
});
