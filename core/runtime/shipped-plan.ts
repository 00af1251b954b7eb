import type { PlanData } from '../behaviour/plan-data';
import type { Box } from '../space/box';

/** An attribute by which markup says that a state holds. */
export interface ShippedMark {
  readonly axis: number;
  readonly value: number;
  /** Which part bears it. */
  readonly on: 'root' | 'control';
  /** Elements of the control for which it is so; all where none is named. */
  readonly elements?: readonly string[];
  readonly attribute: string;
  readonly text: string;
}

/** An attribute of an element in a nested component, there where the field is in one of some boxes. */
export interface WithinMark {
  readonly part: string;
  readonly attribute: string;
  readonly text: string;
  readonly where: readonly Box[];
}

/** Where a part stands that comes and goes: the part around it, and those that follow it there. */
export interface InsertionPoint {
  readonly outer: string;
  readonly behind: readonly string[];
}

/** A part that looks otherwise by a state: its markup by the value of an axis; `null` where it is not there. */
export interface Face extends InsertionPoint {
  readonly part: string;
  readonly axis: number;
  readonly html: readonly (string | null)[];
}

/** A part whose text follows from what is entered: the template, and its markup without a text. */
export interface Template extends InsertionPoint {
  readonly part: string;
  readonly template: string;
  readonly html: string;
}

/** Stands in markup for the beginning of a field's ids. */
export const ID = '\u0000';

/** Boxes that show a code, one character each. */
export interface Boxes {
  readonly box: string;
  readonly character: string;
  /** Attribute that says which is next, and what it says of that and of others. */
  readonly turn: { readonly attribute: string; readonly here: string; readonly other: string } | null;
}

/** What a script that ships knows of a component. Plain data. */
export interface ShippedPlan extends PlanData {
  /** Class by part. */
  readonly classes: Readonly<Record<string, string>>;
  /** Attribute of the root by axis. */
  readonly attributes: readonly string[];
  readonly marks: readonly ShippedMark[];
  readonly within: readonly WithinMark[];
  /** Parts that say what is wrong. */
  readonly messages: readonly string[];
  /** By check: what it says; under `valid` what is said of an approved entry. */
  readonly texts: Readonly<Record<string, string>>;
  readonly templates: readonly Template[];
  readonly faces: readonly Face[];
  readonly boxes: Boxes | null;
  /** What is read out when characters were not taken; `{text}` stands for these. */
  readonly notTaken: string;
  /** Type of the control by whether its secret is shown. */
  readonly secretType: boolean;
}
