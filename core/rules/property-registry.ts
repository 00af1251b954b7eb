import type { ValueKindName } from './value-kinds';

/** Which parts a property makes sense on. */
export type PartScope = 'any' | 'box' | 'text';

/** One property: CSS name, kind of value, and everything the rest of the core must know about it. */
export interface Property {
  readonly name: string;
  readonly kind: ValueKindName;
  readonly scope: PartScope;
  readonly inherited: boolean;
  /** Value where no rule speaks, as the parts' reset leaves it; what `@part.property` then stands for. */
  readonly initial: string;
  /** Negative results are clamped to zero, as CSS does. */
  readonly nonNegative: boolean;
  /** Words offered while typing. */
  readonly keywords: readonly string[];
  /** Properties of the registry that this one sets too: all four sides, all four corners. */
  readonly longhands: readonly string[];
  /** Properties among which a composite token is shared out; such a property takes nothing else. */
  readonly members: readonly Member[];
  /** Name in style objects for native screens, or `null` where they have none. */
  readonly native: string | null;
}

/** One property's share of a composite token. */
export interface Member {
  readonly property: string;
  /** Key in the token's value. */
  readonly key: string;
}

type Options = Partial<Omit<Property, 'name' | 'kind' | 'keywords'>> & { keywords?: string };

function property(name: string, kind: ValueKindName, options: Options = {}): Property {
  const native = name.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase());
  return {
    name,
    kind,
    scope: 'any',
    inherited: false,
    initial: '0px',
    nonNegative: false,
    longhands: [],
    members: [],
    native,
    ...options,
    keywords: options.keywords?.split(' ') ?? [],
  };
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
const LINE_STYLES = 'none solid dashed dotted double groove ridge inset outset';

/** A property for all four sides and one for each. */
function sides(aspect: 'color' | 'width' | 'style', kind: ValueKindName, options: Options): Property[] {
  const longhands = SIDES.map(side => `border-${side}-${aspect}`);
  return [
    property(`border-${aspect}`, kind, { ...options, longhands }),
    ...longhands.map(name => property(name, kind, options)),
  ];
}

function corners(): Property[] {
  const longhands = CORNERS.map(corner => `border-${corner}-radius`);
  const options = { nonNegative: true };
  return [
    property('border-radius', 'length', { ...options, longhands }),
    ...longhands.map(name => property(name, 'length', options)),
  ];
}

/** Along and across the direction of writing: `padding-inline` and its start and end. */
function flow(name: 'padding' | 'margin', nonNegative: boolean): Property[] {
  return ['block', 'inline'].flatMap(axis => {
    const longhands = [`${name}-${axis}-start`, `${name}-${axis}-end`];
    const options = { nonNegative, ...(nonNegative ? {} : { keywords: 'auto' }) };
    return [
      property(`${name}-${axis}`, 'length', { ...options, longhands }),
      ...longhands.map(longhand => property(longhand, 'length', options)),
    ];
  });
}

/** A CSS shorthand that stands for a composite token: `members` are properties, each with its key in the token. */
function composite(
  name: string,
  kind: ValueKindName,
  members: readonly (readonly [property: string, key: string])[],
): Property {
  return property(name, kind, {
    initial: '',
    scope: kind === 'typography' ? 'text' : 'any',
    native: null,
    members: members.map(([own, key]) => ({ property: own, key })),
  });
}

/** `border`, `border-top`, `outline`: a line's width, style and colour. */
const line = (name: string): Property =>
  composite(
    name,
    'border',
    ['width', 'style', 'color'].map(aspect => [`${name}-${aspect}`, aspect] as const),
  );

const SIZES = ['width', 'height', 'min-width', 'min-height'] as const;

