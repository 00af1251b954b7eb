import { ProblemList, type LocalProblem } from '../json/problem';
import { winsOnAllowed, winningSources } from '../cascade/winning-rules';
import type { Component, Rule } from '../components/component';
import { referencesOfValue } from '../cascade/references';
import { slotsOf } from '../cascade/slots';
import { EVERYWHERE, NOWHERE, type Extent, type Extents } from '../space/extent';
import { settingPointer } from './check-values';

/** That one slot's value is computed from another's, and in which combinations. */
interface Edge {
  readonly from: string;
  readonly to: string;
  readonly where: Extent;
  readonly at: string;
  /** Whether the component itself says so, not one nested in it. */
  readonly own: boolean;
}

/** By slot: the references that start there. */
type References = ReadonlyMap<string, readonly Edge[]>;

/**
 * Finds `@part.property` references that come back to where they began. Each reference counts where its rule has the last
 * word, so a circle is one only where all its references do: rules that never decide together make none. There may be more
 * circles than anyone can read; those told are the shortest through each reference that no circle told before goes through,
 * so every reference that has to be mended is in one. Costs, in operations on extents: references times slots for finding
 * where there are circles at all, and references for each circle told and each slot on it.
 */
export function cycleProblems(component: Component): LocalProblem[] {
  if (!component.rules.some(rule => refersItself(component, rule))) return [];
  const { extents } = component.space;
  const references = withinCircles(referencesOf(component), extents);
  const problems = new ProblemList();
  const told = new Set<Edge>();
  for (const edge of [...references.values()].flat()) {
    // A circle within a nested component is told there.
    if (told.has(edge) || !edge.own) continue;
    const circle = circleThrough(edge, references, extents);
    if (!circle) continue;
    for (const each of circle) told.add(each);
    problems.error(
      edge.at,
      'reference-cycle',
      `These properties refer to each other: ${[...circle, edge].map(({ from }) => `@${from}`).join(' → ')}.`,
    );
  }
  return problems.problems;
}

/** Whether a component itself refers to something by a rule: without that nothing goes round that does not within what is nested. */
const refersItself = (component: Component, { nested, settings }: Rule): boolean =>
  nested === undefined &&
  settings.some(
    ({ part, property, value }) =>
      referencesOfValue(component, component.anatomy.byName.get(part)!, property, value).length > 0,
  );

/**
 * References restricted to where following on from them never ends. For each slot the largest such set: it begins as
 * everywhere, and shrinks to where some reference of the slot leads to a slot that still has it.
 */
function withinCircles(references: References, extents: Extents): References {
  const endless = new Map([...references.keys()].map(slot => [slot, EVERYWHERE]));
  const onwards = (edge: Edge): Extent => extents.and(edge.where, endless.get(edge.to) ?? NOWHERE);
  for (let shrinks = true; shrinks;) {
    shrinks = false;
    for (const [slot, edges] of references) {
      const left = extents.union(edges.map(onwards));
      if (left === endless.get(slot)) continue;
      endless.set(slot, left);
      shrinks = true;
    }
  }
  const restricted = [...references].map(([slot, edges]) => {
    const rest = edges.map(edge => ({ ...edge, where: onwards(edge) }));
    return [slot, rest.filter(({ where }) => where !== NOWHERE)] as const;
  });
  return new Map(restricted);
}

/** A circle of fewest references that begins with the given one, in some combination; `null` when there is none. */
function circleThrough(first: Edge, references: References, extents: Extents): readonly Edge[] | null {
  /** By slot: where it has been come to so far. */
  const reached = new Map<string, Extent>([[first.to, first.where]]);
  let last: ReadonlyMap<string, Extent> = reached;
  while (last.size > 0 && !reached.has(first.from)) {
    const next = new Map<string, Extent>();
    for (const [slot, where] of last) {
      for (const edge of references.get(slot)!) {
        const fresh = extents.minus(extents.and(where, edge.where), reached.get(edge.to) ?? NOWHERE);
        if (fresh !== NOWHERE) next.set(edge.to, extents.or(next.get(edge.to) ?? NOWHERE, fresh));
      }
    }
    for (const [slot, where] of next) reached.set(slot, extents.or(reached.get(slot) ?? NOWHERE, where));
    last = next;
  }
  const back = reached.get(first.from);
  return back === undefined ? null : circleAt(extents.first(back)!, first, references, extents);
}

/** The same in one combination, where it is known to be: the way back, found breadth first. */
function circleAt(
  combination: readonly number[],
  first: Edge,
  references: References,
  extents: Extents,
): readonly Edge[] {
  const ways = new Map<string, readonly Edge[]>([[first.to, [first]]]);
  // A map hands out what is added while it is walked through.
  for (const [slot, way] of ways) {
    if (slot === first.from) return way;
    for (const edge of references.get(slot)!) {
      if (!ways.has(edge.to) && extents.has(edge.where, combination)) ways.set(edge.to, [...way, edge]);
    }
  }
  throw new Error('A circle that was found is gone.');
}

function referencesOf(component: Component): References {
  const { extents } = component.space;
  const references = new Map<string, Edge[]>();
  const known = new Map<string, readonly Heard[]>();
  /** Many rules refer to the same property. */
  const heardIn = (part: string, property: string): readonly Heard[] => {
    const key = `${part}.${property}`;
    const found = known.get(key) ?? heardSlots(component, part, property);
    known.set(key, found);
    return found;
  };
  for (const slot of slotsOf(component).all) {
    slot.speakers.forEach(({ rule, setting }, place) => {
      const referred = referencesOfValue(component, slot.part, setting.property, setting.value);
      // Most values refer to nothing, and where their rules are heard need not be worked out.
      if (referred.length === 0) return;
      const heard = winsOnAllowed(component, slot)[place]!;
      const at = settingPointer(rule, setting);
      const own = rule.nested === undefined;
      const found = referred.flatMap(({ part, property }) =>
        heardIn(part, property).flatMap(({ name, where }) => {
          const both = extents.and(heard, where);
          return both === NOWHERE ? [] : [{ from: slot.name, to: name, where: both, at, own }];
        }),
      );
      const before = references.get(slot.name);
      if (before) for (const each of found) before.push(each);
      else references.set(slot.name, found);
    });
  }
  return references;
}

/** A slot that may give a property its value, and where it does. */
interface Heard {
  readonly name: string;
  readonly where: Extent;
}

const heardSlots = (component: Component, part: string, property: string): Heard[] =>
  winningSources(component, part, property).flatMap(({ said, where }) =>
    typeof said === 'string' ? [] : [{ name: said.slot.name, where }],
  );
