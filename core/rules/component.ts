import { readAnatomy, type Anatomy } from '../anatomy/anatomy';
import type {
  ComponentDocument,
  PlateDocument,
  RuleDocument,
  SampleDocument,
} from '../formats/component-document';
import { pointer } from '../formats/json';
import { oneOf, ProblemList, type LocalProblem } from '../formats/problem';
import { nearest } from '../formats/suggest';
import type { Box } from '../space/box';
import { readCondition } from '../space/condition';
import { Space } from '../space/space';
import type { Property } from './property-registry';
import { readProperty, readValue, type Value } from './value-syntax';

/** One value that a rule sets on one property of one part. */
export interface Setting {
  readonly part: string;
  readonly property: Property;
  /** The value as written. */
  readonly text: string;
  readonly value: Value;
}

/** A rule compiled: the region it speaks in and what it says there. */
export interface Rule {
  readonly id: string;
  /** Place in the document, which is the order of precedence. */
  readonly index: number;
  readonly region: Box;
  readonly settings: readonly Setting[];
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
  readonly problems: readonly LocalProblem[];
}

const compiled = new WeakMap<ComponentDocument, Component>();

/**
 * Compiles a document that has the right structure (see `formats/structure`). The same document object gives the same
 * component, so asking again costs nothing.
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
  const anatomy = readAnatomy(document.anatomy, problems);
  const space = Space.read(document, problems);
  const rules = readRules(document.rules ?? [], anatomy, space, problems);
  return {
    id: document.id,
    title: document.title ?? document.id,
    group: (document.group ?? '').split('/').filter(level => level !== ''),
    summary: document.summary ?? '',
    document,
    space,
    anatomy,
    rules,
    situations: readSituations(document, space, problems),
    samples: document.samples ?? [],
    plates: readPlates(document, space, problems),
    problems: problems.problems,
  };
}

function reportTwins(ids: readonly string[], list: string, problems: ProblemList): void {
  const seen = new Set<string>();
  ids.forEach((id, index) => {
    if (seen.has(id)) problems.error(pointer(list, index, 'id'), 'duplicate-id', `“${id}” is there already.`);
    seen.add(id);
  });
}

function readRules(
  documents: readonly RuleDocument[],
  anatomy: Anatomy,
  space: Space,
  problems: ProblemList,
): Rule[] {
  reportTwins(
    documents.map(rule => rule.id),
    'rules',
    problems,
  );
  return documents.flatMap((document, index) => {
    const at = pointer('rules', index);
    const region = readCondition(document.when, space.axes, `${at}/when`, problems);
    const settings = readSettings(document, at, anatomy, problems);
    return region ? [{ id: document.id, index, region, settings, note: document.note ?? '' }] : [];
  });
}

function readSettings(
  document: RuleDocument,
  at: string,
  anatomy: Anatomy,
  problems: ProblemList,
): Setting[] {
  return Object.entries(document.set).flatMap(([part, properties]) => {
    const here = `${at}/set${pointer(part)}`;
    if (!anatomy.byName.has(part)) {
      const names = [...anatomy.byName.keys()];
      problems.error(
        here,
        'unknown-part',
        `There is no part “${part}” here; there is ${oneOf(names, 12)}.`,
        nearest(part, names),
      );
      return [];
    }
    return Object.entries(properties).flatMap(([name, text]) => {
      const property = readProperty(name);
      if (!property.ok) {
        problems.error(here + pointer(name), 'unknown-property', property.message, property.suggestion);
        return [];
      }
      const value = readValue(property.property, text);
      if (!value.ok) {
        problems.error(here + pointer(name), value.code, value.message, value.suggestion);
        return [];
      }
      return [{ part, property: property.property, text, value: value.value }];
    });
  });
}

function readSituations(document: ComponentDocument, space: Space, problems: ProblemList): Situation[] {
  const documents = document.situations ?? [];
  reportTwins(
    documents.map(situation => situation.id),
    'situations',
    problems,
  );
  return documents.flatMap((situation, index) => {
    const region = readCondition(
      situation.when,
      space.axes,
      `${pointer('situations', index)}/when`,
      problems,
    );
    if (!region) return [];
    const when = Object.fromEntries(
      Object.entries(situation.when).map(([axis, value]) => [axis, [value].flat()[0]!]),
    );
    return [
      {
        id: situation.id,
        title: situation.title ?? situation.id,
        means: situation.means ?? '',
        region,
        when,
      },
    ];
  });
}

function readPlates(document: ComponentDocument, space: Space, problems: ProblemList): PlateDocument[] {
  const documents = document.plates ?? [];
  reportTwins(
    documents.map(plate => plate.id),
    'plates',
    problems,
  );
  const names = ['situation', ...space.axes.map(axis => axis.id)];
  const samples = (document.samples ?? []).map(sample => sample.id);
  return documents.map((plate, index) => {
    const at = pointer('plates', index);
    const known = (direction: 'across' | 'down'): string[] =>
      plate[direction].filter((axis, place) => {
        if (names.includes(axis)) return true;
        problems.error(
          `${at}/${direction}/${place}`,
          'unknown-axis',
          `There is no axis “${axis}”; there is ${oneOf(names, 12)}.`,
          nearest(axis, names),
        );
        return false;
      });
    for (const [axis, value] of Object.entries(plate.hold ?? {})) {
      readCondition({ [axis]: [value] }, space.axes, `${at}/hold`, problems);
    }
    if (plate.sample !== undefined && !samples.includes(plate.sample)) {
      problems.error(
        `${at}/sample`,
        'unknown-sample',
        `There is no sample “${plate.sample}”.`,
        nearest(plate.sample, samples),
      );
    }
    return { ...plate, across: known('across'), down: known('down') };
  });
}
