import type { Part } from '../../components/anatomy/part';
import { showsPlaceholder } from '../../documents/part-kinds';
import { hostAndPseudo } from '../../components/anatomy/pseudo-parts';
import type { Component } from '../../components/component';
import { isReached } from '../../components/nesting/entries';
import { componentAt } from '../../components/nesting/nested-names';
import type { Axis } from '../../space/axis';
import { bits } from '../../space/box';
import type { Detection } from '../../space/state-catalogue';
import type { ComponentNames } from '../../render/names';
import type { Ground } from './reset';
import { isAlways, type Condition, type ConditionScope } from './condition';
import { all, any, atom, compound, FALSE, not, selectorList, TRUE, type Formula } from './formula';

/** Values of an axis for which a formula must hold, and those for which it may, as masks. */
interface WantedValues {
  readonly must: number;
  readonly may: number;
}

/** How a stylesheet tells a combination, and how it names the parts. */
export interface SelectorScheme {
  readonly name: 'shipped' | 'held' | 'host' | 'part';
  /** Whether blocks stay as the rules have them, to be changed one by one while someone edits. */
  readonly live: boolean;
  /** Against what the parts are first put on a common ground. */
  readonly ground: Ground | null;
  /** The formula for some values of an axis, on the element that bears the states. */
  readonly axis: (axis: Axis, values: WantedValues, component: Component, names: ComponentNames) => Formula;
  /** The selectors of some parts, none of them a pseudo-part, where a condition holds. */
  readonly select: (
    component: Component,
    parts: readonly string[],
    condition: Condition,
    names: ComponentNames,
  ) => readonly string[];
}

/** The selector of some parts where a condition holds; pseudo-parts are told by the parts they are in. */
export function selectorOf(
  scheme: SelectorScheme,
  component: Component,
  parts: readonly string[],
  condition: Condition,
  names: ComponentNames,
): string {
  const byPseudo = new Map<string, string[]>();
  for (const part of parts) {
    const [host, pseudo] = hostAndPseudo(part);
    byPseudo.set(pseudo, [...(byPseudo.get(pseudo) ?? []), host]);
  }
  return [...byPseudo]
    .flatMap(([pseudo, hosts]) =>
      scheme.select(component, hosts, condition, names).map(selector => selector + pseudo),
    )
    .join(', ');
}

/** Real pages: options by attributes, states by what the browser detects. It can be in any raw combination. */
export const SHIPPED: SelectorScheme = {
  name: 'shipped',
  live: false,
  ground: 'page',
  axis: (axis, values, component, names) =>
    axisFormula(axis, values, names, (_, index) => detection(axis, index, component, names)),
  select: selectBelowRoot,
};

