import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import type { PartDocument } from '../documents/part-document';
import { stateAxis } from '../space/state-catalogue';
import { everyCombination, holdsIn, isAllowed, settledPlain, type Plain } from './naive';
import { valuesOf } from './random-component';

/** Nested components flattened by definition, one combination at a time, from the model's words alone. */

/** A word of a rule, in order of precedence. */
export interface Word {
  readonly rule: string;
  readonly slot: string;
  readonly text: string;
  /** The text with all that it refers to named from the outermost. */
  readonly means: string;
  /** Whether the rule is the outermost component's own. */
  readonly own: boolean;
}

export type Library = ReadonlyMap<string, ComponentDocument>;

const usesOf = (part: PartDocument): PartDocument[] =>
  part.kind === 'use' ? [part] : (part.children ?? []).flatMap(usesOf);

const restOf = (document: ComponentDocument, axis: string): string => {
  const found = document.axes!.find(each => each.id === axis)!;
  return found.default ?? valuesOf(found)[0]!;
};

/** What a bound axis is, given the parent's settled combination. */
function bound(written: unknown, rest: string, parent: Plain): string {
  if (typeof written === 'string') return parent[written]!;
  if (Array.isArray(written)) {
    const cases = written as { when: Plain; is: string }[];
    return cases.find(each => holdsIn(each.when, parent))?.is ?? rest;
  }
  const form = written as { is?: string; axis?: string; map?: Plain };
  if (form.is !== undefined) return form.is;
  const value = parent[form.axis!]!;
  const row = stateAxis(form.axis!);
  if (!row?.ladder) return form.map![value] ?? rest;
  const order = row.values.map(each => each.id);
  const reached = Object.keys(form.map!)
    .filter(key => order.indexOf(key) <= order.indexOf(value))
    .sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return reached.length > 0 ? form.map![reached.at(-1)!]! : rest;
}

const within = (name: string, raw: Plain): Plain =>
  Object.fromEntries(
    Object.entries(raw).flatMap(([key, value]) =>
      key.startsWith(`${name}/`) ? [[key.slice(name.length + 1), value]] : [],
    ),
  );

/** All words that are spoken in a raw combination: own axes, and free ones by their path. */
function words(document: ComponentDocument, raw: Plain, library: Library): Word[] {
  const own = Object.fromEntries(document.axes!.map(({ id }) => [id, raw[id] ?? restOf(document, id)]));
  const settled = settledPlain(document, own)!;
  const spoken: Word[] = [];
  const roots = rootsIn(document, library);
  for (const use of usesOf(document.anatomy)) {
    const other = library.get(use.component!)!;
    const given = within(use.part, raw);
    const nested: Record<string, string> = { ...given };
    for (const { id } of other.axes!) {
      const rest = restOf(other, id);
      nested[id] = use.with?.[id] === undefined ? (given[id] ?? rest) : bound(use.with[id], rest, settled);
    }
    for (const word of words(other, nested, library))
      spoken.push({
        rule: `${use.part}/${word.rule}`,
        slot: `${use.part}/${word.slot}`,
        text: word.text,
        means: word.means.replaceAll('@', `@${use.part}/`),
        own: false,
      });
  }
  const last: Word[] = [];
  const placed = new Map<string, Word[]>();
  for (const rule of document.rules ?? []) {
    if (!holdsIn(rule.when, settled)) continue;
    const said = saidBy(rule, roots);
    if (rule.after === undefined) last.push(...said);
    else placed.set(rule.after, [...(placed.get(rule.after) ?? []), ...said]);
  }
  // A rule behind a nested one stands there whether or not that one speaks: it counts where its place is.
  const order = ruleOrder(document, library);
  const all = [...spoken, ...[...placed.values()].flat()];
  all.sort((a, b) => order.indexOf(a.rule) - order.indexOf(b.rule));
  return [...all, ...last];
}

/** By names of parts that use components: the roots that these stand for. */
const rootsIn = (document: ComponentDocument, library: Library): Map<string, string> =>
  new Map(
    usesOf(document.anatomy).flatMap(use => {
      const other = library.get(use.component!)!;
      return [
        [use.part, `${use.part}/${other.anatomy.part}`] as const,
        ...[...rootsIn(other, library)].map(
          ([name, root]) => [`${use.part}/${name}`, `${use.part}/${root}`] as const,
        ),
      ];
    }),
  );

/** Said twice of one slot, under both names of a nested root, the later counts. */
function saidBy(rule: RuleDocument, roots: ReadonlyMap<string, string>): Word[] {
  const said = new Map<string, Word>();
  for (const [part, properties] of Object.entries(rule.set)) {
    for (const [property, text] of Object.entries(properties)) {
      const slot = `${roots.get(part) ?? part}.${property}`;
      said.delete(slot);
      said.set(slot, { rule: rule.id, slot, text, means: text, own: true });
    }
  }
  return [...said.values()];
}

/** The ids of all rules in their order. */
function ruleOrder(document: ComponentDocument, library: Library): string[] {
  const nested = usesOf(document.anatomy).flatMap(use =>
    ruleOrder(library.get(use.component!)!, library).map(id => `${use.part}/${id}`),
  );
  const rules = document.rules ?? [];
  return [
    ...nested.flatMap(id => [id, ...rules.filter(rule => rule.after === id).map(rule => rule.id)]),
    ...rules.filter(rule => rule.after === undefined).map(rule => rule.id),
  ];
}

/** The free axes of all that is nested, by their path, with their values. */
export function freeAxes(document: ComponentDocument, library: Library): [string, string[]][] {
  return usesOf(document.anatomy).flatMap(use => {
    const other = library.get(use.component!)!;
    const own = other.axes!.filter(axis => use.with?.[axis.id] === undefined);
    return [
      ...own.map((axis): [string, string[]] => [`${use.part}/${axis.id}`, valuesOf(axis)]),
      ...freeAxes(other, library).map(([name, values]): [string, string[]] => [
        `${use.part}/${name}`,
        values,
      ]),
    ];
  });
}

/** One allowed combination of the component with one of all that is free in it. */
export interface Point {
  readonly own: Plain;
  readonly words: readonly Word[];
  readonly free: Plain;
}

export function everyPoint(document: ComponentDocument, library: Library): Point[] {
  const free = freeAxes(document, library).reduce<Plain[]>(
    (all, [name, values]) => all.flatMap(each => values.map(value => ({ ...each, [name]: value }))),
    [{}],
  );
  return everyCombination(document)
    .filter(own => isAllowed(document, own))
    .flatMap(own =>
      free.map(each => ({ own, free: each, words: words(document, { ...own, ...each }, library) })),
    );
}

/** How many points there are, without making them. */
export const pointsOf = (document: ComponentDocument, library: Library): number =>
  [...document.axes!.map(valuesOf), ...freeAxes(document, library).map(([, values]) => values)].reduce(
    (product, values) => product * values.length,
    1,
  );
