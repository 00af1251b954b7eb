import { parse as parseCss, walk } from 'css-tree';
import { JSDOM } from 'jsdom';
import { CONTROL_ELEMENTS } from '../documents/part-kinds';

/** Elements that selectors of ours name, besides classes. */
const ELEMENTS: ReadonlySet<string> = new Set(['svg', '*', ...CONTROL_ELEMENTS]);

type Tree = Record<string, unknown>;
type Steps = readonly (string | number)[];

/** Every text of a document, with a way to put another in its place. */
export function everyText(node: unknown, at: Steps = []): Steps[] {
  if (typeof node === 'string') return [at];
  if (typeof node !== 'object' || node === null) return [];
  return Object.entries(node).flatMap(([key, value]) => everyText(value, [...at, key]));
}

/** A document with another text in a place. */
export function withText(document: unknown, at: Steps, text: string): unknown {
  if (at.length === 0) return text;
  const copy = structuredClone(document) as Tree;
  const parent = at.slice(0, -1).reduce<Tree>((node, step) => node[step] as Tree, copy);
  parent[at.at(-1)!] = text;
  return copy;
}

/** One window for all pages: each of its own would be kept. */
const pages = new new JSDOM('').window.DOMParser();

/** Files that were looked at, by text: most stay the same when one text of a system is another. */
const seen = new Set<string>();
const MOST_SEEN = 500;

/** No text has got out of its place in stylesheets and pages, and none of them refers to another address. */
export function expectHarmless(files: readonly { path: string; text: string }[]): void {
  for (const { path, text } of files) {
    if (seen.has(text)) continue;
    if (seen.size > MOST_SEEN) seen.clear();
    seen.add(text);
    if (path.endsWith('.css')) {
      expect(text).not.toMatch(/<\/style|<script/i);
      const kinds: string[] = [];
      const tree = parseCss(text, { onParseError: error => kinds.push(error.message), parseValue: false });
      expect(kinds).toEqual([]);
      walk(tree, node => {
        if (node.type === 'Url') throw new Error(`an address in ${path}`);
        if (node.type === 'TypeSelector' && !ELEMENTS.has(node.name))
          throw new Error(`an element ${node.name} in ${path}`);
      });
    }
    if (path.endsWith('.html')) {
      const document = pages.parseFromString(text, 'text/html');
      expect(document.querySelectorAll('script, img, iframe, object, embed, style').length).toBe(0);
      for (const element of document.querySelectorAll('*')) {
        for (const { name } of element.attributes) expect(name).not.toMatch(/^on/i);
      }
    }
  }
}
