import { freshSeed, runsOf } from '../../test/runs';
import fc from 'fast-check';
import { componentNamed, compileSystem, type System } from '../system';
import type { Component } from '../component';
import { contestedWhere, contests } from '../../cascade/questions/contests';
import { deadRules } from '../../cascade/questions/dead-rules';
import { distinctLooks } from '../../cascade/questions/distinct-looks';
import { sameLooking } from '../../cascade/questions/same-looking';
import { touchedByRule } from '../../cascade/questions/touched-regions';
import { resolve } from '../../cascade/resolve';
import type { Extent } from '../../space/extent';
import type { Plain } from '../../test/naive';
import { everyPoint, pointsOf, type Point, type Word } from '../../test/naive-nesting';
import { randomNested, randomNestedAndDerived, type NestedAndDerived } from '../../test/random-nested';
import { smallDocuments } from '../../test/small-system';

/** So many random systems of three levels in each run. */
const SYSTEMS = runsOf('nested systems');
const DERIVED_SYSTEMS = runsOf('nested and derived systems');
/** Larger ones are left to others. */
const MAX_POINTS = 100;

interface Both {
  readonly system: System;
  readonly component: Component;
  readonly points: readonly Point[];
}

const bySlot = (words: readonly Word[]): Map<string, Word[]> => {
  const trails = new Map<string, Word[]>();
  for (const word of words) trails.set(word.slot, [...(trails.get(word.slot) ?? []), word]);
  return trails;
};

/** The own combinations of some points, each once. */
const ownOf = (points: readonly Point[]): string[] =>
  [...new Set(points.map(({ own }) => JSON.stringify(own)))].sort();

const inExtent = ({ component, points }: Both, extent: Extent): string[] =>
  ownOf(
    points.filter(({ own, free }) =>
      component.space.extents.has(extent, component.space.indices({ ...own, ...free })),
    ),
  );

/** What a word comes to among the last words on all slots: calculations refer to a least height, which is no length unless said. */
function valueOf({ means }: Word, trails: ReadonlyMap<string, readonly Word[]>): string {
  const referred = /@(\S+\.min-height) \* 2 \+ 1px/.exec(means);
  if (!referred) return means;
  const height = trails.get(referred[1]!)?.at(-1)?.text;
  return height === undefined ? '' : `${parseFloat(height) * 2 + 1}px`;
}

/** One row per question: whether the engine answers as the walk over all points does. */
const CHECKS: Readonly<Record<string, (both: Both) => void>> = {
  count({ component, points }) {
    expect(component.space.count()).toBe(BigInt(ownOf(points).length));
  },

  'resolve and trails'({ system, component, points }) {
    const around = { tokens: system.tokens.usual(), rootFontSize: 16 };
    for (const { own, free, words } of points) {
      const { combination, parts } = resolve(component, { ...own, ...free }, around);
      expect(combination).toMatchObject(own);
      const found = Object.entries(parts).flatMap(([part, properties]) =>
        Object.entries(properties).map(([property, { rule, value, trail }]) =>
          [`${part}.${property}`, rule, value, ...trail.map(each => `${each.rule} ${each.text}`)].join('; '),
        ),
      );
      const trails = bySlot(words);
      const expected = [...trails].map(([slot, trail]) => {
        const last = trail.at(-1)!;
        return [
          slot,
          last.rule,
          valueOf(last, trails),
          ...trail.map(each => `${each.rule} ${each.text}`),
        ].join('; ');
      });
      expect(found.sort()).toEqual(expected.sort());
    }
  },

  contested(both) {
    const { component, points } = both;
    const found = new Map(
      contests(component).map(each => [`${each.slot.name} ${each.earlier.id} ${each.later.id}`, each]),
    );
    const expected = contestedPlain(points);
    expect([...found.keys()].sort()).toEqual([...expected.keys()].sort());
    for (const [key, each] of found) {
      const where = expected.get(key)!;
      expect(inExtent(both, contestedWhere(component, each))).toEqual(where);
      expect(each.combinations).toBe(BigInt(where.length));
      const { space } = component;
      const regions = space.readable(contestedWhere(component, each)).map(box => space.extents.of(box));
      expect(inExtent(both, space.extents.union(regions))).toEqual(where);
    }
  },

  dead({ component, points }) {
    const found = deadRules(component).map(({ rule, property }) => `${rule.id} ${property ?? 'all'}`);
    const last = new Set(
      points.flatMap(({ words }) =>
        [...bySlot(words).values()].map(trail => `${trail.at(-1)!.rule} ${trail.at(-1)!.slot}`),
      ),
    );
    const expected = component.rules
      .filter(rule => rule.nested === undefined)
      .flatMap(rule => {
        const own = rule.settings.map(({ part, property }) => `${part}.${property.name}`);
        const dead = own.filter(slot => !last.has(`${rule.id} ${slot}`));
        return dead.length === own.length ? [`${rule.id} all`] : dead.map(slot => `${rule.id} ${slot}`);
      });
    expect(found.sort()).toEqual(expected.sort());
  },

  touched(both) {
    for (const rule of both.component.rules) {
      const where = both.points.filter(({ words }) =>
        [...bySlot(words).values()].some(trail => trail.at(-1)!.rule === rule.id),
      );
      expect(inExtent(both, touchedByRule(both.component, rule).where)).toEqual(ownOf(where));
    }
  },

  looks({ system, component, points }) {
    const look = ({ words }: Point): string => {
      const trails = bySlot(words);
      return JSON.stringify(
        [...trails].map(([slot, trail]) => [slot, valueOf(trail.at(-1)!, trails)]).sort(),
      );
    };
    const atRest = new Map<string, string>();
    const all = new Map<string, string[]>();
    for (const point of points) {
      const key = JSON.stringify(point.own);
      if (!atRest.has(key)) atRest.set(key, look({ ...point, words: restWords(component, points, point) }));
      all.set(key, [...(all.get(key) ?? []), look(point)]);
    }
    expect(distinctLooks(component, system)).toEqual({
      number: BigInt(new Set(atRest.values()).size),
      exact: true,
    });
    const pairs = new Map(
      sameLooking(component, system).map(({ axis, values, pairs: number }) => [
        `${axis} ${values.join(' ')}`,
        number,
      ]),
    );
    component.space.axes.forEach((axis, index) =>
      axis.values.forEach((late, later) =>
        axis.values.slice(0, later).forEach((early, earlier) => {
          const alike = [...all].filter(([key, looks]) => {
            const own = JSON.parse(key) as Plain;
            const other = all.get(JSON.stringify({ ...own, [axis.id]: early.id }));
            return own[axis.id] === late.id && other !== undefined && other.join() === looks.join();
          });
          expect(pairs.get(`${index} ${earlier} ${later}`) ?? 0n).toBe(BigInt(alike.length));
        }),
      ),
    );
  },
};

