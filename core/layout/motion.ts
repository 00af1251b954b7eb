import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { SampleDocument } from '../documents/component-document';
import { geometry, type PartBox } from './geometry';
import type { Outcome, Outcomes } from '../cascade/outcome';
import { resolve } from '../cascade/resolve';
import type { Combination } from '../space/space';
import type { ContextInput } from '../tokens/contexts';
import { propertyNamed } from '../css/property-registry';

/** One way a field looks. */
export interface Look {
  /** May name axes of nested components, too. */
  readonly combination: Combination;
  readonly sample: SampleDocument | undefined;
}

/** A property that differs between two looks. */
interface Change {
  readonly part: string;
  readonly property: string;
  /** As resolved; empty where no rule speaks. */
  readonly from: string;
  readonly to: string;
  /** How it gets there; `null` where it snaps. */
  readonly timing: Timing | null;
}

interface Timing {
  /** ms. */
  readonly duration: number;
  readonly delay: number;
  /** As CSS has it. */
  readonly easing: string;
  /** Tokens that duration and curve are, by path, where each is just that. */
  readonly durationToken: string | null;
  readonly easingToken: string | null;
}

/** A part whose box lies elsewhere afterwards. */
interface Shift {
  readonly part: string;
  /** px, from the top and the inline start of the field. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface Motion {
  readonly changes: readonly Change[];
  /** Parts that come, and parts that go: no transition shows them on their way. */
  readonly comes: readonly string[];
  readonly goes: readonly string[];
  /** Parts that lie elsewhere, and whether they travel there or jump. */
  readonly shifts: readonly Shift[];
  readonly isJump: boolean;
  /** ms until everything has arrived. */
  readonly duration: number;
}

/** Smaller shifts nobody sees, in px. */
const SEEN = 0.5;

/** What moves between two looks, for how long and along which curve; what snaps; what jumps because the layout changes (CSS Transitions 1). */
export function motion(
  system: System,
  component: Component,
  from: Look,
  to: Look,
  contexts: ContextInput = system.tokens.usualInput(),
  width = 320,
): Motion {
  const context = { tokens: system.tokens.in(contexts), rootFontSize: system.rootFontSize };
  const before = resolve(component, from.combination, context).parts;
  const after = resolve(component, to.combination, context).parts;
  const places = [from, to].map(({ combination, sample }) =>
    geometry({ system, component, combination, sample, width, contexts }),
  ) as [Record<string, PartBox>, Record<string, PartBox>];
  const drawn = (part: string): boolean => part in places[0] && part in places[1];
  const changes = changesOf(before, after).filter(({ part }) => drawn(part));
  const comes = Object.keys(places[1]).filter(part => !(part in places[0]));
  const goes = Object.keys(places[0]).filter(part => !(part in places[1]));
  const shifts = shiftsOf(...places);
  const laid = changes.filter(({ property }) => isLayout(property));
  return {
    changes,
    comes,
    goes,
    shifts,
    isJump:
      shifts.length > 0 &&
      (comes.length > 0 ||
        goes.length > 0 ||
        laid.some(({ timing }) => timing === null) ||
        laid.length === 0),
    duration: Math.max(0, ...changes.map(({ timing }) => (timing ? timing.duration + timing.delay : 0))),
  };
}

/** What tells how something moves is no motion itself. */
const HOW = /^transition-/;

function changesOf(before: Outcomes, after: Outcomes): Change[] {
  const parts = new Set([...Object.keys(before), ...Object.keys(after)]);
  return [...parts].flatMap(part => {
    const [one, other] = [before[part] ?? {}, after[part] ?? {}];
    const names = new Set([...Object.keys(one), ...Object.keys(other)]);
    return [...names].flatMap(property => {
      const [from, to] = [one[property]?.value ?? '', other[property]?.value ?? ''];
      if (from === to || HOW.test(property) || property === 'present') return [];
      const isBetween = ![from, to].some(value => WORDS.test(value) && property !== 'box-shadow');
      return [{ part, property, from, to, timing: isBetween ? timingOf(other, property) : null }];
    });
  });
}

/** Kinds of value, and properties of other kinds, between whose values a browser finds others; all else snaps. */
const CONTINUOUS: ReadonlySet<string> = new Set([
  'color',
  'length',
  'number',
  'integer',
  'lineHeight',
  'shadow',
  'fontWeight',
]);
const ALSO: ReadonlySet<string> = new Set([
  'rotate',
  'scale',
  'translate',
  'transform',
  'filter',
  'clip-path',
]);

/** Words in the place of an amount are no amount. */
const WORDS = /^(auto|normal|none|min-content|max-content|fit-content)$/;

/** How a property gets to a look: its own transitions there decide (CSS Transitions 1, 3). */
function timingOf(look: Readonly<Record<string, Outcome>>, property: string): Timing | null {
  const known = propertyNamed(property);
  const listed = listOf(look['transition-property']?.value ?? 'none');
  const at = listed.findLastIndex(
    name => name === 'all' || name === property || propertyNamed(name)?.longhands.includes(property) === true,
  );
  if (at < 0 || !known || !(CONTINUOUS.has(known.kind) || ALSO.has(property))) return null;
  const cycled = (name: string, initial: string): string => {
    const list = listOf(look[name]?.value ?? initial);
    return list[at % list.length] ?? initial;
  };
  const duration = milliseconds(cycled('transition-duration', '0ms'));
  const delay = milliseconds(cycled('transition-delay', '0ms'));
  if (duration <= 0) return null;
  return {
    duration,
    delay,
    easing: cycled('transition-timing-function', 'ease'),
    durationToken: look['transition-duration']?.token ?? null,
    easingToken: look['transition-timing-function']?.token ?? null,
  };
}

/** A list of CSS, parted by commas that stand in no brackets. */
const listOf = (text: string): string[] => text.split(/,(?![^(]*\))/).map(each => each.trim());

const milliseconds = (text: string): number => {
  const [, amount = '0', unit] = /^(-?[\d.]+(?:e[+-]?\d+)?)(ms|s)$/i.exec(text) ?? [];
  return Number(amount) * (unit?.toLowerCase() === 's' ? 1000 : 1);
};

/** Properties that decide where parts lie. */
const LAYOUT =
  /^(width|height|(min|max)-(width|height)|padding|margin|gap|row-gap|column-gap|inset|border(-\w+)*-width|font-size|line-height|letter-spacing|flex|align|justify|position)/;

const isLayout = (property: string): boolean => LAYOUT.test(property);

function shiftsOf(before: Record<string, PartBox>, after: Record<string, PartBox>): Shift[] {
  return Object.entries(after).flatMap(([part, place]) => {
    const was = before[part];
    if (!was) return [];
    const by = (name: 'x' | 'y' | 'width' | 'height'): number => {
      const amount = Math.round((place[name] - was[name]) * 10) / 10;
      return Math.abs(amount) < SEEN ? 0 : amount;
    };
    const shift = { part, x: by('x'), y: by('y'), width: by('width'), height: by('height') };
    return shift.x || shift.y || shift.width || shift.height ? [shift] : [];
  });
}
