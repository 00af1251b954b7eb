import type { Component } from '../rules/component';
import type { Axis } from '../space/axis';
import { bits, type Box } from '../space/box';
import { axisAttribute, partClass, rootClass } from './class-names';
import { all, any, atom, compound, FALSE, not, selectorList, TRUE, type Formula } from './formula';

/** How a stylesheet tells a combination, and how it names the parts. */
export interface SelectorScheme {
  readonly name: 'shipped' | 'held' | 'host' | 'part';
  /** Whether blocks stay as the rules have them, to be changed one by one while someone edits. */
  readonly live: boolean;
  /** Whether the parts are first put on a common ground. */
  readonly reset: boolean;
  /** The formula for a set of values of an axis, on the element that bears the states. */
  readonly axis: (axis: Axis, mask: number, component: Component, prefix: string) => Formula;
  /** The selector of a part where a formula holds. */
  readonly select: (component: Component, part: string, formula: Formula, prefix: string) => string;
}

/** Real pages: options by attributes, states by what the browser detects. It can be in any raw combination. */
export const SHIPPED: SelectorScheme = {
  name: 'shipped',
  live: false,
  reset: true,
  axis: (axis, mask, component, prefix) =>
    axisFormula(axis, mask, (_, index) => detection(axis, index, component, prefix)),
  select: selectBelowRoot,
};

/** Plates: every axis, states too, stands in an attribute, and only allowed combinations occur. */
export const HELD: SelectorScheme = {
  name: 'held',
  live: true,
  reset: true,
  axis(axis, mask) {
    const inside = bits(mask).map(index => attributeTest(axis, axis.values[index]!.id));
    const outside = axis.values.flatMap((value, index) =>
      (mask >> index) & 1 ? [] : [attributeTest(axis, value.id)],
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
const hostAxis: SelectorScheme['axis'] = (axis, mask) =>
  axisFormula(axis, mask, ({ id }) =>
    axis.state !== null && Object.hasOwn(HOST_TESTS, id) ? atom(HOST_TESTS[id]!) : null,
  );

/** Inside a shadow tree, whose host bears options and states. */
export const HOST: SelectorScheme = {
  name: 'host',
  live: false,
  reset: true,
  axis: hostAxis,
  select(component, part, formula, prefix) {
    const own = `.${partClass(prefix, component, part)}`;
    return formula.kind === 'true' ? own : `:where(:host(${compound(formula)})) ${own}`;
  },
};

/** From outside a shadow tree, for parts that it lets out by name. */
export const PART: SelectorScheme = {
  name: 'part',
  live: false,
  reset: false,
  axis: hostAxis,
  select(component, part, formula, prefix) {
    const host = rootClass(prefix, component);
    const condition = formula.kind === 'true' ? '' : `:where(${selectorList(formula).join(', ')})`;
    return `${host}${condition}::part(${part})`;
  },
};

/** `.qs-text-field-frame:where(.qs-text-field:hover *)`: the part's class weighs, the condition does not. */
function selectBelowRoot(component: Component, part: string, formula: Formula, prefix: string): string {
  const own = `.${partClass(prefix, component, part)}`;
  if (formula.kind === 'true') return own;
  const conditions = selectorList(formula);
  if (part === component.anatomy.root.name) return `${own}:where(${conditions.join(', ')})`;
  const root = `.${rootClass(prefix, component)}`;
  return `${own}:where(${conditions.map(text => `${root}${text} *`).join(', ')})`;
}

/** Tests for the values of an axis, put together for a set of them; without a test of its own a value has an attribute. */
function axisFormula(
  axis: Axis,
  mask: number,
  testOf: (value: Axis['values'][number], index: number) => Formula | null,
): Formula {
  const tests = axis.values.map((value, index) => testOf(value, index) ?? attributeTest(axis, value.id));
  return axis.ladder ? ladderFormula(mask, tests) : decisionFormula(mask, tests, axis.rest);
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

/** Rungs: "at least i" is the test of i; a run of rungs ends where the next test begins. */
function ladderFormula(mask: number, tests: readonly Formula[]): Formula {
  const atLeast = (rung: number): Formula => (rung <= 0 ? TRUE : rung >= tests.length ? FALSE : tests[rung]!);
  const runs: Formula[] = [];
  const values = bits(mask);
  for (let i = 0; i < values.length; i++) {
    const from = values[i]!;
    while (values[i + 1] === values[i]! + 1) i++;
    const next = values[i]! + 1;
    const beyond = from === values[i] ? stepTo(next, tests) : null;
    runs.push(all(atLeast(from), not(beyond ?? atLeast(next))));
  }
  return any(...runs);
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
 * unknown attribute thus means the default.
 */
function decisionFormula(mask: number, tests: readonly Formula[], rest: number): Formula {
  const order = tests
    .map((_, index) => index)
    .filter(index => index !== rest)
    .reverse();
  const decide = (from: number): Formula => {
    const left = [...order.slice(from), rest];
    if (left.every(index => (mask >> index) & 1)) return TRUE;
    if (left.every(index => !((mask >> index) & 1))) return FALSE;
    const here = order[from]!;
    const later = decide(from + 1);
    return (mask >> here) & 1 ? any(tests[here]!, later) : all(not(tests[here]!), later);
  };
  return decide(0);
}

/** The formula for a union of boxes. */
export function boxesFormula(
  scheme: SelectorScheme,
  component: Component,
  boxes: readonly Box[],
  prefix: string,
): Formula {
  const { axes, full } = component.space;
  return any(
    ...boxes.map(box =>
      all(
        ...axes.map((axis, index) =>
          box[index] === full[index] ? TRUE : scheme.axis(axis, box[index]!, component, prefix),
        ),
      ),
    ),
  );
}
