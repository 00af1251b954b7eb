import { readAnatomy, type Anatomy } from './anatomy/anatomy';
import { ELEMENT_AXIS, elementsIn } from './anatomy/elements';
import type { AxisDocument, ComponentDocument, LimitDocument } from '../documents/component-document';
import type { Derivation } from '../derivation/derived-documents';
import { ObjectMemo } from '../json/object-memo';
import { ProblemList, type LocalProblem } from '../json/problem';
import { innerAxes, readNested, type FoundUse } from './nesting/nested';
import { nestedRoot } from './nesting/nested-parts';
import { withNestedRules } from './nesting/nested-rules';
import type { Axis } from '../space/axis';
import { Space } from '../space/space';
import type { Component, Nested } from './component';
import { TextCache } from '../json/text-cache';
import { readParameters } from './parameters';
import { readDecisions } from './read-decisions';
import { readPlates } from './read-plates';
import { readRules } from './read-rules';
import { readSituations } from './read-situations';

const compiled = new ObjectMemo<Component>();

/**
 * Compiles a document that has the right structure (see `formats/structure`). The same document object gives the same
 * component, so asking again costs nothing. A document that shares its axes and limits with one compiled before shares its
 * space, one that shares its rules too shares those, and with them all that has been found out about either. `derivation` says how
 * the document came about, where it was not written as it is; `uses` are the parts that embed other components, as far as these are there.
 */
export function compileComponent(
  document: ComponentDocument,
  derivation: Derivation | null = null,
  uses: readonly FoundUse[] = NO_USES,
): Component {
  const inputs = uses.flatMap(({ use, component }) => [use.document, component]);
  return compiled.of([document, derivation ?? document, ...inputs], () =>
    compile(document, derivation, uses),
  );
}

const NO_USES: readonly FoundUse[] = [];

function compile(
  document: ComponentDocument,
  derivation: Derivation | null,
  uses: readonly FoundUse[],
): Component {
  const problems = new ProblemList();
  const space = spaceOf(document, uses, problems);
  const nested = uses.map(use => readNested(use, space, problems));
  const anatomy = anatomyOf(document, nested, problems);
  const parameters = readParameters(document, derivation, nested);
  const own = readRules(document.rules, { anatomy, space, parameters }, problems);
  const rules = withNestedRules(own, document.rules ?? NONE, nested, { space, parameters }, problems);
  return {
    id: document.id,
    title: document.title ?? document.id,
    group: (document.group ?? '').split('/').filter(level => level !== ''),
    summary: document.summary ?? '',
    document,
    derivation,
    space,
    anatomy,
    rules,
    nested,
    parameters,
    situations: readSituations(document.situations ?? [], space, problems),
    samples: document.samples ?? [],
    plates: readPlates(document, space, problems),
    decisions: readDecisions(document, rules, problems),
    problems: problems.problems,
  };
}

/** Something read, with the problems met on the way. */
interface Read<Result> {
  readonly result: Result;
  readonly problems: readonly LocalProblem[];
}

const anatomies = new ObjectMemo<Read<Anatomy>>();

function anatomyOf(
  { anatomy }: ComponentDocument,
  nested: readonly Nested[],
  problems: ProblemList,
): Anatomy {
  const trees = nested.flatMap(({ use, component }) => [use.document, component.anatomy]);
  const read = anatomies.of([anatomy, ...trees], () => {
    const own = new ProblemList();
    const roots = new Map(nested.map(each => [each.name, nestedRoot(each)]));
    return { result: readAnatomy(anatomy, own, part => roots.get(part) ?? null), problems: own.problems };
  });
  problems.take(read.problems);
  return read.result;
}

/** Spaces by what they are read from, so that components with the same axes and limits have one. */
const spaces = new ObjectMemo<Read<Space>>();
const equalSpaces = new TextCache<Read<Space>>(500_000, 4_000_000);
const NONE: readonly never[] = [];

/** Extents of a space are never forgotten singly; when there are too many, all are, with the space. */
const MAX_EXTENTS = 400_000;

function spaceOf(document: ComponentDocument, uses: readonly FoundUse[], problems: ProblemList): Space {
  const { limits = NONE } = document;
  const axes = axesOf(document);
  // What is bound stands in the uses, what is free follows from the spaces.
  const others = uses.flatMap(({ use, component }) => [use.document, component.space]);
  const keys = [axes, limits, ...others] as const;
  const read = (): Read<Space> => spaces.of(keys, () => equalSpace(axes, limits, innerAxes(uses)));
  let found = read();
  if (found.result.extents.size >= MAX_EXTENTS) {
    spaces.forget(keys);
    equalSpaces.clear();
    found = read();
  }
  problems.take(found.problems);
  return found.result;
}

const withElements = new ObjectMemo<readonly AxisDocument[]>();

/** The axes of a component; a control that may be several elements makes an option of them. */
function axesOf({ axes = NONE, anatomy }: ComponentDocument): readonly AxisDocument[] {
  const elements = elementsIn(anatomy);
  if (elements.length < 2 || axes.some(({ id }) => id === ELEMENT_AXIS)) return axes;
  return withElements.of([axes, anatomy], () => [
    ...axes,
    { id: ELEMENT_AXIS, kind: 'option', values: elements.map(id => ({ id })) },
  ]);
}

function equalSpace(
  axes: readonly AxisDocument[],
  limits: readonly LimitDocument[],
  inner: readonly Axis[],
): Read<Space> {
  return equalSpaces.of(JSON.stringify([axes, limits, inner]), () => {
    const own = new ProblemList();
    return { result: Space.read({ axes, limits }, own, inner), problems: own.problems };
  });
}
