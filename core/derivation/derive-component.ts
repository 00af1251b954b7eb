import {
  decision,
  LISTS,
  type AxisDocument,
  type ComponentDocument,
  type DecisionDocument,
  type DerivedDocument,
  type LimitDocument,
  type RuleDocument,
  type WithoutList,
} from '../documents/component-document';
import { part, type PartDocument } from '../documents/part-document';
import type { Shape } from '../documents/shape';
import { pointer } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { editedAnatomy } from './anatomy-edits';
import { deriveAxes } from './derive-axes';
import { derivedBehaviour } from './derive-behaviour';
import { deriveRules, type DerivedRules } from './derive-rules';
import { RemainingNames, type Taken } from './remaining-names';
import type { Narrowing } from './narrowing';
import { entriesOf, listOf, member, membersOf, objectOf, originOf, traced, type Traced } from './origin';

export interface Derived {
  readonly component: Traced<ComponentDocument>;
  readonly rules: DerivedRules;
  /** What is wrong with what the derived component says of its base, at places of its own document. */
  readonly problems: readonly LocalProblem[];
}

/** Lists whose entries go by id: one of the base's replaces it in its place, others are added. Axes and rules have more to them. */
type ById = Exclude<WithoutList, 'axes' | 'rules'>;
const BY_ID = (Object.keys(LISTS) as WithoutList[]).filter(
  (name): name is ById => name !== 'axes' && name !== 'rules',
);
type List = WithoutList | 'decisions';

interface Entry {
  readonly id?: string;
}

/**
 * What a component that takes everything of a base and says what differs stands for, as if all were written in it. Lists and
 * entries in which nothing differs are the base's own objects, so that what is known of them stays known.
 */
export const deriveComponent = (
  base: Traced<ComponentDocument>,
  baseRules: DerivedRules | null,
  own: Traced<DerivedDocument>,
): Derived => new Derivation(base, baseRules, own).derived();

/** Lists of a base: what many are derived from is opened once. */
const opened = new ObjectMemo<Map<string, readonly Traced<unknown>[]>>();

const NO_RULES: ReadonlySet<string> = new Set();

class Derivation {
  private readonly problems = new ProblemList();

  constructor(
    private readonly base: Traced<ComponentDocument>,
    /** Of a base that is derived itself. */
    private readonly baseRules: DerivedRules | null,
    private readonly own: Traced<DerivedDocument>,
  ) {}

  derived(): Derived {
    const { base, own, problems } = this;
    this.checkWithout();
    const { axes, narrowing } = deriveAxes(
      this.inBase<AxisDocument>('axes'),
      entriesOf(member(own, 'axes')),
      this.without('axes'),
      problems,
    );
    const anatomy = editedAnatomy(
      remainingOf(part, member(base, 'anatomy')!, new RemainingNames(narrowing))!,
      entriesOf(member(own, 'anatomyEdits')),
      problems,
    );
    const taken = this.taken(anatomy.value);
    const names = new RemainingNames(narrowing, taken);
    const derivedRules = deriveRules(
      this.rulesInBase(),
      entriesOf(member(own, 'rules')),
      names,
      new Set(this.without('rules')),
      problems,
    );
    const { rules } = derivedRules;
    const lists = {
      axes: listOf<AxisDocument>(axes, member(base, 'axes'), originOf(own.origin, 'axes')),
      rules: listOf<RuleDocument>(rules, member(base, 'rules'), originOf(own.origin, 'rules')),
      ...this.listsById(names),
      decisions: this.decisions(rules, narrowing, taken),
    };
    const guide = {
      ...membersOf(member(base, 'guide') ?? EMPTY),
      ...membersOf(member(own, 'guide') ?? EMPTY),
    };
    const { anatomyEdits: _, without: __, anatomy: ___, ...said } = membersOf(own);
    const component = objectOf<ComponentDocument>(
      {
        ...membersOf(base),
        ...said,
        anatomy,
        ...lists,
        ...derivedBehaviour(member(base, 'behaviour'), member(own, 'behaviour')),
        guide: objectOf(guide, originOf(own.origin, 'guide')),
      },
      own.origin,
    );
    return { component, rules: derivedRules, problems: problems.problems };
  }

  /** The rules of the base, with those of which derivation has left nothing. */
  private rulesInBase(): DerivedRules {
    if (this.baseRules) return this.baseRules;
    const rules = this.inBase<RuleDocument>('rules');
    return { rules, withSilent: rules, nowhere: NO_RULES };
  }

  /** Lists by id, as far as they still say something here, with what is its own. */
  private listsById(names: RemainingNames): Record<string, Traced<readonly Entry[]>> {
    const { base, own } = this;
    return Object.fromEntries(
      BY_ID.map(name => [
        name,
        listOf(this.joined(name, names), this.listIn<Entry>(base, name), originOf(own.origin, name)),
      ]),
    );
  }

  private listIn<Entry>(
    { value, origin }: Traced<Partial<Record<List, unknown>>>,
    name: List,
  ): Traced<readonly Entry[]> | undefined {
    const list = value[name] as readonly Entry[] | undefined;
    return list && traced(list, originOf(origin, name));
  }

