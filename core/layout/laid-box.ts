import { type DrawnBox } from './drawn-box';

/** A part laid out: border box in px from the border box of the part around it, from the inline start of the page. */
export interface LaidBox {
  readonly box: DrawnBox;
  x: number;
  y: number;
  readonly width: number;
  readonly height: number;
  /** Whether it is only guessed, with all that lies in it. */
  isUnsure: boolean;
  /** From its top to the base line of its first line of text; `null` where there is none. */
  readonly baseline: number | null;
  readonly around: Around;
  readonly children: LaidBox[];
}

/** Content box of what is around a part, of which percentages are; the height is `null` where it follows from what is in it. */
export interface Around {
  readonly width: number;
  readonly height: number | null;
}
