import { readAnatomy, type Anatomy } from '../anatomy/anatomy';
import type { ComponentDocument, PlateDocument, SampleDocument } from '../formats/component-document';
import { ProblemList, type LocalProblem } from '../formats/problem';
import type { Box } from '../space/box';
import { Space } from '../space/space';
import type { Property } from './property-registry';
import { readDecisions, type Decision } from './read-decisions';
import { readPlates } from './read-plates';
import { readRules } from './read-rules';
import { readSituations } from './read-situations';
import type { Value } from './value-syntax';

/** One value that a rule sets on one property of one part. */
export interface Setting {
  readonly part: string;
  readonly property: Property;
  /** The value as written. */
  readonly text: string;
  readonly value: Value;
  /** The property's name in the document: a composite's, where this is one of its members. */
  readonly written: string;
}

/** A rule compiled: the region it speaks in and what it says there. */
export interface Rule {
  readonly id: string;
  /** Place in the document, which is the order of precedence. */
  readonly index: number;
  readonly region: Box;
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
export type SituationWhen = Readonly<Record<string, string>>;

/** A component document compiled. Everything unreadable is left out and stands in `problems`. */
export interface Component {
  readonly id: string;
  readonly title: string;
  readonly group: readonly string[];
  readonly summary: string;
  readonly document: ComponentDocument;
  readonly space: Space;
  readonly anatomy: Anatomy;
  readonly rules: readonly Rule[];
  readonly situations: readonly Situation[];
  readonly samples: readonly SampleDocument[];
  readonly plates: readonly PlateDocument[];
  readonly decisions: readonly Decision[];
  readonly problems: readonly LocalProblem[];
}

const compiled = new WeakMap<ComponentDocument, Component>();

/**
 * Compiles a document that has the right structure (see `formats/structure`). The same document object gives the same
 * component, so asking again costs nothing; a document that shares its axes and limits with one compiled before shares
 * its space, and all that has been computed there.
 */
export function compileComponent(document: ComponentDocument): Component {
  let component = compiled.get(document);
  if (!component) {
    component = compile(document);
    compiled.set(document, component);
  }
  return component;
}

function compile(document: ComponentDocument): Component {
  const problems = new ProblemList();
  if (typeof document.extends === 'string') {
    problems.error('/extends', 'not-yet', 'Components made from another cannot be read yet.');
  }
  const anatomy = anatomyOf(document, problems);
  const space = spaceOf(document, problems);
  return {
    id: document.id,
    title: document.title ?? document.id,
    group: (document.group ?? '').split('/').filter(level => level !== ''),
    summary: document.summary ?? '',
    document,
    space,
    anatomy,
    rules: readRules(document.rules ?? [], anatomy, space, problems),
    situations: readSituations(document.situations ?? [], space, problems),
    samples: document.samples ?? [],
    plates: readPlates(document, space, problems),
    decisions: readDecisions(document, problems),
    problems: problems.problems,
  };
}

const anatomies = new WeakMap<object, { anatomy: Anatomy; problems: readonly LocalProblem[] }>();

function anatomyOf(document: ComponentDocument, problems: ProblemList): Anatomy {
  let known = anatomies.get(document.anatomy);
  if (!known) {
    const own = new ProblemList();
    known = { anatomy: readAnatomy(document.anatomy, own), problems: own.problems };
    anatomies.set(document.anatomy, known);
  }
  problems.take(known.problems);
  return known.anatomy;
}

interface KnownSpace {
  readonly limits: ComponentDocument['limits'];
  readonly space: Space;
  readonly problems: readonly LocalProblem[];
}
const spaces = new WeakMap<object, KnownSpace>();

/** Extents of a space are never forgotten singly; when there are too many, all are, with the space. */
const MAX_EXTENTS = 400_000;

function spaceOf(document: ComponentDocument, problems: ProblemList): Space {
  const { axes, limits } = document;
  const known = axes && spaces.get(axes);
  if (known && known.limits === limits && known.space.extents.size < MAX_EXTENTS) {
    problems.take(known.problems);
    return known.space;
  }
  const own = new ProblemList();
  const space = Space.read(document, own);
  problems.take(own.problems);
  if (axes) spaces.set(axes, { limits, space, problems: own.problems });
  return space;
}
