import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { escapeHtml } from '../text/html-text';
import { QUOTAS } from '../json/quotas';
import { ProblemList, type LocalProblem } from '../json/problem';
import { TextCache } from '../json/text-cache';

/** What a plain icon may hold (SVG 2): shapes and how they are painted, nothing that loads, runs or links. */
const ELEMENTS = new Set('svg g path circle ellipse line polyline polygon rect title'.split(' '));
const ATTRIBUTES = new Set(
  (
    'xmlns viewBox width height fill fill-rule clip-rule stroke stroke-width stroke-linecap stroke-linejoin stroke-miterlimit ' +
    'stroke-dasharray opacity fill-opacity stroke-opacity transform d cx cy r rx ry x x1 x2 y y1 y2 points'
  ).split(' '),
);
/** Nothing that could lead elsewhere: `url()` does. */
const PLAIN_VALUE = /^(?!.*url\s*\()[-\w\s.,#()%:/]*$/is;

interface Node {
  readonly name: string;
  readonly attributes: readonly (readonly [string, string])[];
  readonly children: readonly Node[];
}

type Parsed = Record<string, unknown>;
const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  processEntities: false,
});

/** What is in an icon besides plain shapes. Such things are left out of every output. */
export const iconProblems = (svg: string): readonly LocalProblem[] => iconFaults.of(svg, () => faultsOf(svg));

const iconFaults = new TextCache<readonly LocalProblem[]>();
const plainIcons = new TextCache<string | null>();

function faultsOf(svg: string): LocalProblem[] {
  const problems = new ProblemList();
  if (!readIcon(svg, text => problems.warning('', 'icon-not-plain', text))) {
    problems.error('', 'invalid-icon', 'This is not an SVG drawing.');
  }
  return problems.problems;
}

/** The drawing with plain shapes only, as text that is safe inside HTML; `null` when it is no SVG. */
export const plainIcon = (svg: string): string | null =>
  plainIcons.of(svg, () => {
    const root = readIcon(svg, () => {});
    return root && writeNode(root);
  });

function readIcon(svg: string, leftOut: (text: string) => void): Node | null {
  if (svg.length > QUOTAS.iconLetters) return null;
  try {
    if (XMLValidator.validate(svg) !== true) return null;
    const roots = (parser.parse(svg) as Parsed[]).filter(node => 'svg' in node);
    return roots.length === 1 ? readNode(roots[0]!, leftOut) : null;
  } catch {
    // The parser throws at some of what its validator lets through.
    return null;
  }
}

function readNode(parsed: Parsed, leftOut: (text: string) => void): Node | null {
  const name = Object.keys(parsed).find(key => key !== ':@' && key !== '#text');
  if (name === undefined) return null;
  if (!ELEMENTS.has(name)) {
    leftOut(`The element “${name}” is left out: an icon holds plain shapes only.`);
    return null;
  }
  const attributes = Object.entries((parsed[':@'] ?? {}) as Record<string, string>).filter(([key, value]) => {
    const plain = ATTRIBUTES.has(key) && PLAIN_VALUE.test(value) && !/url\s*\(/i.test(value);
    if (!plain && !['class', 'id', 'version'].includes(key)) leftOut(`The attribute “${key}” is left out.`);
    return plain;
  });
  const children = (parsed[name] as Parsed[]).flatMap(child => readNode(child, leftOut) ?? []);
  return { name, attributes, children: name === 'title' ? [] : children };
}

function writeNode({ name, attributes, children }: Node): string {
  const written = attributes.map(([key, value]) => ` ${key}="${escapeHtml(value)}"`).join('');
  const inner = children
    .filter(child => child.name !== 'title')
    .map(writeNode)
    .join('');
  return `<${name}${written}>${inner}</${name}>`;
}
