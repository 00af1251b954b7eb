import type { Anatomy } from './anatomy/anatomy';
import type { ComponentDocument, PlateDocument, SampleDocument } from '../documents/component-document';
import type { Derivation } from '../derivation/derived-documents';
import type { LocalProblem } from '../json/problem';
import type { Parameters } from './parameter';
import type { NestedReading } from './nesting/nested-reading';
import type { Use } from './nesting/uses';
import type { Extent } from '../space/extent';
import type { Box } from '../space/box';
import type { Space } from '../space/space';
import type { Property } from '../css/property';
import type { Value } from '../css/value-syntax';

/** One value that a rule sets on one property of one part. */
export interface Setting {
  readonly part: string;
  readonly property: Property;
  /** The value as written. */
  readonly text: string;
  readonly value: Value;
  /** The property's name in the document: a composite's, where this is one of its members. */
  readonly written: string;
  /** Where parameters are named: the text with each in the place of a token, `{@accent}`. */
  readonly parametered?: string;
  /** That as a value, for stylesheets. Everything else goes by `value`, in which defaults stand in their place. */
  readonly css?: Value;
  /** The part's name in the document: of a nested root also that of the part that uses it. */
  readonly writtenPart: string;
}

/** A rule compiled: the region it speaks in and what it says there. */
export interface Rule {
  readonly id: string;
  /** Place in its document. Precedence is by place among all rules of the component. */
  readonly index: number;
  /** Where it speaks; for a nested rule a box around that, over the parent's axes. */
  readonly region: Box;
  /** Where a nested rule speaks. */
  readonly extent?: Extent;
  /** Of a nested rule: name of the part that uses its component. */
  readonly nested?: string;
  /** Composites taken apart into their members. */
  readonly settings: readonly Setting[];
  /** As the document has them, composites whole. */
  readonly written: readonly Setting[];
  readonly note: string;
}

export interface Situation {
  readonly id: string;
  readonly title: string;
  readonly means: string;
  readonly region: Box;
  /** The combination's own axes as written, first of each list. */
  readonly when: SituationWhen;
}
type SituationWhen = Readonly<Record<string, string>>;

/** A component document compiled. Everything unreadable is left out and stands in `problems`. */
export interface Component {
  readonly id: string;
  readonly title: string;
  readonly group: readonly string[];
  readonly summary: string;
  /** What it says, everything that it takes of others included. */
  readonly document: ComponentDocument;
  /** How that came about, where it is derived from another. */
  readonly derivation: Derivation | null;
  readonly space: Space;
  readonly anatomy: Anatomy;
  /** In order of precedence, those of nested components included. */
  readonly rules: readonly Rule[];
  readonly nested: readonly Nested[];
  /** Those of nested components included, by the way to them. */
  readonly parameters: Parameters;
  readonly situations: readonly Situation[];
  readonly samples: readonly SampleDocument[];
  readonly plates: readonly PlateDocument[];
  readonly decisions: readonly Decision[];
  readonly problems: readonly LocalProblem[];
}

/** A recorded decision that the order of two rules is meant. */
export interface Decision {
  /** Place in the document. */
  readonly index: number;
  readonly earlier: string;
  readonly later: string;
  /** Names of slots, `part.property`; `null` for all that the two contest. */
  readonly properties: readonly string[] | null;
  readonly because: string;
}

/** A component as a part of another. */
export interface Nested {
  /** Name of the part: the first step of all names of what is in it, `less/frame`. */
  readonly name: string;
  readonly component: Component;
  readonly use: Use;
  /** Key of the list, or `value`, of whose entries each has one; `null` where there is one alone. */
  readonly repeat: string | null;
  /** By key of the nested component: the parent's content that it shows. */
  readonly content: ReadonlyMap<string, string>;
  /** How its combinations follow from the parent's. */
  readonly reading: NestedReading;
}
