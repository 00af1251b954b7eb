import type { Part } from '../components/anatomy/part';
import type { Component } from '../components/component';
import { ObjectMemo } from '../json/object-memo';
import { sampleKeyOf } from '../components/nesting/sample-keys';
import { bearingWay } from '../components/nesting/nested-names';
import { absentWhere, winsOnRaw } from '../cascade/winning-rules';
import { slotsOf } from '../cascade/slots';
import { NOWHERE } from '../space/extent';
import type { Combination } from '../space/space';
import { pressArea } from './press-area';

/** What the markup of a field tells assistive technology, by names of parts (WAI-ARIA 1.2, Accessible Name 1.2). */
export interface Accessibility {
  /** The box in which a press focuses the control: a label, whose own words do not name it. */
  readonly pressArea: Part | null;
  /** Parts that name the control, where its element would otherwise take its name from more than the label. */
  readonly named: readonly string[];
  /** Parts that describe it, as they are there in this combination. */
  readonly described: readonly string[];
  /** Parts that have to bear an id. */
  readonly identified: ReadonlySet<string>;
  /** Parts that come and go with what is said about the entry: read out when they appear. */
  readonly announced: ReadonlySet<string>;
}

/**
 * Works it out for one combination; `textOf` gives the text that a part shows in it. Of nested components it tells what belongs
 * to this one; what bears states of its own is told by itself.
 */
export function accessibility(
  component: Component,
  combination: Combination,
  textOf: (part: Part) => string | undefined,
): Accessibility {
  const { anatomy, space } = component;
  const indices = space.indices(combination);
  const isThere = (part: Part): boolean => !space.extents.has(absentWhere(component, part), indices);
  const { area, announced } = fixedParts(component);
  const belonging = anatomy.parts.filter(part => part.nested === null || bearingWay(component, part) === '');
  const texts = belonging.filter(part => part.kind.kind === 'text');
  const labels = belonging.filter(part => part.kind.kind === 'label' && textOf(part) !== undefined);
  // A hidden element would still describe what refers to it (Accessible Name 1.2, step 2A), so it is not referred to.
  const described = anatomy.control
    ? texts.filter(part => textOf(part) !== undefined && isThere(part)).map(part => part.name)
    : [];
  const named = area ? labels.map(part => part.name) : [];
  return {
    pressArea: area,
    named,
    described,
    identified: new Set([...named, ...described, ...(anatomy.control ? announced : [])]),
    announced,
  };
}

const known = new ObjectMemo<{ readonly area: Part | null; readonly announced: ReadonlySet<string> }>();

/** What is the same in all combinations. */
const fixedParts = (component: Component) =>
  known.of([component.rules, component.anatomy, component.space], () => ({
    area: pressArea(component),
    announced: announcedParts(component),
  }));

/** The same of a component and all within it that bear states of their own, as the outermost knows their parts. */
export const everyAnnounced = (component: Component): ReadonlySet<string> =>
  new Set([
    ...announcedParts(component),
    ...component.nested.flatMap(({ name, component: nested }) =>
      [...everyAnnounced(nested)].map(part => `${name}/${part}`),
    ),
  ]);

/** Key of the text that says what is wrong. */
const MESSAGE = 'message';

/**
 * Texts that come and go with what is said about the entry, by name: where some of them show the message, those alone. What comes and goes beside
 * it with words of its own is no alert.
 */
export function announcedParts(component: Component): ReadonlySet<string> {
  const following = component.anatomy.parts
    .filter(
      part =>
        part.kind.kind === 'text' && bearingWay(component, part) === '' && followsJudgement(component, part),
    )
    .map(part => part.name);
  const saying = following.filter(name => sampleKeyOf(component, name) === MESSAGE);
  return new Set(saying.length > 0 ? saying : following);
}

/** Whether a part comes and goes with what is said about the entry. */
function followsJudgement(component: Component, part: Part): boolean {
  const { space, anatomy } = component;
  const axis = space.axisIndex('validity');
  if (axis < 0) return false;
  for (let here: Part | undefined = part; here; here = anatomy.outer(here)) {
    const slot = slotsOf(component).find(here.name, 'present');
    if (!slot) continue;
    const follows = winsOnRaw(component, slot).some(
      where => where !== NOWHERE && space.extents.support(where).has(axis),
    );
    if (follows) return true;
  }
  return false;
}