/** Plates: every axis, states too, stands in an attribute, and only allowed combinations occur. */
export const HELD: SelectorScheme = {
  name: 'held',
  live: true,
  ground: 'plate',
  axis(axis, { must }, _, names) {
    const inside = bits(must).map(index => attributeTest(axis, axis.values[index]!.id, names));
    const outside = axis.values.flatMap((value, index) =>
      (must >> index) & 1 ? [] : [attributeTest(axis, value.id, names)],
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

/**
 * What a shadow host shows: attributes for options and for the states that cannot be seen through it. What nested components keep
 * to themselves stands in the tree as on any page.
 */
const hostAxis: SelectorScheme['axis'] = (axis, values, component, names) =>
  axis.id.includes('/')
    ? SHIPPED.axis(axis, values, component, names)
    : axisFormula(axis, values, names, ({ id }) =>
        axis.state !== null && Object.hasOwn(HOST_TESTS, id) ? atom(HOST_TESTS[id]!) : null,
      );

/** Inside a shadow tree, whose host bears options and states. */
export const HOST: SelectorScheme = {
  name: 'host',
  live: false,
  ground: 'browser',
  axis: hostAxis,
  select(component, parts, condition, names) {
    const own = parts.map(part => `.${names.part(part)}`);
    if (isAlways(condition)) return own;
    return condition.flatMap(({ root, inner }) => {
      const host = root.kind === 'true' ? ':host' : `:host(${compound(root)})`;
      return inner.length === 0
        ? [`:where(${host}) ${anyOf(own)}`]
        : insideNested(component, parts, host, inner, names);
    });
  },
};

/** From outside a shadow tree, for parts that it lets out by name. */
export const PART: SelectorScheme = {
  name: 'part',
  live: false,
  ground: null,
  axis: hostAxis,
  select(_, parts, condition, { root: host }) {
    // What a nested component keeps to itself cannot be seen from outside; its states are those at rest.
    const outside = condition.filter(({ inner }) => inner.length === 0);
    const tests = outside.flatMap(({ root }) => selectorList(root));
    const where = isAlways(condition) ? '' : `:where(${tests.length > 0 ? tests.join(', ') : ':not(*)'})`;
    return parts.map(part => `${host}${where}::part(${part.replaceAll('/', '--')})`);
  },
};

/** `.qs-text-field-frame:where(.qs-text-field:hover *)`: the part's class weighs, the condition does not. */
function selectBelowRoot(
  component: Component,
  parts: readonly string[],
  condition: Condition,
  names: ComponentNames,
): readonly string[] {
  const classOf = (part: string): string => `.${names.part(part)}`;
  if (isAlways(condition)) return parts.map(classOf);
  const root = `.${names.root}`;
  const isRoot = (part: string): boolean => part === component.anatomy.root.name;
  const below = parts.filter(part => !isRoot(part)).map(classOf);
  return condition.flatMap(({ root: formula, inner }) => {
    const tests = selectorList(formula);
    if (inner.length > 0) {
      const around = formula.kind === 'true' ? '' : `${root}${compound(formula)}`;
      return insideNested(component, parts, around, inner, names);
    }
    const selectors = parts.filter(isRoot).map(() => `${root}:where(${tests.join(', ')})`);
    if (below.length > 0)
      selectors.push(`${anyOf(below)}:where(${tests.map(text => `${root}${text} *`).join(', ')})`);
    return selectors;
  });
}

/**
 * Parts in nested components, by tests on the roots of these: `.qs-count-less--frame:where(.qs-count-less:hover *)`. `around` is
 * the test on what is around all of them, if any.
 */
function insideNested(
  { anatomy }: Component,
  parts: readonly string[],
  around: string,
  inner: ConditionScope['inner'],
  names: ComponentNames,
): readonly string[] {
  const classOf = (part: string): string => `.${names.part(anatomy.byName.get(part)!.name)}`;
  const tested = inner.map(([part, formula]) => ({ part, test: `${classOf(part)}${compound(formula)}` }));
  const last = tested.at(-1)!;
  const outer = [around, ...tested.slice(0, -1).map(({ test }) => test)].filter(text => text !== '');
  const own = parts.filter(part => anatomy.byName.get(last.part)!.name === part);
  const below = parts.filter(part => !own.includes(part)).map(classOf);
  const lastTest = compound(inner.at(-1)![1]);
  const ownSelectors = own.map(
    part => `${classOf(part)}:where(${lastTest})${outer.length > 0 ? `:where(${outer.join(' ')} *)` : ''}`,
  );
  const belowSelectors =
    below.length > 0 ? [`${anyOf(below)}:where(${[...outer, last.test].join(' ')} *)`] : [];
  return [...ownSelectors, ...belowSelectors];
}

const anyOf = (selectors: readonly string[]): string =>
  selectors.length === 1 ? selectors[0]! : `:is(${selectors.join(', ')})`;

/** Tests for the values of an axis, put together for a set of them; without a test of its own a value has an attribute. */
function axisFormula(
  axis: Axis,
  values: WantedValues,
  names: ComponentNames,
  testOf: (value: Axis['values'][number], index: number) => Formula | null,
): Formula {
  const tests = axis.values.map(
    (value, index) => testOf(value, index) ?? attributeTest(axis, value.id, names),
  );
  return axis.ladder ? ladderFormula(values, tests) : decisionFormula(values, tests, axis.rest);
}

const attributeTest = (axis: Axis, value: string, names: ComponentNames): Formula =>
  atom(`[${names.axis(axis.id)}="${value}"]`);

/**
 * The browser's own test for a state's value, or `null` where an attribute has to say it. An inner axis is told on the root of its
 * component.
 */
function detection(axis: Axis, index: number, component: Component, names: ComponentNames): Formula | null {
  const { id } = axis.values[index]!;
  const bearers = bearersAt(axis.id, component);
  const value = axis.state?.values.find(each => each.id === id);
  if (bearers.isReached && value?.reached) return atom(value.reached.test);
  const tests = (value?.detect ?? []).flatMap(each => detectionTest(each, bearers, names) ?? []);
  if (tests.length === 0) return null;
  const told = any(...tests.map(atom));
  const needsSight = value!.detect!.some(({ test }) => SIGHT.test(test));
  return needsSight && showing(bearers.bearer).length < bearers.bearer!.elements.length
    ? any(told, attributeTest(axis, id, names))
    : told;
}

/** A test that holds of what shows no placeholder, and so says nothing of elements that never do. */
const SIGHT = /:placeholder-shown/;

/** The elements that a bearer may be and that show a placeholder while they are empty. */
const showing = (bearer: Part | null): readonly string[] =>
  (bearer?.elements ?? []).filter(element => showsPlaceholder(element, bearer!.type));

interface Bearers {
  readonly root: Part;
  /** What bears the states that a browser tells. */
  readonly bearer: Part | null;
  /** Whether the focus only points to it. */
  readonly isReached: boolean;
}

/** Root and bearer of the component that an axis belongs to, as parts of the outermost. */
function bearersAt(axis: string, component: Component): Bearers {
  const { anatomy, nested } = component;
  const way = axis.slice(0, Math.max(0, axis.lastIndexOf('/')));
  if (way === '') return { ...anatomy, isReached: isReached(component) };
  const owner = componentAt(nested, way);
  const here = (part: Part | null): Part | null =>
    part && (anatomy.byName.get(`${way}/${part.name}`) ?? null);
  return {
    root: anatomy.byName.get(way)!,
    bearer: here(owner.anatomy.bearer),
    isReached: isReached(owner),
  };
}

/** A test on the root; `null` where there is nothing to test. */
function detectionTest(
  { on, test, anywhere }: Detection,
  { bearer, root }: Bearers,
  names: ComponentNames,
): string | null {
  if (on === 'root' || bearer === root) return test;
  if (on === 'inside') return `:has(${test})`;
  if (!bearer) return anywhere ? test : null;
  if (!SIGHT.test(test)) return `:has(.${names.part(bearer.name)}${test})`;
  const elements = showing(bearer);
  if (elements.length === 0) return null;
  const among = elements.length < bearer.elements.length ? `:is(${elements.join(', ')})` : '';
  return `:has(.${names.part(bearer.name)}${among}${test})`;
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
