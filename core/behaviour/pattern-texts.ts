import { RegExpParser, type AST } from '@eslint-community/regexpp';

/** How often what repeats is written, beyond as often as it must be. */
const MORE_OFTEN = [0, 1, 7];
/** Which way is taken where a pattern offers several: the first, the second, the third. */
const WAYS = [0, 1, 2];
/** Characters that are taken first where a pattern leaves the choice, those that people type. */
const LIKED = ['a', 'A', '1', '-', ' ', 'é', '!'];

/** So many letters a made text has at most. */
const MOST_LETTERS = 200;

/**
 * Texts that match a pattern (ECMAScript, with the flag `u`), made from its own parts: each way that it offers, what repeats as often as it must
 * and oftener. None where the pattern cannot be read, or asks for more than its parts say (as what looks behind). Each was tried.
 */
export function textsMatching(pattern: string): string[] {
  let tree: AST.Pattern;
  try {
    tree = new RegExpParser({ ecmaVersion: 2024 }).parsePattern(pattern, 0, pattern.length, {
      unicode: true,
    });
  } catch {
    return [];
  }
  const made = WAYS.flatMap(way =>
    MORE_OFTEN.flatMap(more =>
      LIKED.slice(0, 3).map(liked => new Writer(way, more, liked).alternatives(tree.alternatives)),
    ),
  );
  const tried = new RegExp(pattern, 'u');
  return [...new Set(made)].filter(text => text !== '' && text.length <= MOST_LETTERS && tried.test(text));
}

/** A text near to one that matches, for each way in which people miss a pattern: too short, too long, other letters, something between. */
export function textsBeside(matching: readonly string[]): string[] {
  const near = matching.flatMap(text => [
    text.slice(0, -1),
    text.slice(1),
    `${text}!`,
    `!${text}`,
    text.toUpperCase(),
    text.toLowerCase(),
    text + text,
    ` ${text}`,
  ]);
  return [...new Set([...near, 'a', 'A', '1', '!', '-', 'é', 'ab', '12'])].filter(
    text => text !== '' && isWhole(text),
  );
}

/** Whether no character is cut in half. */
const isWhole = (text: string): boolean =>
  !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text);

/** Writes one text along a pattern. */
class Writer {
  private letters = 0;

  constructor(
    private readonly way: number,
    private readonly more: number,
    private readonly liked: string,
  ) {}

  alternatives(all: readonly AST.Alternative[]): string {
    return all[Math.min(this.way, all.length - 1)]!.elements.map(each => this.element(each)).join('');
  }

  private element(node: AST.Element): string {
    switch (node.type) {
      case 'Character':
        return this.counted(String.fromCodePoint(node.value));
      case 'CharacterSet':
      case 'CharacterClass':
      case 'ExpressionCharacterClass':
        return this.counted(this.oneOf(node.raw));
      case 'Group':
      case 'CapturingGroup':
        return this.alternatives(node.alternatives);
      case 'Quantifier': {
        const times = Math.min(node.max, node.min + this.more);
        let text = '';
        for (let time = 0; time < times && this.letters <= MOST_LETTERS; time++)
          text += this.element(node.element);
        return text;
      }
      case 'Assertion':
        // What has to come ahead is written here: what follows in the pattern mostly takes anything.
        return node.kind === 'lookahead' && !node.negate ? this.alternatives(node.alternatives) : '';
      default:
        return '';
    }
  }

  /** A character that a class takes: the one that is liked, else another that people type, else any. */
  private oneOf(raw: string): string {
    const taken = new RegExp(`^(?:${raw})$`, 'u');
    const first = [this.liked, ...LIKED].find(each => taken.test(each));
    if (first !== undefined) return first;
    for (let code = 0x21; code <= 0x24ff; code++) {
      const each = String.fromCharCode(code);
      if (taken.test(each)) return each;
    }
    return '';
  }

  private counted(text: string): string {
    this.letters += text.length;
    return text;
  }
}
