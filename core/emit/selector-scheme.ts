import type { Component } from '../rules/component';
import type { Axis } from '../space/axis';
import { bits } from '../space/box';
import type { WantedBox } from '../space/readable-cover';
import { axisAttribute, partClass, rootClass } from './class-names';
import { all, any, atom, compound, FALSE, not, selectorList, TRUE, type Formula } from './formula';

/** Values of an axis for which a formula must hold, and those for which it may, as masks. */
export interface WantedValues {
  readonly must: number;
  readonly may: number;
}

/** How a stylesheet tells a combination, and how it names the parts. */
export interface SelectorScheme {
  readonly name: 'shipped' | 'held' | 'host' | 'part';
  /** Whether blocks stay as the rules have them, to be changed one by one while someone edits. */
  readonly live: boolean;
  /** Whether the parts are first put on a common ground. */
  readonly reset: boolean;
  /** The formula for some values of an axis, on the element that bears the states. */
  readonly axis: (axis: Axis, values: WantedValues, component: Component, prefix: string) => Formula;
  /** The selector of some parts where a formula holds. */
  readonly select: (
    component: Component,
    parts: readonly string[],
    formula: Formula,
    prefix: string,
  ) => string;
}

/** Real pages: options by attributes, states by what the browser detects. It can be in any raw combination. */
export const SHIPPED: SelectorScheme = {
  name: 'shipped',
  live: false,
  reset: true,
  axis: (axis, values, component, prefix) =>
    axisFormula(axis, values, (_, index) => detection(axis, index, component, prefix)),
  select: selectBelowRoot,
};

/** Plates: every axis, states too, stands in an attribute, and only allowed combinations occur. */
export const HELD: SelectorScheme = {
  name: 'held',
  live: true,
  reset: true,
  axis(axis, { must }) {
    const inside = bits(must).map(index => attributeTest(axis, axis.values[index]!.id));
    const outside = axis.values.flatMap((value, index) =>
      (must >> index) & 1 ? [] : [attributeTest(axis, value.id)],
    );
    return inside.length <= outside.length ? any(...inside) : not(any(...outside));
  },
  select: selectBelowRoot,
};

/** States that a browser tells of an element from the outside, whatever is in its shadow tree; others need attributes. */
const HOST_TESTS: Readonly<Record<string, string>> = {
  over: ':hover',
  down: ':hover:active',
  in: ':focus-within',
};

/** What a shadow host shows: attributes for options and for the states that cannot be seen through it. */
const hostAxis: SelectorScheme['axis'] = (axis, values) =>
  axisFormula(axis, values, ({ id }) =>
    axis.state !== null && Object.hasOwn(HOST_TESTS, id) ? atom(HOST_TESTS[id]!) : null,
  );

/** Inside a shadow tree, whose host bears options and states. */
export const HOST: SelectorScheme = {
  name: 'host',
  live: false,
  reset: true,
  axis: hostAxis,
  select(component, parts, formula, prefix) {
    const own = classes(component, parts, prefix);
    return formula.kind === 'true' ? own.join(', ') : `:where(:host(${compound(formula)})) ${anyOf(own)}`;
  },
};

/** From outside a shadow tree, for parts that it lets out by name. */
export const PART: SelectorScheme = {
  name: 'part',
  live: false,
  reset: false,
  axis: hostAxis,
  select(component, parts, formula, prefix) {
    const host = rootClass(prefix, component);
    const condition = formula.kind === 'true' ? '' : `:where(${selectorList(formula).join(', ')})`;
    return parts.map(part => `${host}${condition}::part(${part})`).join(', ');
  },
};

/** `.qs-text-field-frame:where(.qs-text-field:hover *)`: the part's class weighs, the condition does not. */
function selectBelowRoot(
  component: Component,
  parts: readonly string[],
  formula: Formula,
  prefix: string,
): string {
  if (formula.kind === 'true') return classes(component, parts, prefix).join(', ');
  const conditions = selectorList(formula);
  const root = `.${rootClass(prefix, component)}`;
  const isRoot = (part: string): boolean => part === component.anatomy.root.name;
  const below = classes(
    component,
    parts.filter(part => !isRoot(part)),
    prefix,
  );
  const selectors = parts.filter(isRoot).map(() => `${root}:where(${conditions.join(', ')})`);
  if (below.length > 0)
    selectors.push(`${anyOf(below)}:where(${conditions.map(text => `${root}${text} *`).join(', ')})`);
  return selectors.join(', ');
}

const classes = (component: Component, parts: readonly string[], prefix: string): string[] =>
  parts.map(part => `.${partClass(prefix, component, part)}`);

const anyOf = (selectors: readonly string[]): string =>
  selectors.length === 1 ? selectors[0]! : `:is(${selectors.join(', ')})`;

