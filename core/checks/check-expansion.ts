import { ProblemList, type LocalProblem } from '../json/problem';
import { calcReferences } from '../css/calc';
import type { Component, Rule } from '../components/component';
import { levels } from '../cascade/inheritance';
import { slotsOf, type Slot } from '../cascade/slots';
import { MAX_EXPANSION, MAX_REFERENCE_DEPTH } from '../cascade/specimen';
import { settingPointer } from './check-values';

/** How far a property's calculations reach through others, at most. */
interface Reach {
  /** References one after another. */
  readonly depth: number;
  /** Values in it once all it refers to is put in its place. */
  readonly values: number;
}

const NOTHING: Reach = { depth: 0, values: 0 };

/**
 * Finds calculations that refer to calculations too far, or grow too large by it (what is referred to twice is there twice).
 * Told is the first that goes too far; what refers to it is not told too. Conditions are left out of account: the longest
 * of all values counts for each property. Linear in the references.
 */
export function expansionProblems(component: Component): LocalProblem[] {
  if (!component.rules.some(isOwnCalculation)) return [];
  const problems = new ProblemList();
  const reaches = new Map<string, Reach>();
  for (const slot of innerFirst(component)) {
    let reach = NOTHING;
    for (const { rule, setting, direct } of slot.speakers) {
      if (setting.value.kind !== 'calc') continue;
      const own = reachOf(component, calcReferences(setting.value.calc), reaches);
      if (isWithin(own)) reach = wider(reach, own);
      else if (direct && rule.nested === undefined)
        problems.error(settingPointer(rule, setting), 'too-deep', reason(own));
    }
    reaches.set(slot.name, reach);
  }
  return problems.problems;
}

const isOwnCalculation = ({ nested, settings }: Rule): boolean =>
  nested === undefined && settings.some(({ value }) => value.kind === 'calc');

const isWithin = ({ depth, values }: Reach): boolean =>
  depth <= MAX_REFERENCE_DEPTH && values <= MAX_EXPANSION;

const wider = (a: Reach, b: Reach): Reach => ({
  depth: Math.max(a.depth, b.depth),
  values: Math.max(a.values, b.values),
});

const reason = ({ depth }: Reach): string =>
  depth > MAX_REFERENCE_DEPTH
    ? `This calculation refers to others more than ${MAX_REFERENCE_DEPTH} deep.`
    : `With all that it refers to put in, this calculation has more than ${MAX_EXPANSION} values.`;

function reachOf(
  component: Component,
  { tokens, properties }: ReturnType<typeof calcReferences>,
  reaches: ReadonlyMap<string, Reach>,
): Reach {
  let depth = 0;
  let values = tokens.length;
  for (const { part, property } of properties) {
    const inner = mayHear(component, part, property)
      .map(({ name }) => reaches.get(name) ?? NOTHING)
      .reduce(wider, NOTHING);
    depth = Math.max(depth, inner.depth + 1);
    values += inner.values + 1;
  }
  return { depth, values };
}

/** The slots from which a property may have its value. */
const mayHear = (component: Component, part: string, property: string): Slot[] =>
  levels(component, part, property).flatMap(({ slot }) => slot ?? []);

/** All slots, each after those it refers to as far as there is no circle; without recursion, since chains may be long. */
function innerFirst(component: Component): Slot[] {
  const ordered = new Set<Slot>();
  const seen = new Set<Slot>();
  const open: { slot: Slot; next: Iterator<Slot> }[] = [];
  const enter = (slot: Slot): void => {
    if (seen.has(slot)) return;
    seen.add(slot);
    open.push({ slot, next: referred(component, slot) });
  };
  for (const start of slotsOf(component).all) {
    enter(start);
    for (let here = open.at(-1); here; here = open.at(-1)) {
      const { value, done } = here.next.next() as IteratorResult<Slot, undefined>;
      if (!done) {
        enter(value);
        continue;
      }
      ordered.add(here.slot);
      open.pop();
    }
  }
  return [...ordered];
}

function* referred(component: Component, { speakers }: Slot): Generator<Slot, undefined> {
  for (const { setting } of speakers) {
    if (setting.value.kind !== 'calc') continue;
    for (const { part, property } of calcReferences(setting.value.calc).properties)
      yield* mayHear(component, part, property);
  }
  return undefined;
}
