import type { Component } from '../components/component';
import type { System } from '../components/system';
import { contestedWhere, contests } from '../cascade/questions/contests';
import { deadRules } from '../cascade/questions/dead-rules';
import { distinctLooks } from '../cascade/questions/distinct-looks';
import { sameLooking, sameLookingRegions } from '../cascade/questions/same-looking';
import { tokenReach } from '../cascade/questions/token-reach';
import { touchedByLimit, touchedByRule } from '../cascade/questions/touched-regions';
import { resolve } from '../cascade/resolve';
import type { Extent } from '../space/extent';
import { inBox } from '../space/space';
import { everyCombination, settledPlain, type Plain } from './naive';
import type { NaiveAnswers } from './naive-answers';

/** What the engine answers, and what the plain walk over all combinations does, for one component. */
export interface Both {
  readonly system: System;
  readonly component: Component;
  readonly naive: NaiveAnswers;
}

const sorted = (list: readonly Plain[]): string[] => list.map(each => JSON.stringify(each)).sort();

/** The combinations of an extent, by walking through all. */
const inExtent = ({ component, naive }: Both, extent: Extent): Plain[] =>
  everyCombination(naive.document).filter(each =>
    component.space.extents.has(extent, component.space.indices(each)),
  );

/** One row per question: whether both answer the same. */
export const ENGINE_CHECKS: Readonly<Record<string, (both: Both) => void>> = {
  count({ component, naive }) {
    expect(component.space.count()).toBe(BigInt(naive.allowed.length));
  },

  'resolve and trail'({ system, component, naive }) {
    for (const [theme, tokens] of Object.entries(naive.system.contexts)) {
      const around = { tokens: system.tokens.in({ theme }), rootFontSize: 16 };
      for (const raw of everyCombination(naive.document)) {
        const { combination, parts } = resolve(component, raw, around);
        expect(combination).toEqual(settledPlain(naive.document, raw));
        const found = Object.entries(parts).flatMap(([part, properties]) =>
          Object.entries(properties).map(([property, { value, rule, trail }]) => {
            const own = trail.map(entry => `${entry.rule} ${entry.text}`);
            return [`${part}.${property}`, value, rule, ...own].join('; ');
          }),
        );
        const expected = [...naive.slots.keys()].flatMap(slot => {
          const trail = naive.trail(slot, combination);
          if (trail.length === 0) return [];
          const own = trail.map(word => `${word.rule.id} ${word.text}`);
          return [[slot, naive.value(slot, combination, tokens)!, trail.at(-1)!.rule.id, ...own].join('; ')];
        });
        expect(found.sort()).toEqual(expected.sort());
      }
    }
  },

  contested(both) {
    const { component, naive } = both;
    const expected = naive.contested();
    const found = contests(component);
    expect(found.map(each => `${each.slot.name} ${each.earlier.id} ${each.later.id}`).sort()).toEqual(
      [...expected.keys()].sort(),
    );
    for (const each of found) {
      const where = expected.get(`${each.slot.name} ${each.earlier.id} ${each.later.id}`)!;
      expect(sorted(inExtent(both, contestedWhere(component, each)))).toEqual(sorted(where));
      expect(each.combinations).toBe(BigInt(where.length));
      const regions = component.space.readable(contestedWhere(component, each));
      const told = naive.allowed.filter(combination =>
        regions.some(region => inBox(region, component.space.indices(combination))),
      );
      expect(sorted(told)).toEqual(sorted(where));
    }
  },

  dead({ component, naive }) {
    const found = deadRules(component);
    const whole = found.filter(each => each.property === null && each.because !== 'silent');
    expect(whole.map(each => each.rule.id)).toEqual(naive.deadRules());
    const dead = naive.deadWords();
    const single = found.filter(each => each.property !== null);
    expect(single.map(each => `${each.rule.id} ${each.property}`).sort()).toEqual(
      [...dead].filter(each => !naive.deadRules().includes(each.split(' ')[0]!)).sort(),
    );
    for (const each of found.filter(every => every.because === 'covered')) {
      expect(each.by.length).toBeGreaterThan(0);
      expect(each.by.every(rule => rule.index > each.rule.index)).toBe(true);
    }
  },

  'same-looking'(both) {
    const { system, component, naive } = both;
    const { axes } = component.space;
    const looks = new Map(naive.allowed.map(each => [JSON.stringify(each), naive.look(each)]));
    const found = sameLooking(component, system);
    axes.forEach((axis, index) => {
      axis.values.forEach((late, later) => {
        axis.values.slice(0, later).forEach((early, earlier) => {
          const together = naive.allowed.filter(
            each => each[axis.id] === late.id && looks.has(JSON.stringify({ ...each, [axis.id]: early.id })),
          );
          const alike = together.filter(
            each =>
              looks.get(JSON.stringify(each)) === looks.get(JSON.stringify({ ...each, [axis.id]: early.id })),
          );
          const own = found.find(
            each => each.axis === index && each.values[0] === earlier && each.values[1] === later,
          );
          expect(own?.pairs ?? 0n).toBe(BigInt(alike.length));
          if (!own) return;
          expect(own.everywhere).toBe(alike.length === together.length);
          const regions = sameLookingRegions(component, own);
          const told = together.filter(each =>
            regions.some(region => inBox(region, component.space.indices(each))),
          );
          expect(sorted(told)).toEqual(sorted(alike));
        });
      });
    });
  },

  'distinct looks'({ system, component, naive }) {
    const looks = new Set(naive.allowed.map(each => naive.look(each)));
    expect(distinctLooks(component, system)).toEqual({ number: BigInt(looks.size), exact: true });
  },

  touched(both) {
    const { system, component, naive } = both;
    for (const key of Object.keys(naive.system.contexts.day)) {
      const reach = tokenReach(system, key);
      const where = reach.components.find(each => each.component === component)?.where ?? 0;
      expect(sorted(inExtent(both, where))).toEqual(sorted(naive.touchedByToken(key)));
    }
    for (const rule of component.rules) {
      expect(sorted(inExtent(both, touchedByRule(component, rule).where))).toEqual(
        sorted(naive.touchedByRule(rule.id)),
      );
    }
    for (const limit of component.space.limits) {
      const { document } = naive;
      const without = { ...document, limits: document.limits!.filter((_, index) => index !== limit.index) };
      const differing = everyCombination(document).filter(
        raw => JSON.stringify(settledPlain(document, raw)) !== JSON.stringify(settledPlain(without, raw)),
      );
      expect(sorted(inExtent(both, touchedByLimit(component, limit).where))).toEqual(sorted(differing));
    }
  },
};
