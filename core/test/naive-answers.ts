import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import { everyCombination, holdsIn, isAllowed, type Plain } from './naive';
import type { PlainTokens, RandomSystem } from './random-system';

/** Every question answered by walking through all combinations, from the model's words alone. */

/** What one rule says of one property, composites taken apart. */
interface Word {
  readonly rule: RuleDocument;
  readonly place: number;
  readonly property: string;
  /** The name under which the rule sets it. */
  readonly setAs: string;
  readonly text: string;
  /** Member of the composite token in `text`. */
  readonly member?: string;
}

const MEMBERS = ['width', 'style', 'color'];
const SIDES_OF: Readonly<Record<string, readonly string[]>> = { 'border-width': ['border-top-width'] };
const AROUND: Readonly<Record<string, string>> = { frame: 'root', label: 'root' };

/** All words of a component by slot name, in the order of the rules. */
function wordsOf(document: ComponentDocument): Map<string, Word[]> {
  const slots = new Map<string, Word[]>();
  const words: (Word & { part: string })[] = [];
  (document.rules ?? []).forEach((rule, place) => {
    for (const [part, properties] of Object.entries(rule.set)) {
      for (const [property, text] of Object.entries(properties)) {
        const own = { rule, place, part, text };
        if (property === 'border') {
          for (const member of MEMBERS)
            words.push({ ...own, property: `border-${member}`, setAs: `border-${member}`, member });
        } else words.push({ ...own, property, setAs: property });
      }
    }
  });
  const last = words.filter(
    (word, index) =>
      !words.some(
        (other, later) =>
          later > index &&
          other.place === word.place &&
          other.part === word.part &&
          (other.property === word.property || SIDES_OF[other.property]?.includes(word.property)),
      ),
  );
  for (const { part, property } of last) slots.set(`${part}.${property}`, []);
  for (const word of last) {
    slots.get(`${word.part}.${word.property}`)!.push(word);
    for (const side of SIDES_OF[word.property] ?? [])
      slots.get(`${word.part}.${side}`)?.push({ ...word, property: side });
  }
  return slots;
}

export class NaiveAnswers {
  readonly document: ComponentDocument;
  readonly allowed: readonly Plain[];
  readonly slots: ReadonlyMap<string, readonly Word[]>;

  constructor(readonly system: RandomSystem) {
    this.document = system.component;
    this.allowed = everyCombination(this.document).filter(each => isAllowed(this.document, each));
    this.slots = wordsOf(this.document);
  }

  /** Who spoke for a slot, in order; none where only shorthands do. */
  trail(slot: string, combination: Plain): readonly Word[] {
    const words = (this.slots.get(slot) ?? []).filter(({ rule }) => holdsIn(rule.when, combination));
    return words.some(word => word.setAs === word.property) ? words : [];
  }

  lastWord(slot: string, combination: Plain): Word | undefined {
    return this.trail(slot, combination).at(-1);
  }

  /** Settled value of a slot in a context; `undefined` where nothing speaks. */
  value(slot: string, combination: Plain, tokens: PlainTokens): string | undefined {
    const word = this.lastWord(slot, combination);
    return word && this.settled(word, combination, tokens);
  }

