import { QUOTAS } from './quotas';

/** Remembers what was made of texts. Long ones are not kept, and the oldest go when all together are too many letters. */
export class TextCache<Result> {
  private readonly known = new Map<string, Result>();
  private letters = 0;

  /** So many letters a text may have, and all together. */
  constructor(
    private readonly one: number = QUOTAS.rememberedText,
    private readonly all: number = QUOTAS.rememberedTexts,
  ) {}

  of(text: string, make: () => Result): Result {
    const known = this.known.get(text);
    if (known !== undefined) return known;
    const made = make();
    if (text.length > this.one) return made;
    this.letters += text.length;
    this.known.set(text, made);
    for (const [oldest] of this.known) {
      if (this.letters <= this.all) break;
      this.letters -= oldest.length;
      this.known.delete(oldest);
    }
    return made;
  }

  get size(): number {
    return this.known.size;
  }

  clear(): void {
    this.known.clear();
    this.letters = 0;
  }
}
