import type { Part } from '../../components/anatomy/part';
import type { PartKind } from '../../documents/part-kinds';
import type { Component } from '../../components/component';
import type { PartProperty } from '../../cascade/references';
import { PROPERTIES, shorthandOf } from '../../css/property-registry';
import { everyAnnounced } from '../../render/accessibility';
import type { CssContext } from './css-value';
import type { ComponentNames } from '../../render/names';
import { pressArea } from '../../render/press-area';
import type { StyleBlock } from './stylesheet';

type Declarations = readonly (readonly [string, string])[];

/**
 * What the root takes from the page around it, besides what no rule says of text; anything else begins anew there, so that a
 * page's own stylesheet does not reach in.
 */
const FROM_THE_PAGE = [
  'writing-mode',
  'color-scheme',
  'print-color-adjust',
  '-webkit-text-size-adjust',
  'text-size-adjust',
];

/** Properties that begin otherwise than CSS has it, on every part. */
const SAID: Declarations = PROPERTIES.filter(
  ({ name, inherited, initial, cssInitial }) =>
    !inherited && initial !== cssInitial && shorthandOf(name) === undefined,
).map(({ name, initial }) => [name, initial]);

/** Text properties in which the page has its say where no rule speaks. */
const LEFT_TO_THE_PAGE: Declarations = [
  ...PROPERTIES.filter(({ inherited, initial }) => inherited && initial === 'inherit').map(
    ({ name }) => name,
  ),
  ...FROM_THE_PAGE,
].map(name => [name, 'inherit']);

/** Inherited properties that no rule can name and that our own pages, around plates, may set. */
const TEXT_AROUND_PLATES = [
  'font-feature-settings',
  'font-kerning',
  'font-stretch',
  'font-variant',
  'font-variation-settings',
  'line-break',
  'list-style',
  'quotes',
  'tab-size',
  'text-rendering',
  'text-wrap',
];

/** Against what parts are put on a common ground: any page's stylesheets, what browsers give to elements, or our own plates. */
export type Ground = 'page' | 'browser' | 'plate';

/** On plates hundreds of roots are styled at every edit, and `all` costs a browser as much as hundreds of properties. */
const ON_PLATES: Declarations = [
  ...PROPERTIES.filter(
    ({ name, inherited, initial }) => inherited && initial !== 'inherit' && shorthandOf(name) === undefined,
  ).map(({ name, initial }) => [name, initial] as const),
  ...TEXT_AROUND_PLATES.map(name => [name, 'initial'] as const),
];

/**
 * The ground on which the rules stand. Its selectors weigh what a rule's weigh and come before them; they weigh more than a
 * page's selectors of elements, and say everything anew, so nothing that a page says of all elements shows in a field.
 */
