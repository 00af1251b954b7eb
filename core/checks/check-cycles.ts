import { ProblemList, type LocalProblem } from '../formats/problem';
import { lastWords } from '../questions/last-words';
import { calcReferences } from '../rules/calc';
import type { Component } from '../rules/component';
import { propertyNamed, shorthandOf } from '../rules/property-registry';
import { slotsOf } from '../rules/slots';
import { EVERYWHERE, NOWHERE, type Extent } from '../space/extent';
import { settingPointer } from './check-values';

/** That one slot's value is computed from another's, and in which combinations. */
interface Edge {
  readonly to: string;
  readonly where: Extent;
  readonly at: string;
}

/**
 * Finds `@part.property` references that come back to where they began. Each reference counts where its rule has the last
 * word, so a circle is one only where all its references do: rules that never decide together make none.
 */
export function cycleProblems(component: Component): LocalProblem[] {
  const { extents } = component.space;
  const edges = edgesOf(component);
  const problems = new ProblemList();
  const reported = new Set<string>();
  const walk = (start: string, here: string, where: Extent, path: readonly string[], at: string): void => {
    for (const edge of edges.get(here) ?? []) {
      const both = extents.and(edge.where, where);
      if (both === NOWHERE) continue;
      if (edge.to === start) {
        const key = [...path].sort().join();
        if (reported.has(key)) continue;
        reported.add(key);
        problems.error(
          at || edge.at,
          'reference-cycle',
          `These properties refer to each other: ${[...path, start].map(name => `@${name}`).join(' → ')}.`,
        );
      } else if (!path.includes(edge.to) && path.length < MAX_CIRCLE) {
        walk(start, edge.to, both, [...path, edge.to], at || edge.at);
      }
    }
  };
  for (const start of edges.keys()) walk(start, start, EVERYWHERE, [start], '');
  return problems.problems;
}

/** Longer circles are not looked for; each is also found as the shorter ones of which such a tangle consists. */
const MAX_CIRCLE = 12;

function edgesOf(component: Component): Map<string, Edge[]> {
  const { extents } = component.space;
  const edges = new Map<string, Edge[]>();
  for (const slot of slotsOf(component).values()) {
    const words = lastWords(component, slot);
    slot.speakers.forEach(({ rule, setting }, place) => {
      if (setting.value.kind !== 'calc' || words[place] === NOWHERE) return;
      const at = settingPointer(rule, setting);
      const found = calcReferences(setting.value.calc).properties.flatMap(({ part, property }) =>
        heardSlots(component, part, property).flatMap(({ name, where }) => {
          const both = extents.and(words[place]!, where);
          return both === NOWHERE ? [] : [{ to: name, where: both, at }];
        }),
      );
      edges.set(slot.name, [...(edges.get(slot.name) ?? []), ...found]);
    });
  }
  return edges;
}

/** The slots that may give a property its value, each with where it does: its own, its shorthand's, the part's around. */
function heardSlots(component: Component, part: string, property: string): { name: string; where: Extent }[] {
  const { extents, allowed } = component.space;
  const slots = slotsOf(component);
  const heard: { name: string; where: Extent }[] = [];
  let open: Extent = allowed;
  for (let here: string | undefined = part; here; here = component.anatomy.around.get(here)) {
    let handedOn: Extent = NOWHERE;
    for (const name of [property, shorthandOf(property)]) {
      const slot = slots.get(`${here}.${name}`);
      if (!slot) continue;
      lastWords(component, slot).forEach((words, place) => {
        const { value } = slot.speakers[place]!.setting;
        const where = extents.and(open, words);
        const inherits = value.kind === 'literal' && value.css === 'inherit';
        if (inherits) handedOn = extents.or(handedOn, where);
        else if (where !== NOWHERE) heard.push({ name: slot.name, where });
      });
      open = extents.minus(open, extents.union(lastWords(component, slot)));
    }
    open = propertyNamed(property)?.inherited ? extents.or(open, handedOn) : handedOn;
    if (open === NOWHERE) break;
  }
  return heard;
}
