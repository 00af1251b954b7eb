import { generate, parse, type CssNode, type Selector } from 'css-tree';

/** An element as far as our selectors look at it. */
export interface OracleElement {
  readonly classes: readonly string[];
  readonly type: string;
  readonly isHost: boolean;
  /** Name under which a shadow tree lets it out. */
  readonly part: string;
  readonly parent: OracleElement | null;
  /** Whether an attribute selector or a pseudo-class that looks at the world holds of it. */
  readonly test: (simple: string) => boolean;
}

/** Whether a selector list (Selectors 4, as far as we write it) matches an element. */
export function matchesList(text: string, element: OracleElement): boolean {
  return listMatches(parse(text, { context: 'selectorList' }), element);
}

function listMatches(list: CssNode, element: OracleElement): boolean {
  if (list.type !== 'SelectorList') throw new Error(`no list: ${generate(list)}`);
  return list.children.toArray().some(selector => selectorMatches(selector as Selector, element));
}

function selectorMatches(selector: Selector, element: OracleElement): boolean {
  const nodes = selector.children.toArray();
  const at = nodes.findLastIndex(node => node.type === 'Combinator');
  const compound = nodes.slice(at + 1);
  if (!compound.every(node => simpleMatches(node, element))) return false;
  if (at < 0) return true;
  const rest = nodes.slice(0, at);
  for (let above = element.parent; above; above = above.parent) if (matchesNodes(rest, above)) return true;
  return false;
}

function matchesNodes(nodes: readonly CssNode[], element: OracleElement): boolean {
  return matchesList(nodes.map(node => generate(node)).join(''), element);
}

function simpleMatches(node: CssNode, element: OracleElement): boolean {
  switch (node.type) {
    case 'ClassSelector':
      return element.classes.includes(node.name);
    case 'TypeSelector':
      return node.name === '*' || node.name === element.type;
    case 'PseudoElementSelector':
      return node.name === 'part' && generate(node.children!.first!) === element.part;
    case 'AttributeSelector':
      return element.test(generate(node));
    case 'PseudoClassSelector': {
      const inner = node.children?.first;
      if (node.name === 'is' || node.name === 'where') return listMatches(inner!, element);
      if (node.name === 'not') return !listMatches(inner!, element);
      if (node.name === 'host') return element.isHost && matchesList(generate(inner!), element);
      return element.test(generate(node));
    }
    default:
      throw new Error(`a selector that is not expected: ${generate(node)}`);
  }
}
