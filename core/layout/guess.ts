type Lean = -1 | 0 | 1;

/** By lean: less, what is most likely, more. */
const OF_FONT = [0.5, 1, 2] as const;
const OF_PAGE = [1, 10, 50] as const;

/**
 * How what only a browser knows is taken in one laying out. A place is exact where it is the same however that is taken, so a tree is laid out
 * once as is most likely, and where anything had to be guessed several times more, with less and with more of it.
 */
export class Guess {
  /** Whether anything was guessed. */
  isUsed = false;

  /** `isMixed`: every other part leans the other way, as what pushes and what holds against it may both be guessed. */
  constructor(
    private readonly lean: Lean,
    private readonly isMixed = false,
  ) {}

  private by(place: number): Lean {
    this.isUsed = true;
    return this.isMixed && place % 2 === 1 ? ((-this.lean || 0) as Lean) : this.lean;
  }

  /** Whether everything is taken as it most likely is. */
  get isLikely(): boolean {
    return this.lean === 0;
  }

  /** What a measure that follows from the font of a part is multiplied with. */
  text(place: number, isMeasured: boolean): number {
    // Other errors for other parts, which so do not cancel out.
    return 1 + this.by(place) * ((isMeasured ? 0.05 : 0.35) + (place % 5) / 100);
  }

  /** px of a unit that the font of a part gives. */
  fontUnit(place: number, px: number): number {
    return px * OF_FONT[this.by(place) + 1]!;
  }

  /** px of a hundredth of what a page is wide or high. */
  get pageUnit(): number {
    return OF_PAGE[this.by(0) + 1]!;
  }

  /** A measure of a part, in px, that is not laid out. */
  unlaid(place: number, px: number): number {
    return [0, px, px + 1000][this.by(place) + 1]!;
  }
}

/** The guesses against which the likely one is held. */
export const otherGuesses = (): Guess[] => [
  new Guess(-1),
  new Guess(1),
  new Guess(-1, true),
  new Guess(1, true),
];