/** Tests for the values of an axis, put together for a set of them; without a test of its own a value has an attribute. */
function axisFormula(
  axis: Axis,
  values: WantedValues,
  testOf: (value: Axis['values'][number], index: number) => Formula | null,
): Formula {
  const tests = axis.values.map((value, index) => testOf(value, index) ?? attributeTest(axis, value.id));
  return axis.ladder ? ladderFormula(values, tests) : decisionFormula(values, tests, axis.rest);
}

const attributeTest = (axis: Axis, value: string): Formula => atom(`[${axisAttribute(axis.id)}="${value}"]`);

/** Elements whose emptiness the browser tells. */
const SHOWS_PLACEHOLDER = new Set(['input', 'textarea']);

/** The browser's own test for a state's value, or `null` where an attribute has to say it. */
function detection(axis: Axis, index: number, component: Component, prefix: string): Formula | null {
  const id = axis.values[index]!.id;
  const detect = axis.state?.values.find(value => value.id === id)?.detect;
  if (detect === undefined) return null;
  if (!detect.includes('{control}')) return atom(detect);
  const { control } = component.anatomy;
  if (!control || (detect.includes(':placeholder-shown') && !SHOWS_PLACEHOLDER.has(control.element)))
    return null;
  return atom(detect.replaceAll('{control}', `.${partClass(prefix, component, control.name)}`));
}

/**
 * Rungs: "at least i" is the test of i; a run of rungs ends where the next test begins. A run that may go on to the first
 * or the last rung needs no test on that side.
 */
function ladderFormula({ must, may }: WantedValues, tests: readonly Formula[]): Formula {
  const runs: Formula[] = [];
  for (let from = 0; from < tests.length; from++) {
    if (!((may >> from) & 1)) continue;
    let to = from;
    while ((may >> (to + 1)) & 1) to++;
    const wanted = bits(must).filter(rung => from <= rung && rung <= to);
    if (wanted.length > 0) {
      const first = from === 0 ? 0 : wanted[0]!;
      const end = to === tests.length - 1 ? tests.length : wanted.at(-1)! + 1;
      runs.push(all(first === 0 ? TRUE : tests[first]!, not(endTest(first, end, tests))));
    }
    from = to;
  }
  return any(...runs);
}

/** The test that ends a run of rungs; of a run of one rung, which is tested itself, only what is new in it. */
function endTest(first: number, end: number, tests: readonly Formula[]): Formula {
  if (end === tests.length) return FALSE;
  return (first === end - 1 ? stepTo(end, tests) : null) ?? tests[end]!;
}

/** What a rung's test adds to that of the rung below it, where its selector says so: `:active` to `:hover`. */
function stepTo(rung: number, tests: readonly Formula[]): Formula | null {
  const [below, here] = [tests[rung - 1], tests[rung]];
  if (rung < 2 || below?.kind !== 'atom' || here?.kind !== 'atom') return null;
  return here.selector.startsWith(`${below.selector}:`)
    ? atom(here.selector.slice(below.selector.length))
    : null;
}

/**
 * Values that exclude each other: the last test that matches decides, the value at rest is what remains. An absent or
 * unknown attribute thus means the default. A test that decides nothing that matters is left out.
 */
function decisionFormula({ must, may }: WantedValues, tests: readonly Formula[], rest: number): Formula {
  const order = tests
    .map((_, index) => index)
    .filter(index => index !== rest)
    .reverse();
  const decide = (from: number): Formula => {
    const left = [...order.slice(from), rest];
    if (left.every(index => (may >> index) & 1)) return TRUE;
    if (left.every(index => !((must >> index) & 1))) return FALSE;
    const here = order[from]!;
    const later = decide(from + 1);
    if ((must >> here) & 1) return any(tests[here]!, later);
    if ((may >> here) & 1 || excludes(later, tests[here]!)) return later;
    return all(not(tests[here]!), later);
  };
  return decide(0);
}

/** Whether one formula cannot hold where a test does: both ask for a value of the same attribute. */
function excludes(formula: Formula, test: Formula): boolean {
  if (formula.kind === 'any') return formula.parts.every(part => excludes(part, test));
  if (formula.kind !== 'atom' || test.kind !== 'atom') return false;
  const [attribute, other] = [formula.selector, test.selector].map(
    text => /^\[([\w-]+)="[^"]*"\]$/.exec(text)?.[1],
  );
  return attribute !== undefined && attribute === other && formula.selector !== test.selector;
}

/** The formula for a union of boxes. */
export function boxesFormula(
  scheme: SelectorScheme,
  component: Component,
  boxes: readonly WantedBox[],
  prefix: string,
): Formula {
  const { axes, full } = component.space;
  return any(
    ...boxes.map(({ must, may }) =>
      all(
        ...axes.map((axis, index) =>
          may[index] === full[index]
            ? TRUE
            : scheme.axis(axis, { must: must[index]!, may: may[index]! }, component, prefix),
        ),
      ),
    ),
  );
}
