import { readAnatomy, type Anatomy } from '../anatomy/anatomy';
import type { AxisDocument, ComponentDocument, LimitDocument } from '../formats/component-document';
import type { Derivation } from '../expansion/derived-documents';
import { ObjectMemo } from '../formats/object-memo';
import { ProblemList, type LocalProblem } from '../formats/problem';
import { Space } from '../space/space';
import type { Component } from './component';
import { readDecisions } from './read-decisions';
import { readPlates } from './read-plates';
import { readRules } from './read-rules';
import { readSituations } from './read-situations';

const compiled = new ObjectMemo<Component>();

/**
 * Compiles a document that has the right structure (see `formats/structure`). The same document object gives the same
 * component, so asking again costs nothing. A document that shares its axes and limits with one compiled before shares its
 * space, one that shares its rules too shares those, and with them all that has been found out about either. `derivation` says how
 * the document came about, where it was not written as it is.
 */
export const compileComponent = (
  document: ComponentDocument,
  derivation: Derivation | null = null,
): Component => compiled.of([document, derivation ?? document], () => compile(document, derivation));

function compile(document: ComponentDocument, derivation: Derivation | null): Component {
  const problems = new ProblemList();
  const anatomy = anatomyOf(document, problems);
  const space = spaceOf(document, problems);
  return {
    id: document.id,
    title: document.title ?? document.id,
    group: (document.group ?? '').split('/').filter(level => level !== ''),
    summary: document.summary ?? '',
    document,
    derivation,
    space,
    anatomy,
    rules: readRules(document.rules, anatomy, space, problems),
    situations: readSituations(document.situations ?? [], space, problems),
    samples: document.samples ?? [],
    plates: readPlates(document, space, problems),
    decisions: readDecisions(document, problems),
    problems: problems.problems,
  };
}

/** Something read, with the problems met on the way. */
interface Read<Result> {
  readonly result: Result;
  readonly problems: readonly LocalProblem[];
}

const anatomies = new ObjectMemo<Read<Anatomy>>();

function anatomyOf({ anatomy }: ComponentDocument, problems: ProblemList): Anatomy {
  const read = anatomies.of([anatomy], () => {
    const own = new ProblemList();
    return { result: readAnatomy(anatomy, own), problems: own.problems };
  });
  problems.take(read.problems);
  return read.result;
}

/** Spaces by what they are read from, so that components with the same axes and limits have one. */
const spaces = new ObjectMemo<Read<Space>>();
const equalSpaces = new Map<string, Read<Space>>();
const MAX_SPACES = 200;
const NONE: readonly never[] = [];

/** Extents of a space are never forgotten singly; when there are too many, all are, with the space. */
const MAX_EXTENTS = 400_000;

function spaceOf(document: ComponentDocument, problems: ProblemList): Space {
  const { axes = NONE, limits = NONE } = document;
  let read = spaces.of([axes, limits], () => equalSpace(axes, limits));
  if (read.result.extents.size >= MAX_EXTENTS) {
    spaces.forget([axes, limits]);
    equalSpaces.clear();
    read = spaces.of([axes, limits], () => equalSpace(axes, limits));
  }
  problems.take(read.problems);
  return read.result;
}

function equalSpace(axes: readonly AxisDocument[], limits: readonly LimitDocument[]): Read<Space> {
  const key = JSON.stringify([axes, limits]);
  let read = equalSpaces.get(key);
  if (!read) {
    const own = new ProblemList();
    read = { result: Space.read({ axes, limits }, own), problems: own.problems };
    if (equalSpaces.size >= MAX_SPACES) equalSpaces.clear();
    equalSpaces.set(key, read);
  }
  return read;
}
