import type { Component } from '../rules/component';
import type { Axis } from '../space/axis';
import { bits, type Box } from '../space/box';
import { axisAttribute, partClass } from './class-names';
import { all, any, atom, FALSE, not, TRUE, type Formula } from './formula';

/** How a stylesheet tells a combination: by what the browser knows, or by attributes alone. */
export interface SelectorScheme {
  readonly name: 'shipped' | 'held';
  /** Boxes of what the scheme's root elements can be in, for a rule's region of allowed combinations. */
  readonly boxes: (component: Component, region: Box) => readonly Box[];
  /** The formula for a set of values of an axis. */
  readonly axis: (axis: Axis, mask: number, component: Component, prefix: string) => Formula;
}

/**
 * Real pages: options by attributes, states by what the browser detects. It can be in any raw combination, so a region
 * stands for all raw combinations that the limits take into it.
 */
export const SHIPPED: SelectorScheme = {
  name: 'shipped',
  boxes: (component, region) => component.space.reachedFrom(region),
  axis(axis, mask, component, prefix) {
    const tests = axis.values.map(
      (value, index) => detection(axis, index, component, prefix) ?? attributeTest(axis, value.id),
    );
    return axis.ladder ? ladderFormula(mask, tests) : decisionFormula(mask, tests, axis.rest);
  },
};

/** Plates: every axis, states too, stands in an attribute, and only allowed combinations occur. */
export const HELD: SelectorScheme = {
  name: 'held',
  boxes: (_, region) => [region],
  axis(axis, mask) {
    const inside = bits(mask).map(index => attributeTest(axis, axis.values[index]!.id));
    const outside = axis.values.flatMap((value, index) =>
      (mask >> index) & 1 ? [] : [attributeTest(axis, value.id)],
    );
    return inside.length <= outside.length ? any(...inside) : not(any(...outside));
  },
};

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
    runs.push(all(atLeast(from), not(atLeast(values[i]! + 1))));
  }
  return any(...runs);
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

/** Formula on the root for a region, in a scheme. */
export function regionFormula(
  scheme: SelectorScheme,
  component: Component,
  region: Box,
  prefix: string,
): Formula {
  const { axes, full } = component.space;
  return any(
    ...scheme
      .boxes(component, region)
      .map(box =>
        all(
          ...axes.map((axis, index) =>
            box[index] === full[index] ? TRUE : scheme.axis(axis, box[index]!, component, prefix),
          ),
        ),
      ),
  );
}
