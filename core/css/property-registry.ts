import { ANY, NOT_NEGATIVE, type Property } from './property';
import type { ValueTypeName } from './value-types';

type Options = Partial<Omit<Property, 'name' | 'kind' | 'keywords'>> & { keywords?: string };

function property(name: string, kind: ValueTypeName, options: Options = {}): Property {
  const native = name.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase());
  return {
    name,
    kind,
    scope: 'any',
    inherited: false,
    initial: '0px',
    cssInitial: options.initial ?? '0px',
    range: ANY,
    lenient: false,
    amounts: {},
    longhands: [],
    shares: [],
    members: [],
    declares: null,
    native,
    ...options,
    keywords: options.keywords?.split(' ') ?? [],
  };
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
/** Of sides and corners in the order of a clock (CSS Backgrounds 3, sections 3 and 4). */
const AROUND = [
  [0, 1, 0, 1],
  [0, 1, 2, 1],
  [0, 1, 2, 3],
];
const LINE_STYLES = 'none solid dashed dotted double groove ridge inset outset';

/** A property for all four sides and one for each. */
function sides(aspect: 'color' | 'width' | 'style', kind: ValueTypeName, options: Options): Property[] {
  const longhands = SIDES.map(side => `border-${side}-${aspect}`);
  return [
    property(`border-${aspect}`, kind, { ...options, longhands, shares: AROUND }),
    ...longhands.map(name => property(name, kind, options)),
  ];
}

function corners(): Property[] {
  const longhands = CORNERS.map(corner => `border-${corner}-radius`);
  const options = { range: NOT_NEGATIVE };
  return [
    property('border-radius', 'length', { ...options, longhands, shares: AROUND }),
    ...longhands.map(name => property(name, 'length', options)),
  ];
}

/** All around, along and across the direction of writing: `padding`, `padding-inline`, and its start and end. */
function flow(name: 'padding' | 'margin' | 'inset', own: Options): Property[] {
  const axes = ['block', 'inline'].map(axis => {
    const longhands = [`${name}-${axis}-start`, `${name}-${axis}-end`];
    return [
      property(`${name}-${axis}`, 'length', { ...own, longhands, shares: [[0, 1]] }),
      ...longhands.map(longhand => property(longhand, 'length', own)),
    ];
  });
  const longhands = axes.flat().map(each => each.name);
  // Four values would mean left and right, which know no direction of writing.
  const shares = [
    [0, 0, 1, 1],
    [0, 2, 1, 1],
  ];
  return [property(name, 'length', { ...own, longhands, shares }), ...axes.flat()];
}

