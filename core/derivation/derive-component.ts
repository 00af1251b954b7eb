import type {
  AxisDocument,
  ComponentDocument,
  ConditionDocument,
  ContentDocument,
  DecisionDocument,
  DerivedDocument,
  LimitDocument,
  ParameterDocument,
  PlateDocument,
  RuleDocument,
  SampleDocument,
  SituationDocument,
  WalkthroughDocument,
  WithoutList,
} from '../documents/component-document';
import { pointer } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { editedAnatomy } from './anatomy-edits';
import { deriveAxes } from './derive-axes';
import { derivedBehaviour } from './derive-behaviour';
import { deriveRules, type DerivedRules } from './derive-rules';
import { narrowedUses } from './narrow-uses';
import type { Narrowing } from './narrowing';
import { entriesOf, listOf, member, membersOf, objectOf, originOf, traced, type Traced } from './origin';

export interface Derived {
  readonly component: Traced<ComponentDocument>;
  readonly rules: DerivedRules;
  /** What is wrong with what the derived component says of its base, at places of its own document. */
  readonly problems: readonly LocalProblem[];
}

/** Lists whose entries go by id: one of the base's replaces it in its place, others are added. */
type ById = 'situations' | 'samples' | 'plates' | 'limits' | 'content' | 'parameters' | 'walkthroughs';
type List = ById | 'axes' | 'rules' | 'decisions';

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
      narrowedUses(member(base, 'anatomy')!, narrowing),
      entriesOf(member(own, 'anatomyEdits')),
      problems,
    );
    const lost = lostParts(base.value, anatomy.value);
    const derivedRules = deriveRules(
      this.rulesInBase(),
      entriesOf(member(own, 'rules')),
      { narrowing, parts: lost, rules: new Set(this.without('rules')) },
      problems,
    );
    const { rules } = derivedRules;
    const situations = this.joined<SituationDocument>('situations', situation =>
      this.under(situation, narrowing, 'when'),
    );
    const limits = this.joined<LimitDocument>('limits', limit => this.limit(limit, narrowing));
    const samples = this.joined<SampleDocument>('samples', sample => sample);
    const there = new Set(samples.map(({ value }) => value.id));
    const plates = this.joined<PlateDocument>('plates', plate => this.plate(plate, narrowing, there));
    const lists = {
      axes: listOf<AxisDocument>(axes, member(base, 'axes'), originOf(own.origin, 'axes')),
      limits: this.list('limits', limits),
      rules: listOf<RuleDocument>(rules, member(base, 'rules'), originOf(own.origin, 'rules')),
      situations: this.list('situations', situations),
      samples: this.list('samples', samples),
      plates: this.list('plates', plates),
      content: this.list(
        'content',
        this.joined<ContentDocument>('content', each => each),
      ),
      parameters: this.list(
        'parameters',
        this.joined<ParameterDocument>('parameters', each => each),
      ),
      decisions: this.decisions(rules),
      walkthroughs: this.list(
        'walkthroughs',
        this.joined<WalkthroughDocument>('walkthroughs', each =>
          this.walkthrough(each, narrowing, there, lost),
        ),
      ),
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

  private list<Entry>(name: ById, entries: readonly Traced<Entry>[]): Traced<readonly Entry[]> {
    return listOf(entries, this.listIn<Entry>(this.base, name), originOf(this.own.origin, name));
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
  private joined<Entry extends { readonly id?: string }>(
    name: ById,
    narrowed: (entry: Traced<Entry>) => Traced<Entry> | null,
  ): Traced<Entry>[] {
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
      return id !== undefined && out.has(id) ? [] : (narrowed(entry) ?? []);
    });
    return [...kept, ...added];
  }

  /** An entry under a condition that may say less here. */
  private under<Entry extends object>(
    entry: Traced<Entry>,
    narrowing: Narrowing,
    key: keyof Entry,
  ): Traced<Entry> | null {
    const before = entry.value[key] as ConditionDocument;
    const condition = narrowing.condition(before);
    if (!condition) return null;
    return condition === before ? entry : traced({ ...entry.value, [key]: condition }, entry.origin);
  }

  private limit(limit: Traced<LimitDocument>, narrowing: Narrowing): Traced<LimitDocument> | null {
    const here = this.under(limit, narrowing, 'while');
    if (!here) return null;
    const holds = narrowing.holds(here.value.holds);
    if (holds) {
      if (holds === here.value.holds) return here;
      return Object.keys(holds).length === 0 ? null : traced({ ...here.value, holds }, here.origin);
    }
    const lost = Object.entries(here.value.holds).find(
      ([axis, values]) => !narrowing.holds({ [axis]: values }),
    )!;
    this.problems.error(
      this.placeOfAxis(lost[0]),
      'limit-without-values',
      `A limit of the base holds ${lost[0]} at ${[lost[1]].flat().join(' or ')}, of which nothing is left here.`,
    );
    return null;
  }

  /** Where a derived component says what becomes of an axis. */
  private placeOfAxis(axis: string): string {
    const changed = (this.own.value.axes ?? []).findIndex(({ id }) => id === axis);
    if (changed >= 0) return pointer('axes', changed);
    return pointer('without', 'axes', this.without('axes').indexOf(axis));
  }

  /** The values that a plate shows, as far as they are left; those of an axis of which none is left are all. */
  private valuesLeft(values: PlateDocument['values'], narrowing: Narrowing): PlateDocument['values'] {
    if (!values) return values;
    const out = new Set(this.without('situations'));
    const isLeft = (axis: string, value: string): boolean =>
      axis === 'situation' ? !out.has(value) : !narrowing.isHeld(axis) && narrowing.has(axis, value);
    const entries = Object.entries(values);
    const left = entries.map(([axis, ids]) => [axis, ids.filter(value => isLeft(axis, value))] as const);
    const isSame = left.every(([axis, ids]) => ids.length === values[axis]!.length);
    return isSame ? values : Object.fromEntries(left.filter(([, ids]) => ids.length > 0));
  }

  private plate(
    plate: Traced<PlateDocument>,
    narrowing: Narrowing,
    samples: ReadonlySet<string>,
  ): Traced<PlateDocument> {
    const { value } = plate;
    const left = (axes: readonly string[]): readonly string[] =>
      axes.some(axis => narrowing.isHeld(axis)) ? axes.filter(axis => !narrowing.isHeld(axis)) : axes;
    const held = Object.entries(value.hold ?? {});
    const hold = held.filter(([axis, at]) => !narrowing.isHeld(axis) && narrowing.has(axis, at));
    const values = this.valuesLeft(value.values, narrowing);
    const across = left(value.across);
    const down = left(value.down);
    const losesSample =
      value.sample !== undefined &&
      this.without('samples').includes(value.sample) &&
      !samples.has(value.sample);
    if (
      across === value.across &&
      down === value.down &&
      hold.length === held.length &&
      values === value.values &&
      !losesSample
    )
      return plate;
    const { sample, hold: _, values: __, ...rest } = value;
    return traced(
      {
        ...rest,
        across,
        down,
        ...(value.hold === undefined ? {} : { hold: Object.fromEntries(hold) }),
        ...(values === undefined ? {} : { values }),
        ...(losesSample || sample === undefined ? {} : { sample }),
      },
      plate.origin,
    );
  }

  /** A walkthrough of the base, as far as what it is played with is there; one that acts on a part that is gone goes. */
  private walkthrough(
    walkthrough: Traced<WalkthroughDocument>,
    narrowing: Narrowing,
    samples: ReadonlySet<string>,
    lost: ReadonlySet<string>,
  ): Traced<WalkthroughDocument> | null {
    const { value, origin } = walkthrough;
    const isGone = (text: string): boolean => lost.has(ACTED_ON.exec(text)?.[1] ?? '');
    if (value.acts.some(isGone)) return null;
    const set = Object.entries(value.set ?? {});
    const left = set.filter(([axis, at]) => !narrowing.isHeld(axis) && narrowing.has(axis, at));
    const losesSample = value.sample !== undefined && !samples.has(value.sample);
    if (left.length === set.length && !losesSample) return walkthrough;
    const { sample: _, ...rest } = value;
    const next = losesSample ? rest : value;
    return traced(left.length === set.length ? next : { ...next, set: Object.fromEntries(left) }, origin);
  }

  /** Decisions of the base about rules that are still there, and its own. */
  private decisions(rules: readonly Traced<RuleDocument>[]) {
    const ids = new Set(rules.map(({ value }) => value.id));
    const kept = this.inBase<DecisionDocument>('decisions').filter(({ value }) =>
      value.rules.every(id => ids.has(id)),
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

/** The part, or that around it, which an act of a walkthrough is done to. */
const ACTED_ON = /^(?:point|press|hold) ([^\s:/]+)/;

const NO_IDS: ReadonlySet<string | undefined> = new Set();
const EMPTY = traced({}, { file: '', pointer: '' });

function lostParts(base: ComponentDocument, anatomy: ComponentDocument['anatomy']): ReadonlySet<string> {
  if (base.anatomy === anatomy) return new Set();
  const left = new Set(partNames(anatomy));
  return new Set(partNames(base.anatomy).filter(name => !left.has(name)));
}

const partNames = ({ part, children = [] }: ComponentDocument['anatomy']): string[] => [
  part,
  ...children.flatMap(partNames),
];
