import type { Component, Nested } from '../components/component';
import { listKey } from '../components/content-keys';
import type { System } from '../components/system';
import { choicesOf } from '../components/nesting/entries';
import { sampleKeyOf } from '../components/nesting/sample-keys';
import { derivedText } from '../components/content/derived-text';
import { chosenText, entryId, entryText, isDisabledEntry } from '../components/content/entries';
import { graphemesOf } from '../text/graphemes';
import { sampleText } from '../components/content/sample-text';
import { announcedParts } from '../render/accessibility';
import { fieldTree, type FieldNode } from '../render/field-tree';
import { namesOf } from '../render/names';
import type { CheckDocument } from '../documents/behaviour-document';
import type { SampleDocument, SampleText } from '../documents/component-document';
import { isObject } from '../json/json';
import { resolve } from '../cascade/resolve';
import type { Combination } from '../space/space';
import type { FieldState } from './field-state';
import type { Seen } from './user-input';
import { chosenIn } from './kinds/choice';
import type { ListEntry } from './kinds/value-kind';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';

/** A field that is played: its component, what it must know, and the words that stand in it. */
export interface PlayedField {
  readonly system: System;
  readonly component: Component;
  readonly plan: Plan;
  readonly sample: SampleDocument | undefined;
}

/** The combination that a field is in, with what nested components are in by themselves. */
function combinationOf({ component, plan }: PlayedField, state: FieldState): Combination {
  const own = component.space.written(combinationAt(plan, state));
  const inner = component.space.inner.flatMap(({ id }) => {
    const value = innerState(plan, state, id);
    return value === undefined ? [] : [[id, value]];
  });
  return { ...own, ...Object.fromEntries(inner) };
}

/** What a nested button is in: pointed at, focused. */
function innerState(plan: Plan, { pointer, focus }: FieldState, id: string): string | undefined {
  const cut = id.lastIndexOf('/');
  const isWithin = (part: string | null): boolean => part?.startsWith(id.slice(0, cut + 1)) === true;
  const target = pointer.part === null ? undefined : plan.targets[pointer.part];
  switch (id.slice(cut + 1)) {
    case 'pointer':
      if (target?.kind !== 'button' || !isWithin(pointer.part)) return undefined;
      return pointer.isDown ? 'down' : 'over';
    case 'focus':
      if (focus === null || !isWithin(focus.part)) return undefined;
      return focus.isVisible ? 'keyboard' : 'in';
    default:
      return undefined;
  }
}

/** Where the entries of a list come from: key of the sample's content, and the entries as they are given. */
function givenList({ component, sample }: Pick<PlayedField, 'component' | 'sample'>): {
  readonly key: string;
  readonly entries: readonly Record<string, unknown>[];
} | null {
  const choices = choicesOf(component);
  // The platform's own list needs no parts to draw its entries.
  const isNative = component.anatomy.control?.element === 'select';
  const key = choices ? keyOf(component, choices.entry, choices.way) : isNative ? listKey(component) : null;
  const given = key === null ? undefined : sample?.content[key];
  return key !== null && Array.isArray(given) ? { key, entries: given.filter(isObject) } : null;
}

/** A list's key as the outermost component knows it. */
function keyOf({ nested }: Component, { repeat }: Nested, way: string): string | null {
  if (repeat === null || way === '') return repeat;
  return nested.find(({ name }) => name === way)?.content.get(repeat) ?? repeat;
}

/** The entries of its list as a sample has them. */
export const entriesGiven = (
  field: Pick<PlayedField, 'component' | 'sample'>,
): readonly Record<string, unknown>[] => givenList(field)?.entries ?? [];

/** What of its list a field knows. */
function entriesOf(field: PlayedField): ListEntry[] {
  return entriesGiven(field).map(entry => {
    return { id: entryId(entry), text: entryText(entry), isDisabled: isDisabledEntry(entry) };
  });
}

/** A sample as the field shows it: with what is entered, its list and its boxes as they are, and what is said of the entry. */
function sampleAt(field: PlayedField, state: FieldState): SampleDocument | undefined {
  const { component, plan, sample } = field;
  if (!sample) return undefined;
  const control = component.anatomy.control?.content ?? 'value';
  return {
    ...sample,
    content: {
      ...sample.content,
      [control]: state.value,
      ...listAt(field, state),
      ...boxesAt(component, plan, state),
      ...saidAt(field, state),
    },
  };
}

/** What is said of the entry stands in the parts that come and go with judging. */
function saidAt(field: PlayedField, state: FieldState): Record<string, string> {
  const { component, plan } = field;
  const check = plan.checks.find(({ id }) => id === state.complaint);
  if (!check) return {};
  const text = messageOf(field, state, check);
  return Object.fromEntries(messageKeys(component).map(key => [key, text]));
}

/** Keys of the texts that come and go with what is said about the entry, as the outermost component knows them. */
export const messageKeys = (component: Component): string[] =>
  [...announcedParts(component)].flatMap(name => sampleKeyOf(component, name) ?? []);