/** All properties a rule can set. Adding one is adding a row. Names and value kinds follow the CSS specifications. */
export const PROPERTIES: readonly Property[] = [
  property('present', 'keyword', { initial: 'true', keywords: 'true false', native: null }),

  property('color', 'color', {
    inherited: true,
    initial: 'currentcolor',
    keywords: 'currentcolor transparent',
  }),
  property('background-color', 'color', { initial: 'transparent', keywords: 'transparent currentcolor' }),
  property('background-image', 'image', { initial: 'none', keywords: 'none', native: null }),
  property('opacity', 'number', { initial: '1' }),

  line('border'),
  ...SIDES.map(side => line(`border-${side}`)),
  ...sides('color', 'color', { initial: 'currentcolor', keywords: 'transparent currentcolor' }),
  ...sides('width', 'length', { nonNegative: true, keywords: 'thin medium thick' }),
  ...sides('style', 'lineStyle', { initial: 'solid', keywords: LINE_STYLES }),
  ...corners(),
  property('box-shadow', 'shadow', { initial: 'none', keywords: 'none' }),
  line('outline'),
  property('outline-color', 'color', { initial: 'currentcolor', keywords: 'transparent currentcolor' }),
  property('outline-width', 'length', { nonNegative: true }),
  property('outline-style', 'lineStyle', { initial: 'none', keywords: LINE_STYLES }),
  property('outline-offset', 'length'),

  ...SIZES.map(name =>
    property(name, 'length', {
      initial: 'auto',
      nonNegative: true,
      keywords: 'auto min-content max-content',
    }),
  ),
  ...(['max-width', 'max-height'] as const).map(name =>
    property(name, 'length', { initial: 'none', nonNegative: true, keywords: 'none max-content' }),
  ),
  ...flow('padding', true),
  ...flow('margin', false),
  property('gap', 'length', { scope: 'box', nonNegative: true }),

  property('flex-direction', 'keyword', {
    scope: 'box',
    initial: 'row',
    keywords: 'row column row-reverse column-reverse',
  }),
  property('flex-wrap', 'keyword', { scope: 'box', initial: 'nowrap', keywords: 'nowrap wrap' }),
  property('align-items', 'keyword', {
    scope: 'box',
    initial: 'stretch',
    keywords: 'stretch center flex-start flex-end baseline',
  }),
  property('justify-content', 'keyword', {
    scope: 'box',
    initial: 'flex-start',
    keywords: 'flex-start center flex-end space-between',
  }),
  property('align-self', 'keyword', {
    initial: 'auto',
    keywords: 'auto stretch center flex-start flex-end baseline',
  }),
  property('flex-grow', 'number', { initial: '0', nonNegative: true }),
  property('flex-shrink', 'number', { initial: '1', nonNegative: true }),
  property('flex-basis', 'length', { initial: 'auto', nonNegative: true, keywords: 'auto content' }),
  property('order', 'integer', { initial: '0', native: null }),
  property('position', 'keyword', { initial: 'static', keywords: 'static relative absolute' }),
  property('overflow', 'keyword', { initial: 'visible', keywords: 'visible hidden clip' }),
  property('clip-path', 'text', { initial: 'none', keywords: 'none', native: null }),

  composite('font', 'typography', [
    ['font-family', 'fontFamily'],
    ['font-size', 'fontSize'],
    ['font-weight', 'fontWeight'],
    ['letter-spacing', 'letterSpacing'],
    ['line-height', 'lineHeight'],
  ]),
  property('font-family', 'fontFamily', { scope: 'text', inherited: true, initial: 'inherit' }),
  property('font-size', 'length', { scope: 'text', inherited: true, initial: 'inherit', nonNegative: true }),
  property('font-weight', 'fontWeight', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'normal bold',
  }),
  property('font-style', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'normal italic',
  }),
  property('line-height', 'lineHeight', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    nonNegative: true,
    keywords: 'normal',
  }),
  property('letter-spacing', 'length', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'normal',
  }),
  property('text-align', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'start end center',
  }),
  property('text-transform', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'none uppercase lowercase',
  }),
  property('text-decoration-line', 'keyword', {
    scope: 'text',
    initial: 'none',
    keywords: 'none underline line-through',
  }),
  property('text-overflow', 'keyword', {
    scope: 'text',
    initial: 'clip',
    keywords: 'clip ellipsis',
    native: null,
  }),
  property('white-space', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'normal nowrap pre-wrap',
    native: null,
  }),
  property('caret-color', 'color', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    keywords: 'auto transparent',
    native: null,
  }),

  property('cursor', 'keyword', {
    inherited: true,
    initial: 'inherit',
    keywords: 'auto default text pointer not-allowed progress',
    native: null,
  }),
  property('pointer-events', 'keyword', { inherited: true, initial: 'inherit', keywords: 'auto none' }),
  composite('transition', 'transition', [
    ['transition-duration', 'duration'],
    ['transition-timing-function', 'timingFunction'],
    ['transition-delay', 'delay'],
  ]),
  property('transition-property', 'text', { initial: 'none', keywords: 'none all', native: null }),
  property('transition-duration', 'time', { initial: '0ms', nonNegative: true, native: null }),
  property('transition-timing-function', 'easing', {
    initial: 'ease',
    keywords: 'linear ease ease-in ease-out ease-in-out',
    native: null,
  }),
  property('transition-delay', 'time', { initial: '0ms', native: null }),
];

const BY_NAME = new Map(PROPERTIES.map(row => [row.name, row]));

/** Names of all properties, in the registry's order. */
export const PROPERTY_NAMES: readonly string[] = PROPERTIES.map(row => row.name);

export function propertyNamed(name: string): Property | undefined {
  return BY_NAME.get(name);
}

const SHORTHAND_OF = new Map(
  PROPERTIES.flatMap(row => row.longhands.map(longhand => [longhand, row.name] as const)),
);

/** The property that sets this one along with its siblings, if there is one: `border-width` for `border-top-width`. */
export function shorthandOf(name: string): string | undefined {
  return SHORTHAND_OF.get(name);
}
