import type { Dimension } from './units';

/** What kind of value a property takes. Each row says which tokens fit and what a `calc()` must come to. */
export interface ValueType {
  readonly tokenTypes: readonly string[];
  /** What `calc()` may come to; none where there is nothing to calculate. A bare 0 counts as the first of them. */
  readonly calc: readonly Dimension[];
  /** Fractions are rounded to the nearest whole number, halves upwards (CSS Values 4, section 10.12). */
  readonly integer?: true;
  /** Not CSS: takes the property's keywords and nothing else. */
  readonly ours?: true;
  readonly words: string;
  /** A literal shown when something else was written. */
  readonly example: string;
}

export const VALUE_TYPES = {
  color: { tokenTypes: ['color'], calc: [], words: 'a colour', example: '#5957aa' },
  length: { tokenTypes: ['dimension'], calc: ['length'], words: 'a length', example: '12px' },
  number: { tokenTypes: ['number'], calc: ['number'], words: 'a number', example: '0.5' },
  integer: {
    tokenTypes: ['number'],
    calc: ['number'],
    integer: true,
    words: 'a whole number',
    example: '1',
  },
  lineHeight: {
    tokenTypes: ['number', 'dimension'],
    calc: ['number', 'length'],
    words: 'a number or a length',
    example: '1.4',
  },
  time: { tokenTypes: ['duration'], calc: ['time'], words: 'a duration', example: '150ms' },
  easing: { tokenTypes: ['cubicBezier'], calc: [], words: 'a timing function', example: 'ease-out' },
  fontFamily: {
    tokenTypes: ['fontFamily'],
    calc: [],
    words: 'font families',
    example: 'system-ui, sans-serif',
  },
  fontWeight: { tokenTypes: ['fontWeight', 'number'], calc: ['number'], words: 'a weight', example: '600' },
  lineStyle: { tokenTypes: ['strokeStyle'], calc: [], words: 'a line style', example: 'solid' },
  shadow: { tokenTypes: ['shadow'], calc: [], words: 'shadows', example: '0 0 0 2px #5957aa' },
  image: { tokenTypes: ['gradient'], calc: [], words: 'an image', example: 'none' },
  border: { tokenTypes: ['border'], calc: [], words: '', example: '' },
  typography: { tokenTypes: ['typography'], calc: [], words: '', example: '' },
  transition: { tokenTypes: ['transition'], calc: [], words: '', example: '' },
  keyword: { tokenTypes: [], calc: [], words: 'a keyword', example: '' },
  presence: { tokenTypes: [], calc: [], ours: true, words: 'true or false', example: '' },
  text: { tokenTypes: [], calc: [], words: 'CSS text', example: '' },
} as const satisfies Record<string, ValueType>;

export type ValueTypeName = keyof typeof VALUE_TYPES;

export const valueType = (name: ValueTypeName): ValueType => VALUE_TYPES[name];
