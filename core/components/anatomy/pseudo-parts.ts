import type { PseudoPart } from './part';
import { type Part } from './part';
import { showsPlaceholder, type PartKind } from '../../documents/part-kinds';

const kindOf = (kind: string, words: string): PartKind => ({
  kind,
  box: false,
  element: '',
  display: '',
  initial: {},
  words,
});

const DECORATION = ['line', 'color', 'style', 'thickness'].map(aspect => `text-decoration-${aspect}`);

/** Adding a pseudo-part is adding a row. */
const PSEUDO_PARTS: readonly PseudoPart[] = [
  {
    name: 'placeholder',
    isIn: ({ elements, type }) => elements.some(element => showsPlaceholder(element, type)),
    kind: kindOf('placeholder', 'shown while nothing is entered'),
    properties: new Set([
      'color',
      'background-color',
      'opacity',
      ...['family', 'size', 'weight', 'style', 'variant-numeric'].map(aspect => `font-${aspect}`),
      'letter-spacing',
      'word-spacing',
      'text-transform',
      ...DECORATION,
    ]),
  },
  {
    name: 'selection',
    isIn: ({ elements }) => elements.some(element => element === 'input' || element === 'textarea'),
    kind: kindOf('selection', 'what is marked in it'),
    properties: new Set(['color', 'background-color', ...DECORATION]),
  },
];

/** The pseudo-parts of a part, as parts that hold nothing. */
export const pseudoPartsOf = (host: Part): Part[] =>
  PSEUDO_PARTS.filter(({ isIn }) => host.kind.kind === 'control' && isIn(host)).map(pseudo => ({
    ...host,
    name: `${host.name}::${pseudo.name}`,
    title: `${host.title}’s ${pseudo.name}`,
    description: '',
    kind: pseudo.kind,
    content: null,
    element: '',
    elements: [],
    type: null,
    children: [],
    pseudo,
  }));

const NAMED = /^(.*)(::[a-z-]+)$/;

/** The name of a pseudo-part parted from that of the part it is in; of any other part nothing is parted. */
export function hostAndPseudo(part: string): readonly [host: string, pseudo: string] {
  const match = NAMED.exec(part);
  return match ? [match[1]!, match[2]!] : [part, ''];
}

export const isPseudo = (part: string): boolean => part.includes('::');