  private inBase<Entry>(name: List): readonly Traced<Entry>[] {
    const { base } = this;
    const lists = opened.of([base], () => new Map<string, readonly Traced<unknown>[]>());
    let entries = lists.get(name);
    if (!entries) lists.set(name, (entries = entriesOf(this.listIn(base, name))));
    return entries as readonly Traced<Entry>[];
  }

  /** The base's entries, as far as they still say something, with those of its own in their places and behind them. */
  private joined(name: ById, names: RemainingNames): Traced<Entry>[] {
    const out = new Set(this.without(name));
    const own = entriesOf(this.listIn<Entry>(this.own, name));
    const base = this.inBase<Entry>(name);
    const ids = own.length > 0 ? new Set(base.map(({ value }) => value.id)) : NO_IDS;
    const instead = new Map<string, Traced<Entry>>();
    const added = own.filter(entry => {
      const { id } = entry.value;
      if (id === undefined || !ids.has(id) || instead.has(id)) return true;
      instead.set(id, entry);
      return false;
    });
    const kept = base.flatMap(entry => {
      const { id } = entry.value;
      if (id !== undefined && instead.has(id)) return instead.get(id)!;
      if (id !== undefined && out.has(id)) return [];
      const left = remainingOf(LISTS[name].entry as Shape<Entry>, entry, names);
      if (!left && name === 'limits') this.reportEmptied(entry.value as LimitDocument, names);
      return left ?? [];
    });
    return [...kept, ...added];
  }

  /** A limit that still counts and holds an axis at values of which none is left. */
  private reportEmptied(limit: LimitDocument, names: RemainingNames): void {
    if (!names.condition(limit.while)) return;
    const lost = Object.entries(limit.holds).find(([axis, values]) => !names.holds({ [axis]: values }));
    if (!lost) return;
    this.problems.error(
      this.placeOfAxis(lost[0]),
      'limit-without-values',
      `A limit of the base holds ${lost[0]} at ${[lost[1]].flat().join(' or ')}, of which nothing is left here.`,
    );
  }

  /** Where a derived component says what becomes of an axis. */
  private placeOfAxis(axis: string): string {
    const changed = (this.own.value.axes ?? []).findIndex(({ id }) => id === axis);
    if (changed >= 0) return pointer('axes', changed);
    return pointer('without', 'axes', this.without('axes').indexOf(axis));
  }

  /** What the base has and this component has not. */
  private taken(anatomy: PartDocument): Taken {
    const said = new Set((this.own.value.samples ?? []).map(({ id }) => id));
    return {
      part: lostParts(this.base.value.anatomy, anatomy),
      situation: new Set(this.without('situations')),
      sample: new Set(this.without('samples').filter(id => !said.has(id))),
    };
  }

  /** Decisions of the base about rules that are still there, and its own. */
  private decisions(rules: readonly Traced<RuleDocument>[], narrowing: Narrowing, taken: Taken) {
    const there = new Set(rules.map(({ value }) => value.id));
    const lost = this.inBase<RuleDocument>('rules').flatMap(({ value }) =>
      there.has(value.id) ? [] : value.id,
    );
    const names = new RemainingNames(narrowing, { ...taken, rule: new Set(lost) });
    const kept = this.inBase<DecisionDocument>('decisions').flatMap(
      each => remainingOf(decision, each, names) ?? [],
    );
    return listOf(
      [...kept, ...entriesOf(member(this.own, 'decisions'))],
      member(this.base, 'decisions'),
      originOf(this.own.origin, 'decisions'),
    );
  }

  private without(list: WithoutList): readonly string[] {
    return this.own.value.without?.[list] ?? [];
  }

  private checkWithout(): void {
    for (const [list, ids] of Object.entries(this.own.value.without ?? {}) as [WithoutList, string[]][]) {
      const known = (this.base.value[list] ?? []).flatMap(
        (entry: { readonly id?: string }) => entry.id ?? [],
      );
      const said = (this.own.value[list] ?? []).flatMap((entry: { readonly id?: string }) => entry.id ?? []);
      ids.forEach((id, index) => {
        const at = pointer('without', list, index);
        if (!known.includes(id))
          this.problems.error(
            at,
            'unknown-entry',
            `The base has nothing called “${id}” among its ${list}.`,
            nearest(id, known),
            id,
          );
        else if (said.includes(id))
          this.problems.error(at, 'said-twice', `“${id}” is left out and said anew; do one of both.`);
      });
    }
  }
}

/** What is left of something of the base; `null` where nothing is. */
function remainingOf<Value extends object>(
  shape: Shape<Value>,
  whole: Traced<Value>,
  names: RemainingNames,
): Traced<Value> | null {
  const left = names.remainingOf(shape, whole.value);
  return left === whole.value ? whole : left && traced(left, whole.origin);
}

const NO_IDS: ReadonlySet<string | undefined> = new Set();
const EMPTY = traced({}, { file: '', pointer: '' });

function lostParts(base: PartDocument, anatomy: PartDocument): ReadonlySet<string> {
  if (base === anatomy) return new Set();
  const left = new Set(partNames(anatomy));
  return new Set(partNames(base).filter(name => !left.has(name)));
}

const partNames = ({ part, children = [] }: PartDocument): string[] => [part, ...children.flatMap(partNames)];