/** The words of the point with the same own combination in which all that is free is at rest. */
function restWords({ space }: Component, points: readonly Point[], { own }: Point): readonly Word[] {
  const isRest = (free: Plain): boolean =>
    Object.entries(free).every(([name, value]) => {
      const axis = space.everyAxis[space.axisIndex(name)]!;
      return axis.values[axis.rest]!.id === value;
    });
  return points.find(point => JSON.stringify(point.own) === JSON.stringify(own) && isRest(point.free))!.words;
}

/** By contest: the own combinations in which it comes about. */
function contestedPlain(points: readonly Point[]): Map<string, string[]> {
  const spoken = new Map<string, Map<string, { points: Set<Point>; word: Word }>>();
  for (const point of points)
    for (const word of point.words) {
      const rules = spoken.get(word.slot) ?? new Map<string, { points: Set<Point>; word: Word }>();
      spoken.set(word.slot, rules);
      const entry = rules.get(word.rule) ?? { points: new Set(), word };
      rules.set(word.rule, entry);
      entry.points.add(point);
    }
  const within = (a: ReadonlySet<Point>, b: ReadonlySet<Point>): boolean => [...a].every(each => b.has(each));
  const found = new Map<string, string[]>();
  for (const [slot, rules] of spoken)
    for (const later of rules.values())
      for (const earlier of rules.values()) {
        if (!later.word.own && !earlier.word.own) continue;
        if (later.word.means === earlier.word.means) continue;
        if (within(later.points, earlier.points) || within(earlier.points, later.points)) continue;
        const where = [...earlier.points].filter(point => {
          const trail = point.words.filter(word => word.slot === slot).map(word => word.rule);
          return trail.at(-1) === later.word.rule && trail.indexOf(earlier.word.rule) < trail.length - 1;
        });
        if (where.length > 0) found.set(`${slot} ${earlier.word.rule} ${later.word.rule}`, ownOf(where));
      }
  return found;
}

const systemOf = (documents: readonly { readonly id: string }[]): System =>
  compileSystem(
    smallDocuments({
      documents: documents.map(document => [`components/${document.id}.component.json`, document] as const),
    }),
  );

const KINDS: readonly [words: string, systems: number, random: fc.Arbitrary<NestedAndDerived>][] = [
  [
    'nested components of three levels',
    SYSTEMS,
    randomNested.map(library => ({ library, written: [...library.values()] })),
  ],
  ['derived ones that hold derived ones', DERIVED_SYSTEMS, randomNestedAndDerived],
];

test.each(KINDS)(
  '%s agree with the plain walk that flattens them: %d',
  (_, systems, random) => {
    let compared = 0;
    fc.assert(
      fc.property(random, ({ library, written }) => {
        const outer = [...library.values()].at(-1)!;
        fc.pre(pointsOf(outer, library) <= MAX_POINTS);
        const system = systemOf(written);
        const component = componentNamed(system, outer.id)!;
        const all = [...system.components.flatMap(({ problems }) => problems), ...system.expansionProblems];
        fc.pre(!all.some(({ code }) => /^(order-dependent|unsettled)-limits$/.test(code)));
        fc.pre(!all.some(({ code }) => code === 'unmatched-value'));
        expect(all.filter(({ severity }) => severity === 'error')).toEqual([]);
        const points = everyPoint(outer, library);
        for (const check of Object.values(CHECKS)) check({ system, component, points });
        compared++;
      }),
      { numRuns: systems, seed: freshSeed('nested') },
    );
    expect(compared).toBeGreaterThanOrEqual(systems);
  },
  300_000,
);
