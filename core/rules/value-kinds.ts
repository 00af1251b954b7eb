/** What kind of value a property takes. Each row says which tokens fit and what a `calc()` must come to. */
export interface ValueKind {
  readonly tokenTypes: readonly string[];
  /** Type of the result of `calc()`, or `null` where there is nothing to calculate. */
  readonly calc: 'length' | 'time' | 'number' | null;
  readonly words: string;
  /** A literal shown when something else was written. */
  readonly example: string;
}

export const VALUE_KINDS = {
  color: { tokenTypes: ['color'], calc: null, words: 'a colour', example: '#5b5fc7' },
  length: { tokenTypes: ['dimension'], calc: 'length', words: 'a length', example: '12px' },
  number: { tokenTypes: ['number'], calc: 'number', words: 'a number', example: '0.5' },
  integer: { tokenTypes: ['number'], calc: 'number', words: 'a whole number', example: '1' },
  lineHeight: {
    tokenTypes: ['number', 'dimension'],
    calc: 'number',
    words: 'a number or a length',
    example: '1.4',
  },
  time: { tokenTypes: ['duration'], calc: 'time', words: 'a duration', example: '150ms' },
  easing: { tokenTypes: ['cubicBezier'], calc: null, words: 'a timing function', example: 'ease-out' },
  fontFamily: {
    tokenTypes: ['fontFamily'],
    calc: null,
    words: 'font families',
    example: 'system-ui, sans-serif',
  },
  fontWeight: { tokenTypes: ['fontWeight', 'number'], calc: 'number', words: 'a weight', example: '600' },
  lineStyle: { tokenTypes: ['strokeStyle'], calc: null, words: 'a line style', example: 'solid' },
  shadow: { tokenTypes: ['shadow'], calc: null, words: 'shadows', example: '0 0 0 2px #5b5fc7' },
  image: { tokenTypes: ['gradient'], calc: null, words: 'an image', example: 'none' },
  border: { tokenTypes: ['border'], calc: null, words: '', example: '' },
  typography: { tokenTypes: ['typography'], calc: null, words: '', example: '' },
  transition: { tokenTypes: ['transition'], calc: null, words: '', example: '' },
  keyword: { tokenTypes: [], calc: null, words: 'a keyword', example: '' },
  text: { tokenTypes: [], calc: null, words: 'CSS text', example: '' },
} as const satisfies Record<string, ValueKind>;

export type ValueKindName = keyof typeof VALUE_KINDS;

export const valueKind = (name: ValueKindName): ValueKind => VALUE_KINDS[name];
