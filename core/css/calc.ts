import { shortDecimal } from '../text/css-text';

/**
 * `calc()` as in CSS Values 4: numbers, dimensions, percentages, `+ - * /`, brackets, `min()`, `max()`, `clamp()`;
 * besides, `{token}` and `@part.property`.
 */
export type Calc =
  | { readonly kind: 'number'; readonly value: number; readonly unit: string }
  | { readonly kind: 'token'; readonly key: string }
  | { readonly kind: 'property'; readonly part: string; readonly property: string }
  | {
      readonly kind: 'sum' | 'product';
      readonly terms: readonly { readonly sign: '+' | '-' | '*' | '/'; readonly term: Calc }[];
    }
  | { readonly kind: 'call'; readonly name: 'min' | 'max' | 'clamp'; readonly args: readonly Calc[] };

export class CalcSyntaxError extends Error {}

interface Lexeme {
  readonly text: string;
  readonly space: boolean;
}

const LEXEME =
  /\s*(?:(\d*\.?\d+(?:e[+-]?\d+)?(?:%|[a-z]+)?)|(\{[^{}]*\})|(@[A-Za-z][\w-]*(?:\/[A-Za-z][\w-]*)*\.[a-z-]+)|([a-z]+\()|([-+*/(),]))/iy;
const MAX_NESTING = 32;

/** Parses the whole text of a `calc(…)` value. Throws `CalcSyntaxError`. */
export function parseCalc(text: string): Calc {
  const parser = new CalcParser(lexemes(text));
  const result = parser.value(0);
  parser.end();
  return result;
}

function lexemes(text: string): Lexeme[] {
  const result: Lexeme[] = [];
  LEXEME.lastIndex = 0;
  const end = text.trimEnd().length;
  while (LEXEME.lastIndex < end) {
    const start = LEXEME.lastIndex;
    const match = LEXEME.exec(text);
    if (!match) throw new CalcSyntaxError(`cannot be read from “${text.slice(start, start + 20).trim()}” on`);
    result.push({ text: match[0].trim(), space: /^\s/.test(match[0]) });
  }
  return result;
}

class CalcParser {
  private at = 0;

  constructor(private readonly input: readonly Lexeme[]) {}

  end(): void {
    if (this.at < this.input.length) throw new CalcSyntaxError(`has “${this.input[this.at]!.text}” too many`);
  }

  value(depth: number): Calc {
    if (depth > MAX_NESTING) throw new CalcSyntaxError(`is nested more than ${MAX_NESTING} deep`);
    const lexeme = this.next('a value');
    const { text } = lexeme;
    if (text === '(' || text.toLowerCase() === 'calc(') return this.closed(this.sum(depth + 1));
    const call = /^(min|max|clamp)\($/i.exec(text);
    if (call) return this.call(call[1]!.toLowerCase() as 'min' | 'max' | 'clamp', depth);
    if (text.startsWith('{')) return { kind: 'token', key: text.slice(1, -1).trim() };
    if (text.startsWith('@')) {
      const [part, property] = text.slice(1).split('.') as [string, string];
      return { kind: 'property', part, property };
    }
    if (text === '-' || text === '+') return this.signed(text);
    const number = /^([\d.]+(?:e[+-]?\d+(?![a-z]))?)(%|[a-z]*)$/i.exec(text);
    if (!number) throw new CalcSyntaxError(`has “${text}” where a value is expected`);
    return { kind: 'number', value: Number(number[1]), unit: number[2]!.toLowerCase() };
  }

  private signed(sign: string): Calc {
    const lexeme = this.next('a number');
    if (lexeme.space) throw new CalcSyntaxError(`has a space after the sign “${sign}” of a number`);
    this.at--;
    const number = this.value(MAX_NESTING);
    if (number.kind !== 'number') throw new CalcSyntaxError('can put a sign before a number only');
    return sign === '-' ? { ...number, value: -number.value } : number;
  }

  private sum(depth: number): Calc {
    const terms: { sign: '+' | '-' | '*' | '/'; term: Calc }[] = [{ sign: '+', term: this.product(depth) }];
    for (let next = this.peek(); next?.text === '+' || next?.text === '-'; next = this.peek()) {
      this.at++;
      const after = this.peek();
      if (!next.space || !after?.space)
        throw new CalcSyntaxError(`needs a space on both sides of “${next.text}”`);
      terms.push({ sign: next.text as '+' | '-', term: this.product(depth) });
    }
    return terms.length === 1 ? terms[0]!.term : { kind: 'sum', terms };
  }

  private product(depth: number): Calc {
    const terms: { sign: '+' | '-' | '*' | '/'; term: Calc }[] = [{ sign: '*', term: this.value(depth) }];
    for (let next = this.peek(); next?.text === '*' || next?.text === '/'; next = this.peek()) {
      this.at++;
      terms.push({ sign: next.text as '*' | '/', term: this.value(depth) });
    }
    return terms.length === 1 ? terms[0]!.term : { kind: 'product', terms };
  }

  private call(name: 'min' | 'max' | 'clamp', depth: number): Calc {
    const args = [this.sum(depth + 1)];
    while (this.peek()?.text === ',') {
      this.at++;
      args.push(this.sum(depth + 1));
    }
    if (name === 'clamp' && args.length !== 3) throw new CalcSyntaxError('needs three arguments in clamp()');
    return this.closed({ kind: 'call', name, args });
  }

  private closed(inner: Calc): Calc {
    if (this.peek()?.text !== ')') throw new CalcSyntaxError('has no closing bracket');
    this.at++;
    return inner;
  }

  private peek(): Lexeme | undefined {
    return this.input[this.at];
  }

  private next(wanted: string): Lexeme {
    const lexeme = this.input[this.at++];
    if (!lexeme) throw new CalcSyntaxError(`ends where ${wanted} is expected`);
    return lexeme;
  }
}

/** Tokens and properties that an expression refers to. */
export function calcReferences(calc: Calc): {
  tokens: string[];
  properties: { part: string; property: string }[];
} {
  const tokens: string[] = [];
  const properties: { part: string; property: string }[] = [];
  const visit = (node: Calc): void => {
    if (node.kind === 'token') tokens.push(node.key);
    else if (node.kind === 'property') properties.push({ part: node.part, property: node.property });
    else if (node.kind === 'call') node.args.forEach(visit);
    else if (node.kind !== 'number') node.terms.forEach(({ term }) => visit(term));
  };
  visit(calc);
  return { tokens, properties };
}

/** An expression with its leaves exchanged; `leaf` gives `null` to leave one as it is. */
export function mapCalc(calc: Calc, leaf: (node: CalcLeaf) => Calc | null): Calc {
  switch (calc.kind) {
    case 'number':
    case 'token':
    case 'property':
      return leaf(calc) ?? calc;
    case 'call':
      return { ...calc, args: calc.args.map(arg => mapCalc(arg, leaf)) };
    default:
      return { ...calc, terms: calc.terms.map(({ sign, term }) => ({ sign, term: mapCalc(term, leaf) })) };
  }
}

/** Whether a percentage stands in an expression. */
export function namesPercent(calc: Calc): boolean {
  let found = false;
  mapCalc(calc, leaf => {
    found ||= leaf.kind === 'number' && leaf.unit === '%';
    return null;
  });
  return found;
}

/** What an expression is made of in the end. */
export type CalcLeaf = Extract<Calc, { kind: 'number' | 'token' | 'property' }>;

/** Writes an expression as CSS text; `leaf` writes tokens and properties. Nested sums keep their brackets. */
export function calcText(
  calc: Calc,
  leaf: (node: Calc & { kind: 'token' | 'property' }) => string,
  top = true,
): string {
  switch (calc.kind) {
    case 'number':
      return `${shortDecimal(calc.value, 6)}${calc.unit}`;
    case 'token':
    case 'property':
      return leaf(calc);
    case 'call':
      return `${calc.name}(${calc.args.map(arg => calcText(arg, leaf)).join(', ')})`;
    default: {
      const text = calc.terms
        .map(({ sign, term }, index) => (index === 0 ? '' : ` ${sign} `) + calcText(term, leaf, false))
        .join('');
      return top ? text : `(${text})`;
    }
  }
}