export function resetBlocks(component: Component, names: ComponentNames, against: Ground): StyleBlock[] {
  const { parts, root } = component.anatomy;
  const selectorOf = (part: Part): string => `.${names.part(part.name)}`;
  const list = (some: readonly Part[], suffix = ''): string =>
    some.map(part => selectorOf(part) + suffix).join(', ');
  const inner = parts.filter(part => part !== root);
  const announced = everyAnnounced(component);
  const area = pressArea(component);
  const isLabel = (part: Part): boolean => part === area || part.kind.kind === 'label';
  const isStyled = (part: Part): boolean =>
    STYLED_BY_BROWSERS.has(part.kind.kind) || (against === 'browser' && isLabel(part));
  const blocks: StyleBlock[] = [
    {
      key: 'reset/root',
      comment: [
        'Nothing that a page says of all elements reaches in; it decides only on what is inherited here.',
      ],
      selector: selectorOf(root),
      declarations: against === 'plate' ? ON_PLATES : [['all', 'initial'], ...LEFT_TO_THE_PAGE],
    },
    {
      key: 'reset/inner',
      selector: list(against === 'page' ? inner : inner.filter(isStyled)),
      declarations: [['all', 'unset']],
    },
    {
      key: 'reset/labels',
      selector: list(against === 'plate' ? inner.filter(isLabel) : []),
      declarations: [['cursor', 'inherit']],
    },
    { key: 'reset', selector: list(parts), declarations: [['box-sizing', 'border-box'], ...SAID] },
    ...beginnings(parts).map(({ kinds, declarations }, place) => ({
      key: `reset/${place} ${kinds.map(({ kind }) => kind).join('+')}`,
      selector: list(parts.filter(part => kinds.includes(part.kind))),
      declarations,
    })),
    ...AS_ELEMENTS.map(({ element, declarations }) => ({
      key: `reset/${element}`,
      selector: parts
        .filter(part => part.kind.kind === 'control' && part.elements.includes(element))
        .map(part => selectorOf(part) + (part.elements.length > 1 ? `:where(${element})` : ''))
        .join(', '),
      declarations,
    })),
    {
      key: 'reset/hidden',
      selector: `${selectorOf(root)}[hidden]`,
      declarations: [['display', 'none']],
    },
    {
      // A message that is not there yet takes no room.
      key: 'reset/awaited',
      selector: list(
        parts.filter(part => announced.has(part.name)),
        ':empty',
      ),
      declarations: [['display', 'none']],
    },
    {
      key: 'reset/generated',
      selector: ['::before', '::after'].map(pseudo => `:is(${list(parts)})${pseudo}`).join(', '),
      declarations: [['content', 'none']],
    },
    ...insideBlocks(parts, selectorOf),
  ];
  return blocks.filter(
    ({ key, selector, declarations }) =>
      selector !== '' && declarations.length > 0 && (against === 'page' || !AGAINST_PAGES.has(key)),
  );
}

/** What controls of some elements need to do their work. */
const AS_ELEMENTS: readonly { element: string; declarations: Declarations }[] = [
  {
    // Lines that were written stay lines.
    element: 'textarea',
    declarations: [
      ['white-space', 'pre-wrap'],
      ['overflow-wrap', 'break-word'],
    ],
  },
  // Browsers lay out what is chosen as a flexible box, at its top unless told.
  { element: 'select', declarations: [['align-items', 'center']] },
];

/** Kinds of part whose elements browsers style beyond their display; unsetting all of the others costs time for nothing. */
const STYLED_BY_BROWSERS: ReadonlySet<string> = new Set(['control', 'action']);

/** Blocks that only pages make necessary. */
const AGAINST_PAGES: ReadonlySet<string> = new Set([
  'reset/hidden',
  'reset/awaited',
  'reset/generated',
  'reset/icon :where(svg, svg *)',
]);

/** How parts begin, by kind; kinds that begin alike together. */
function beginnings(parts: readonly Part[]): { kinds: PartKind[]; declarations: Declarations }[] {
  const found = new Map<string, { kinds: PartKind[]; declarations: Declarations }>();
  for (const kind of new Set(parts.map(part => part.kind))) {
    const declarations: Declarations = [['display', kind.display], ...Object.entries(kind.initial)];
    const known = found.get(declarations.join());
    if (known) known.kinds.push(kind);
    else found.set(declarations.join(), { kinds: [kind], declarations });
  }
  return [...found.values()];
}

