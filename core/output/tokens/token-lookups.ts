import type { TokenModel } from '../../tokens/token-model';
import type { Token, TokenSet } from '../../tokens/token-set';

type Answer = string | boolean | null;

interface Question {
  readonly ask: (tokens: TokenModel) => Answer;
  readonly answer: Answer;
}

/** What was asked about one token, and what it was then in each context. */
interface AskedOf {
  tokens: readonly (Token | undefined)[];
  readonly questions: Map<string, Question>;
}

/**
 * The tokens of a system as a stylesheet asks for them. What it was told is noted, so that the stylesheet holds for as long as every
 * answer is the same: values that only stand in custom properties may change.
 */
export class AskedTokens {
  private readonly asked = new Map<string, AskedOf>();

  /** What is asked; `null` once nothing more is, so that no earlier state is kept. */
  private model: TokenModel | null;

  constructor(model: TokenModel) {
    this.model = model;
  }

  /** Nothing more is asked. */
  close(): this {
    this.model = null;
    return this;
  }

  pathOf = (key: string): string | null => this.usual(key, 'path', token => token?.path ?? null);
  typeOf = (key: string): string | null => this.usual(key, 'type', token => token?.type ?? null);
  cssOf = (key: string): string => this.usual(key, 'css', token => token?.css ?? '') as string;

  /** Whether something is so in some context; `about` names the question. */
  inSome(key: string, about: string, isSo: (set: TokenSet) => boolean): boolean {
    return this.answer(key, about, model => model.everyContext().some(isSo)) as boolean;
  }

  /** Whether another state of the tokens gives the same answers. */
  holdIn(model: TokenModel): boolean {
    return [...this.asked].every(([key, asked]) => {
      const now = tokensOf(model, key);
      if (now.every((token, index) => token === asked.tokens[index])) return true;
      if (![...asked.questions.values()].every(({ ask, answer }) => ask(model) === answer)) return false;
      asked.tokens = now;
      return true;
    });
  }

  private usual(key: string, about: string, ask: (token: Token | undefined) => string | null): string | null {
    return this.answer(key, about, model => ask(model.usual().byKey.get(key))) as string | null;
  }

  private answer(key: string, about: string, ask: Question['ask']): Answer {
    const { model } = this;
    if (!model) throw new Error('Nothing more is asked.');
    let asked = this.asked.get(key);
    if (!asked) this.asked.set(key, (asked = { tokens: tokensOf(model, key), questions: new Map() }));
    let question = asked.questions.get(about);
    if (!question) asked.questions.set(about, (question = { ask, answer: ask(model) }));
    return question.answer;
  }
}

const tokensOf = (model: TokenModel, key: string): readonly (Token | undefined)[] =>
  model.everyContext().map(set => set.byKey.get(key));
