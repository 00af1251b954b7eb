import type { PartKind } from '../../documents/part-kinds';

/** What a browser draws inside a part and rules can name like a part: `control::placeholder`. */
export interface PseudoPart {
  /** As CSS names it, without the colons. */
  readonly name: string;
  /** Whether a control has it. */
  readonly isIn: (control: Part) => boolean;
  readonly kind: PartKind;
  /** Properties that CSS lets count there (CSS Pseudo-Elements 4, sections 3.2 and 4.1). */
  readonly properties: ReadonlySet<string>;
}

/** A part of a component's anatomy, in the tree. */
export interface Part {
  readonly name: string;
  readonly title: string;
  readonly description: string;
  readonly kind: PartKind;
  /** Key of the sample's content it shows, or `null`. */
  readonly content: string | null;
  /** Element of a control; where it may be several, the usual one. */
  readonly element: string;
  /** Those that it may be. */
  readonly elements: readonly string[];
  /** `type` of an input. */
  readonly type: string | null;
  readonly children: readonly Part[];
  /** JSON Pointer of the part in the document; of one in a nested component, that of the part that uses it. */
  readonly pointer: string;
  /** Name of the part whose nested component it belongs to; `null` for own parts. */
  readonly nested: string | null;
  /** What it is in the part that its name begins with, where a browser draws it and no element stands for it. */
  readonly pseudo: PseudoPart | null;
}