/** What lies inside a part and is no part itself: one row each. */
const INSIDE: readonly { kind: string; type?: string; inside: string; declarations: Declarations }[] = [
  {
    // What the drawing says of itself in attributes holds, whatever a page says of drawings.
    kind: 'icon',
    inside: ' :where(svg, svg *)',
    declarations: [['all', 'revert-layer']],
  },
  {
    kind: 'icon',
    inside: ' > :where(svg)',
    declarations: [
      ['display', 'block'],
      ['width', '100%'],
      ['height', '100%'],
    ],
  },
  { kind: 'icon', inside: ' > :where(svg:not([fill]))', declarations: [['fill', 'currentcolor']] },
  {
    // The placeholder takes the control's colour: a rule for an empty field colours it.
    kind: 'control',
    inside: '::placeholder',
    declarations: [
      ['color', 'inherit'],
      ['background', 'none'],
      ['font', 'inherit'],
      ['letter-spacing', 'inherit'],
      ['word-spacing', 'inherit'],
      ['text-transform', 'inherit'],
      ['text-decoration', 'none'],
      ['text-shadow', 'none'],
      ['opacity', '1'],
    ],
  },
  // What browsers draw into a control besides its text.
  ...(
    [
      ['number', '::-webkit-inner-spin-button'],
      ['number', '::-webkit-outer-spin-button'],
      ['search', '::-webkit-search-cancel-button'],
      ['search', '::-webkit-search-decoration'],
      ['password', '::-ms-reveal'],
      ['date', '::-webkit-calendar-picker-indicator'],
      ['time', '::-webkit-calendar-picker-indicator'],
    ] as const
  ).map(([type, inside]) => ({
    kind: 'control',
    type,
    inside,
    declarations: [['display', 'none']] as Declarations,
  })),
];

const insideBlocks = (parts: readonly Part[], selectorOf: (part: Part) => string): StyleBlock[] =>
  INSIDE.map(({ kind, type, inside, declarations }) => ({
    key: `reset/${kind}${inside}`,
    selector: parts
      .filter(part => part.kind.kind === kind && (type === undefined || part.type === type))
      .map(part => selectorOf(part) + inside)
      .join(', '),
    declarations,
  }));

/** Elements that browsers fill in. */
const FILLED_IN = new Set(['input', 'textarea', 'select']);

const filledIn = ({ anatomy }: Component): Part[] =>
  anatomy.parts.filter(
    part => part.kind.kind === 'control' && part.elements.some(element => FILLED_IN.has(element)),
  );

/** What the blocks for filled-in controls read of other properties. */
export const autofillReads = (component: Component): PartProperty[] =>
  filledIn(component).flatMap(({ name }) => [
    { part: name, property: 'color' },
    ...(hasSurface(component, name) ? [{ part: name, property: 'background-color' }] : []),
    ...(hasSurface(component, name) && says(component, name, 'box-shadow')
      ? [{ part: name, property: 'box-shadow' }]
      : []),
  ]);

const says = ({ rules }: Component, part: string, property: string): boolean =>
  rules.some(({ settings }) =>
    settings.some(setting => setting.part === part && setting.property.name === property),
  );

/** Whether a control has a surface of its own, which is to be painted over the browser's. */
const hasSurface = (component: Component, part: string): boolean => says(component, part, 'background-color');

/**
 * Browsers colour what they fill in, with declarations that no page can overrule: text and surface. The text's fill is ours
 * still, and a surface that is clipped to the text under that fill is not seen, so rules for `autofill` show.
 */
export function autofillBlocks({ component, names, read }: CssContext): StyleBlock[] {
  return filledIn(component).map(({ name }) => {
    const color = read(name, 'color');
    return {
      key: `autofill/${name}`,
      comment: ['Filled in by the browser: text, caret and surface stay as the rules have them.'],
      selector: `.${names.part(name)}:autofill`,
      declarations: [
        ['background-clip', 'text'],
        ['-webkit-text-fill-color', color],
        ...(says(component, name, 'caret-color') ? [] : [['caret-color', color] as const]),
        ...(hasSurface(component, name)
          ? [['box-shadow', surfaceShadow(component, name, read)] as const]
          : []),
      ],
    };
  });
}

/** A surface as a shadow within, below the shadows that the control has. */
function surfaceShadow(component: Component, part: string, read: CssContext['read']): string {
  const own = says(component, part, 'box-shadow') ? `${read(part, 'box-shadow')}, ` : '';
  return `${own}inset 0 0 0 100vmax ${read(part, 'background-color')}`;
}