  private settled(word: Word, combination: Plain, tokens: PlainTokens): string {
    if (word.member !== undefined) return memberText(word.text, word.member, tokens);
    if (word.text.startsWith('{')) return tokenText(word.text, tokens);
    if (!word.text.startsWith('calc')) return word.text;
    let known = true;
    const sum = word.text
      .slice(5, -1)
      .replace(/\{[^}]+\}/g, key => String(Number.parseFloat(tokenText(key, tokens))))
      .replace(/@(\w+)\.([\w-]+)/g, (_, other: string, property: string) => {
        const found = this.referred(other, property, combination, tokens);
        known &&= found !== undefined;
        return found ?? '0';
      })
      .replace(/px/g, '');
    if (!known) return '';
    const [left, sign, right, plus, rest] = sum.split(' ');
    const first =
      sign === '*'
        ? Number(left) * Number(right)
        : sign === '-'
          ? Number(left) - Number(right)
          : Number(left) + Number(right);
    const result = plus === '+' ? first + Number(rest) : first;
    return `${Math.max(0, result)}px`;
  }

  /** Number of pixels of another property; `undefined` where nobody can say. */
  private referred(
    part: string,
    property: string,
    combination: Plain,
    tokens: PlainTokens,
  ): string | undefined {
    if (property !== 'font-size')
      return (this.value(`${part}.${property}`, combination, tokens) ?? '0px').replace('px', '');
    for (let here: string | undefined = part; here; here = AROUND[here]) {
      const value = this.value(`${here}.${property}`, combination, tokens);
      if (value !== undefined && value !== 'inherit') return value.replace('px', '');
    }
    return undefined;
  }

  private absent(part: string, combination: Plain): boolean {
    for (let here: string | undefined = part; here; here = AROUND[here])
      if (this.lastWord(`${here}.present`, combination)?.text === 'false') return true;
    return false;
  }

  /** All that can be seen of a combination, in all contexts, as one text. */
  look(combination: Plain): string {
    const contexts = Object.values(this.system.contexts);
    const parts = [...this.slots.keys()].map(slot => {
      const [part, property] = slot.split('.') as [string, string];
      if (property !== 'present' && this.absent(part, combination)) return 'absent';
      if (property === 'present' && AROUND[part] && this.absent(AROUND[part], combination)) return 'absent';
      return contexts.map(tokens => this.value(slot, combination, tokens) ?? 'unset');
    });
    return JSON.stringify(parts);
  }

  /** `slot earlier later` with the combinations in which nothing but their order decides. */
  contested(): Map<string, Plain[]> {
    const found = new Map<string, Plain[]>();
    const region = (rule: RuleDocument): Plain[] => this.allowed.filter(each => holdsIn(rule.when, each));
    for (const [slot, words] of this.slots) {
      for (const earlier of words) {
        for (const later of words) {
          if (earlier.place >= later.place || earlier.text === later.text) continue;
          // What a rule says again under the same name it does not mean any more.
          const lastOf = ({ place }: Word) => words.findLast(word => word.place === place);
          if (lastOf(earlier) !== earlier || lastOf(later) !== later) continue;
          if (earlier.setAs !== earlier.property && later.setAs !== later.property) continue;
          const [a, b] = [region(earlier.rule), region(later.rule)];
          const common = a.filter(each => b.includes(each));
          if (common.length === a.length || common.length === b.length) continue;
          const where = common.filter(each => this.lastWord(slot, each)?.place === later.place);
          if (where.length > 0) found.set(`${slot} ${earlier.rule.id} ${later.rule.id}`, where);
        }
      }
    }
    return found;
  }

  /** `rule slot` for every word that a rule says itself and never has last. */
  deadWords(): Set<string> {
    const dead = new Set<string>();
    for (const [slot, words] of this.slots) {
      for (const word of words) {
        if (word.setAs !== word.property) continue;
        const wins = this.allowed.some(each => this.lastWord(slot, each)?.place === word.place);
        if (!wins) dead.add(`${word.rule.id} ${slot}`);
      }
    }
    return dead;
  }

  /** The rules that say something and never have the last word. */
  deadRules(): string[] {
    const dead = this.deadWords();
    return (this.document.rules ?? []).flatMap(({ id }) => {
      const own = [...this.slots].flatMap(([slot, words]) =>
        words.some(word => word.rule.id === id && word.setAs === word.property) ? [`${id} ${slot}`] : [],
      );
      return own.length > 0 && own.every(each => dead.has(each)) ? [id] : [];
    });
  }

  /** Combinations in which some last word depends on a token. */
  touchedByToken(key: string): Plain[] {
    const contexts = Object.values(this.system.contexts);
    return this.allowed.filter(combination =>
      [...this.slots.keys()].some(slot => {
        const word = this.lastWord(slot, combination);
        if (this.absent(slot.split('.')[0]!, combination)) return false;
        return word !== undefined && contexts.some(tokens => depends(word, key, tokens, contexts));
      }),
    );
  }

  touchedByRule(id: string): Plain[] {
    return this.allowed.filter(combination =>
      [...this.slots.keys()].some(slot => this.lastWord(slot, combination)?.rule.id === id),
    );
  }
}

function tokenText(text: string, tokens: PlainTokens): string {
  const value = text.startsWith('{') ? tokens[text.slice(1, -1)]! : text;
  return typeof value === 'string' && value.startsWith('{') ? tokenText(value, tokens) : String(value);
}

function memberText(text: string, member: string, tokens: PlainTokens): string {
  const value = tokens[text.slice(1, -1)]!;
  return typeof value === 'string' ? memberText(value, member, tokens) : tokenText(value[member]!, tokens);
}

/** Whether a word depends on a token in some context; references may lead through another context's values. */
function depends(word: Word, key: string, tokens: PlainTokens, contexts: readonly PlainTokens[]): boolean {
  const from = (name: string): boolean =>
    name === key ||
    contexts.some(each => {
      const value = each[name]!;
      const texts = typeof value === 'string' ? [value] : Object.values(value);
      return texts.some(text => text.startsWith('{') && from(text.slice(1, -1)));
    });
  const named = [...word.text.matchAll(/\{([^}]+)\}/g)].map(match => match[1]!);
  if (word.member === undefined) return named.some(from);
  for (let name = named[0]!; ;) {
    if (name === key) return true;
    const value = tokens[name]!;
    if (typeof value === 'string') {
      name = value.slice(1, -1);
      continue;
    }
    const share = value[word.member]!;
    return share.startsWith('{') && from(share.slice(1, -1));
  }
}
