import type { Component } from '../components/component';
import type { System } from '../components/system';
import { resolve } from '../cascade/resolve';
import type { Outcome } from '../cascade/outcome';
import type { Combination } from '../space/space';
import type { ContextInput } from '../tokens/contexts';
import { sampleNamed } from '../cascade/plates/plate-grid';
import { geometry, type PartBox } from './geometry';

/** In which look fields stand side by side. */
export interface LineupLook {
  /** Value of the axis `size`; fields that have none of that name stand as they are. */
  readonly size: string | null;
  /** Id of a situation; fields that have none of that name stand at rest. */
  readonly situation: string | null;
  readonly contexts: ContextInput;
  /** What each is given, in px. */
  readonly width: number;
}

/** Measures of a field's frame in px, by which one field looks like another. */
export type Measure = 'height' | 'corner' | 'inset' | 'line';
export const MEASURES: readonly Measure[] = ['height', 'corner', 'inset', 'line'];

/** A field in the lineup. */
export interface LinedUp {
  readonly component: Component;
  readonly combination: Combination;
  /** Border box of the part around the control, from the root's corner. */
  readonly frame: PartBox;
  readonly whole: PartBox;
  /** `null` of what a field does not have: the height of one that is as tall as what is written. */
  readonly measures: Readonly<Record<Measure, number | null>>;
}

/** A field whose measure is another than that of most of its family. */
export interface StandingOut {
  readonly component: Component;
  readonly measure: Measure;
  readonly px: number;
  /** That of most others. */
  readonly usual: number;
}

/** The fields of a system in which something is entered, in one look. */
export function lineup(system: System, look: LineupLook): LinedUp[] {
  return system.components.flatMap(component => linedUp(system, component, look) ?? []);
}

function linedUp(system: System, component: Component, look: LineupLook): LinedUp | null {
  const { anatomy, space } = component;
  const { control } = anatomy;
  if (!control || control.nested !== null) return null;
  const around = anatomy.outer(control);
  const frame = around && around !== anatomy.root ? around : control;
  const combination = combinationFor(component, look);
  const settled = space.written(space.settled(space.indices(combination)).combination);
  const { contexts, width } = look;
  const places = geometry({
    system,
    component,
    combination: settled,
    sample: sampleNamed(component, null),
    contexts,
    width,
  });
  const [own, whole] = [places[frame.name], places[anatomy.root.name]];
  if (!own || !whole) return null;
  const context = { tokens: system.tokens.in(contexts), rootFontSize: system.rootFontSize };
  const outcomes = resolve(component, settled, context).parts[frame.name] ?? {};
  const px = (...names: string[]): number | null => {
    const outcome = names.map(name => outcomes[name]).find(Boolean);
    return outcome ? pixels(outcome) : null;
  };
  return {
    component,
    combination: settled,
    frame: own,
    whole,
    measures: {
      // A field of several lines is as tall as it is meant to be.
      height: control.elements.includes('textarea') ? null : Math.round(own.height * 100) / 100,
      corner: px('border-top-left-radius', 'border-radius'),
      inset: px('padding-left', 'padding-inline-start', 'padding-inline'),
      line: px('border-top-width', 'border-width'),
    },
  };
}

function combinationFor({ space, situations }: Component, { size, situation }: LineupLook): Combination {
  const when = situations.find(({ id }) => id === situation)?.when ?? {};
  const axis = space.axes.find(({ id }) => id === 'size');
  return axis && size !== null && axis.indexOf.has(size) ? { ...when, size } : when;
}

function pixels({ value }: Outcome): number | null {
  const match = /^(-?\d+(?:\.\d+)?)px$/.exec(value);
  return match ? Number(match[1]) : null;
}

/** What differs by less is not seen. */
const SEEN_PX = 0.5;

/** Fields that stand out of their family in some measure, where most of it have one in common. */
export function standingOut(fields: readonly LinedUp[]): StandingOut[] {
  return MEASURES.flatMap(measure => {
    const known = fields.flatMap(({ component, measures }) => {
      const px = measures[measure];
      return px === null ? [] : [{ component, px }];
    });
    const usual = usualOf(fields, measure);
    if (usual === null) return [];
    return known
      .filter(({ px }) => Math.abs(px - usual) > SEEN_PX)
      .map(({ component, px }) => ({ component, measure, px, usual }));
  });
}

/** What most fields have of a measure; `null` where most have nothing in common. */
export const usualOf = (fields: readonly LinedUp[], measure: Measure): number | null =>
  mostCommon(fields.flatMap(({ measures }) => measures[measure] ?? []));

/** The amount that more than half have; `null` where there is none. */
function mostCommon(amounts: readonly number[]): number | null {
  const counts = new Map<number, number>();
  for (const each of amounts) counts.set(each, (counts.get(each) ?? 0) + 1);
  const [most] = [...counts].toSorted(([, a], [, b]) => b - a);
  return most && most[1] * 2 > amounts.length ? most[0] : null;
}