/** What a check says: the text of its key, else the key itself; without a key, what the sample's message says there. */
export function messageOf(
  { plan, component: { document, space }, sample }: PlayedField,
  state: FieldState,
  check: CheckDocument,
): string {
  const key = check.message ?? 'message';
  const combination = space.written(combinationAt(plan, state));
  const given = sampleText(sample?.content[key] as SampleText | undefined, combination, space.axes);
  if (given !== undefined) return given;
  const declared = document.content?.find(({ id }) => id === key);
  const text =
    declared &&
    derivedText(declared, { value: () => state.value, entries: () => 0, sources: sample?.sources ?? {} });
  return text ?? check.message ?? check.id;
}

function listAt(field: PlayedField, state: FieldState): Record<string, unknown[]> {
  const list = field.plan.kind.list ? givenList(field) : null;
  if (!list) return {};
  const known = entriesOf(field);
  const chosen = chosenIn(state.value);
  const { pointer, active, isOpen } = state;
  const entries = list.entries.map((entry, place) => {
    const { id, isDisabled } = known[place]!;
    const is = {
      ...(chosen.includes(id) ? { selection: 'selected' } : {}),
      ...(isOpen && active === place ? { focus: 'keyboard' } : {}),
      ...(pointer.entry === place ? { pointer: pointer.isDown ? 'down' : 'over' } : {}),
      ...(isDisabled ? { availability: 'disabled' } : {}),
    };
    return { ...entry, is };
  });
  return { [list.key]: entries };
}

/** One box for each character: those that are filled, and the one that is next (its axis `turn` is `current`). */
function boxesAt(
  component: Component,
  plan: Plan,
  { text, selection }: FieldState,
): Record<string, unknown[]> {
  const key =
    plan.value.kind === 'code' ? component.nested.find(({ repeat }) => repeat !== null)?.repeat : null;
  const declared = component.document.content?.find(({ id }) => id === key);
  if (!key || !declared) return {};
  const name = declared.entry?.[0]?.id ?? 'value';
  const characters = graphemesOf(text);
  const turn = graphemesOf(text.slice(0, selection[0])).length;
  const length = plan.value.length ?? characters.length;
  return {
    [key]: Array.from({ length }, (_, place) => ({
      [name]: characters[place] ?? ' ',
      is: { turn: place === Math.min(turn, length - 1) ? 'current' : 'waiting' },
    })),
  };
}

/** What is drawn of a field where it is, for whoever draws it by combination and sample. */
export function drawnAt(
  field: PlayedField,
  state: FieldState,
): {
  readonly combination: Combination;
  readonly sample: SampleDocument | undefined;
  readonly written: string | undefined;
  readonly locale: string;
} {
  const { kind } = field.plan;
  return {
    combination: combinationOf(field, state),
    sample: sampleAt(field, state),
    written: kind.takesText
      ? state.text
      : kind.list
        ? chosenText(entriesGiven(field), state.value)
        : undefined,
    locale: state.locale,
  };
}

/** The elements of the field where it is. */
function treeAt(field: PlayedField, state: FieldState, mode: 'shipped' | 'held', id: string): FieldNode {
  const { component, system } = field;
  const { written, ...drawn } = drawnAt(field, state);
  return fieldTree({
    component,
    names: namesOf(system).component(component.id),
    icons: system.icons,
    mode,
    id,
    ...drawn,
    ...(written === undefined ? {} : { written }),
  });
}

/** What is seen of the field where it is. */
export function seenAt(field: PlayedField, state: FieldState): Seen {
  const { system, component } = field;
  const combination = combinationOf(field, state);
  let drawn: ReadonlyMap<string, FieldNode> | null = null;
  const nodes = (): ReadonlyMap<string, FieldNode> =>
    (drawn ??= new Map(nodesOf(treeAt(field, state, 'shipped', 'play'))));
  const context = { tokens: system.tokens.usual(), rootFontSize: system.rootFontSize };
  let outcomes: ReturnType<typeof resolve> | null = null;
  const outcome = (part: string, property: string): string | undefined =>
    (outcomes ??= resolve(component, combination, context)).parts[part]?.[property]?.value;
  const around = (part: string): string[] => {
    const own = component.anatomy.byName.get(part);
    const outer = own && component.anatomy.outer(own);
    return [part, ...(outer ? around(outer.name) : [])];
  };
  return {
    isThere: part => nodes().has(part) && around(part).every(each => outcome(each, 'present') !== 'false'),
    // It is inherited (SVG 2, 15.4; CSS Basic User Interface 4).
    letsThrough: part =>
      around(part)
        .map(each => outcome(each, 'pointer-events'))
        .find(value => value !== undefined && value !== 'inherit') === 'none',
    isDisabled: part =>
      nodes()
        .get(part)
        ?.attributes.some(([name]) => name === 'disabled') === true,
    entries: () => entriesOf(field),
  };
}

const nodesOf = (node: FieldNode): [string, FieldNode][] => [
  [node.part, node],
  ...node.children.flatMap(child => (typeof child === 'string' ? [] : nodesOf(child))),
];