/** A CSS shorthand that stands for a composite token: `members` are properties, each with its key in the token. */
function composite(
  name: string,
  kind: ValueTypeName,
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
const LINE_WIDTH: Options = {
  cssInitial: '3px',
  range: NOT_NEGATIVE,
  amounts: { thin: 1, medium: 3, thick: 5 },
};

/** All properties a rule can set. Adding one is adding a row. Names and value kinds follow the CSS specifications. */
export const PROPERTIES: readonly Property[] = [
  property('present', 'presence', {
    initial: 'true',
    keywords: 'true false',
    declares: { property: 'display', texts: { true: null, false: 'none' } },
    native: null,
  }),

  property('color', 'color', {
    inherited: true,
    initial: 'inherit',
    cssInitial: 'canvastext',
    keywords: 'currentcolor transparent',
  }),
  property('background-color', 'color', { initial: 'transparent', keywords: 'transparent currentcolor' }),
  property('background-image', 'image', { initial: 'none', keywords: 'none', native: null }),
  property('background-size', 'text', { initial: 'auto', keywords: 'auto cover contain', native: null }),
  property('background-position', 'text', {
    initial: '0% 0%',
    keywords: 'center top right bottom left',
    native: null,
  }),
  property('background-repeat', 'keyword', {
    initial: 'repeat',
    keywords: 'repeat no-repeat repeat-x repeat-y space round',
    native: null,
  }),
  property('background-clip', 'keyword', {
    initial: 'border-box',
    keywords: 'border-box padding-box content-box text',
    native: null,
  }),
  property('opacity', 'number', { initial: '1', range: [0, 1], lenient: true }),

  line('border'),
  ...SIDES.map(side => line(`border-${side}`)),
  ...sides('color', 'color', { initial: 'currentcolor', keywords: 'transparent currentcolor' }),
  ...sides('width', 'length', { ...LINE_WIDTH, keywords: 'thin medium thick' }),
  ...sides('style', 'lineStyle', { initial: 'solid', cssInitial: 'none', keywords: LINE_STYLES }),
  ...corners(),
  property('box-shadow', 'shadow', { initial: 'none', keywords: 'none' }),
  line('outline'),
  property('outline-color', 'color', { initial: 'currentcolor', keywords: 'transparent currentcolor' }),
  property('outline-width', 'length', LINE_WIDTH),
  property('outline-style', 'lineStyle', { initial: 'none', keywords: LINE_STYLES }),
  property('outline-offset', 'length'),

  ...SIZES.map(name =>
    property(name, 'length', {
      // Boxes in a row may shrink below what is in them.
      initial: name === 'min-width' ? '0px' : 'auto',
      cssInitial: 'auto',
      range: NOT_NEGATIVE,
      keywords: 'auto min-content max-content',
    }),
  ),
  ...(['max-width', 'max-height'] as const).map(name =>
    property(name, 'length', { initial: 'none', range: NOT_NEGATIVE, keywords: 'none max-content' }),
  ),
  ...flow('padding', { range: NOT_NEGATIVE }),
  ...flow('margin', { keywords: 'auto' }),
  property('gap', 'length', {
    scope: 'box',
    range: NOT_NEGATIVE,
    longhands: ['row-gap', 'column-gap'],
    shares: [[0, 1]],
  }),
  ...['row-gap', 'column-gap'].map(name => property(name, 'length', { scope: 'box', range: NOT_NEGATIVE })),
  property('aspect-ratio', 'text', { initial: 'auto', keywords: 'auto' }),

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
  property('align-content', 'keyword', {
    scope: 'box',
    initial: 'normal',
    keywords: 'normal stretch center flex-start flex-end space-between space-around',
  }),
  property('align-self', 'keyword', {
    initial: 'auto',
    keywords: 'auto stretch center flex-start flex-end baseline',
  }),
  property('flex-grow', 'number', { initial: '0', range: NOT_NEGATIVE }),
  property('flex-shrink', 'number', { initial: '1', range: NOT_NEGATIVE }),
  property('flex-basis', 'length', { initial: 'auto', range: NOT_NEGATIVE, keywords: 'auto content' }),
  property('order', 'integer', { initial: '0', native: null }),
  property('position', 'keyword', { initial: 'static', keywords: 'static relative absolute' }),
  ...flow('inset', { initial: 'auto', keywords: 'auto' }),
  property('z-index', 'integer', { initial: 'auto', keywords: 'auto' }),
  property('isolation', 'keyword', { initial: 'auto', keywords: 'auto isolate', native: null }),
  property('translate', 'length', { initial: 'none', keywords: 'none', native: null }),
  property('scale', 'number', { initial: 'none', keywords: 'none', native: null }),
  property('rotate', 'text', { initial: 'none', keywords: 'none', native: null }),
  property('transform-origin', 'text', {
    initial: '50% 50%',
    keywords: 'center top right bottom left',
    native: null,
  }),
  property('overflow', 'keyword', { initial: 'visible', keywords: 'visible hidden clip auto scroll' }),
  property('overscroll-behavior', 'keyword', {
    initial: 'auto',
    keywords: 'auto contain none',
    native: null,
  }),
  property('visibility', 'keyword', {
    inherited: true,
    initial: 'inherit',
    cssInitial: 'visible',
    keywords: 'visible hidden',
    native: null,
  }),
  property('filter', 'text', { initial: 'none', keywords: 'none', native: null }),
  property('clip-path', 'text', { initial: 'none', keywords: 'none', native: null }),

  composite('font', 'typography', [
    ['font-family', 'fontFamily'],
    ['font-size', 'fontSize'],
    ['font-weight', 'fontWeight'],
    ['letter-spacing', 'letterSpacing'],
    ['line-height', 'lineHeight'],
  ]),
  property('font-family', 'fontFamily', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    cssInitial: 'serif',
  }),
  property('font-size', 'length', {
    scope: 'text',
    inherited: true,
    initial: 'inherit',
    cssInitial: '16px',
    range: NOT_NEGATIVE,
  }),
  property('font-weight', 'fontWeight', {
    scope: 'text',
    inherited: true,
    initial: '400',
    range: [1, 1000],
    amounts: { normal: 400, bold: 700 },
    keywords: 'normal bold',
  }),
  property('font-variant-numeric', 'text', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    keywords: 'normal tabular-nums lining-nums oldstyle-nums slashed-zero',
    native: null,
  }),
  property('font-style', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    keywords: 'normal italic',
  }),
  property('line-height', 'lineHeight', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    range: NOT_NEGATIVE,
    keywords: 'normal',
  }),
  property('letter-spacing', 'length', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    amounts: { normal: 0 },
    keywords: 'normal',
  }),
  property('word-spacing', 'length', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    cssInitial: '0px',
    amounts: { normal: 0 },
    keywords: 'normal',
    native: null,
  }),
  property('text-indent', 'length', { scope: 'text', inherited: true, native: null }),
  property('text-align', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'start',
    keywords: 'start end center',
  }),
  property('text-transform', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'none',
    keywords: 'none uppercase lowercase',
  }),
  property('text-decoration-line', 'keyword', {
    scope: 'text',
    initial: 'none',
    keywords: 'none underline line-through',
  }),
  property('text-decoration-color', 'color', {
    scope: 'text',
    initial: 'currentcolor',
    keywords: 'currentcolor transparent',
  }),
  property('text-decoration-style', 'keyword', {
    scope: 'text',
    initial: 'solid',
    keywords: 'solid double dotted dashed wavy',
  }),
  property('text-decoration-thickness', 'length', {
    scope: 'text',
    initial: 'auto',
    keywords: 'auto from-font',
    native: null,
  }),
  property('text-underline-offset', 'length', {
    scope: 'text',
    inherited: true,
    initial: 'auto',
    keywords: 'auto',
    native: null,
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
    initial: 'normal',
    keywords: 'normal nowrap pre-wrap',
    native: null,
  }),
  property('overflow-wrap', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    keywords: 'normal break-word anywhere',
    native: null,
  }),
  property('word-break', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'normal',
    keywords: 'normal break-all keep-all',
    native: null,
  }),
  property('hyphens', 'keyword', {
    scope: 'text',
    inherited: true,
    initial: 'manual',
    keywords: 'manual none auto',
    native: null,
  }),
  property('direction', 'keyword', {
    inherited: true,
    initial: 'inherit',
    cssInitial: 'ltr',
    keywords: 'ltr rtl',
  }),
  property('caret-color', 'color', {
    scope: 'text',
    inherited: true,
    initial: 'auto',
    keywords: 'auto transparent',
    native: null,
  }),

  property('accent-color', 'color', {
    inherited: true,
    initial: 'auto',
    keywords: 'auto',
    native: null,
  }),
  property('resize', 'keyword', {
    initial: 'none',
    keywords: 'none both horizontal vertical inline block',
    native: null,
  }),
  property('field-sizing', 'keyword', {
    scope: 'text',
    initial: 'fixed',
    keywords: 'fixed content',
    native: null,
  }),
  property('user-select', 'keyword', {
    initial: 'auto',
    keywords: 'auto none text all',
    native: null,
  }),
  property('touch-action', 'keyword', {
    initial: 'auto',
    keywords: 'auto none manipulation pan-x pan-y',
    native: null,
  }),
  property('cursor', 'keyword', {
    inherited: true,
    initial: 'auto',
    keywords: 'auto default text pointer not-allowed progress wait help ew-resize ns-resize',
    native: null,
  }),
  property('pointer-events', 'keyword', {
    inherited: true,
    initial: 'inherit',
    cssInitial: 'auto',
    keywords: 'auto none',
  }),
  composite('transition', 'transition', [
    ['transition-duration', 'duration'],
    ['transition-timing-function', 'timingFunction'],
    ['transition-delay', 'delay'],
  ]),
  property('transition-property', 'text', { initial: 'none', keywords: 'none all', native: null }),
  property('transition-duration', 'time', { initial: '0ms', range: NOT_NEGATIVE, native: null }),
  property('transition-timing-function', 'easing', {
    initial: 'ease',
    keywords: 'linear ease ease-in ease-out ease-in-out',
    native: null,
  }),
  property('transition-delay', 'time', { initial: '0ms', native: null }),
];

const BY_NAME = new Map(PROPERTIES.map(row => [row.name, row]));

/** Names of all properties, in the registry's order. */
export const PROPERTY_NAMES: readonly string[] = Object.freeze(PROPERTIES.map(row => row.name));

export function propertyNamed(name: string): Property | undefined {
  return BY_NAME.get(name);
}

/** The nearest of those that set a property: the wider ones stand first. */
const SHORTHAND_OF = new Map(
  PROPERTIES.flatMap(row => row.longhands.map(longhand => [longhand, row.name] as const)),
);

/**
 * The property that sets this one along with its siblings, if there is one, the nearest: `border-width` for `border-top-width`,
 * `padding-inline` for `padding-inline-start`, and for that `padding`.
 */
export function shorthandOf(name: string): string | undefined {
  return SHORTHAND_OF.get(name);
}

/** What a property comes down to in CSS: the longhands that have none themselves, else the property itself. */
export function leavesOf(name: string): readonly string[] {
  const longhands = BY_NAME.get(name)?.longhands ?? [];
  return longhands.length === 0
    ? [name]
    : longhands.filter(each => BY_NAME.get(each)!.longhands.length === 0);
}
