import type { System } from '../components/system';
import type { Component } from '../components/component';
import type {
  AxisChangeDocument,
  ComponentDocument,
  ContentDocument,
  DerivedDocument,
  OverlayDocument,
  PlateDocument,
  SampleDocument,
} from '../documents/component-document';
import { isObject } from '../json/json';
import { axisOfValues } from '../components/content/sample-text';
import { iconKeys } from '../components/icon-keys';
import { renamedInBehaviour, renamedInWalkthrough } from './rename-in-behaviour';
import { renamedInEdit, renamedInPart, type Anchors } from './rename-in-parts';
import {
  mapEntries,
  mapMembers,
  NameReader,
  withMember,
  type NameChange,
  type NameLookup,
} from './name-changes';

/** A component's document as it may be written, derived or not. */
export type WrittenComponent = Omit<DerivedDocument, 'extends'> &
  Partial<Pick<ComponentDocument, 'extends' | 'anatomy'>>;

export interface RenamedReferences {
  readonly document: WrittenComponent;
  /** What has gone because nothing is left for it to say. */
  readonly gone: readonly NameChange[];
}

/** A component's own document with everything that it names as that is called by now. The same object where it names nothing of it. */
export function withRenamedReferences(
  document: WrittenComponent,
  component: Component,
  names: NameLookup,
  anchors: Anchors,
  system: System,
): RenamedReferences {
  const following = new Following(component, names, anchors, system);
  return { document: following.document(document), gone: following.gone };
}

class Following {
  readonly gone: NameChange[] = [];
  private readonly reader: NameReader;
  private readonly drawings: ReadonlySet<string>;

  constructor(
    private readonly component: Component,
    names: NameLookup,
    private readonly anchors: Anchors,
    private readonly system: System,
  ) {
    this.reader = new NameReader(names, component);
    this.drawings = iconKeys(component);
  }

  document(written: WrittenComponent): WrittenComponent {
    const { reader, system } = this;
    let next = withMember(written, 'id', id => reader.now('component', id) ?? id);
    next = withMember(next, 'extends', id => reader.now('component', id) ?? id);
    next = withMember(next, 'anatomy', root => renamedInPart(root, reader, system) ?? root);
    next = withMember(next, 'anatomyEdits', edits =>
      mapEntries(edits, edit => renamedInEdit(edit, reader, this.anchors, system)),
    );
    next = withMember(next, 'axes', axes => mapEntries(axes, axis => this.axis(axis)));
    next = withMember(next, 'limits', limits =>
      mapEntries(limits, limit => {
        const [before, holds] = [reader.condition(limit.while), reader.holds(limit.holds)];
        if (!before || !holds || Object.keys(holds).length === 0) return this.lost('limit', limit.id);
        const id = limit.id === undefined ? null : reader.now('limit', limit.id);
        if (limit.id !== undefined && id === null) return null;
        const same = before === limit.while && holds === limit.holds && id === (limit.id ?? null);
        return same ? limit : { ...limit, ...(id === null ? {} : { id }), while: before, holds };
      }),
    );
    next = withMember(next, 'rules', rules => mapEntries(rules, rule => this.rule(rule)));
    next = withMember(next, 'situations', situations =>
      mapEntries(situations, situation => {
        const [id, when] = [reader.now('situation', situation.id), reader.condition(situation.when)];
        if (id === null) return null;
        if (when === null) return this.lost('situation', situation.id);
        return id === situation.id && when === situation.when ? situation : { ...situation, id, when };
      }),
    );
    next = withMember(next, 'samples', samples => mapEntries(samples, sample => this.sample(sample)));
    next = withMember(next, 'plates', plates => mapEntries(plates, plate => this.plate(plate)));
    next = withMember(next, 'content', content => this.contents(content));
    next = withMember(next, 'parameters', parameters =>
      mapEntries(parameters, parameter => {
        const id = reader.now('parameter', parameter.id);
        return id === null ? null : id === parameter.id ? parameter : { ...parameter, id };
      }),
    );
    next = withMember(next, 'decisions', decisions =>
      mapEntries(decisions, decision => {
        const rules = mapEntries(decision.rules, id => reader.rule(id));
        if (rules.length < 2) return null;
        const { properties } = decision;
        const left = properties && mapEntries(properties, slot => this.slot(slot));
        if (left?.length === 0) return null;
        if (rules === decision.rules && left === properties) return decision;
        return { ...decision, rules, ...(left ? { properties: left } : {}) };
      }),
    );
    next = withMember(next, 'behaviour', behaviour => renamedInBehaviour(behaviour, reader));
    next = withMember(next, 'walkthroughs', walkthroughs =>
      mapEntries(walkthroughs, each => renamedInWalkthrough(each, reader)),
    );
    return withMember(next, 'without', without => this.without(without));
  }

  private lost(kind: NameChange['kind'], name: string | undefined): null {
    if (name !== undefined) this.gone.push({ kind, name, to: null });
    return null;
  }

  private axis(axis: AxisChangeDocument): AxisChangeDocument | null {
    const { reader } = this;
    const id = reader.now('axis', axis.id);
    if (id === null) return null;
    let next = id === axis.id ? axis : { ...axis, id };
    next = withMember(next, 'values', values => {
      const left = mapEntries(values, value => {
        const now = reader.now('value', value.id, axis.id);
        return now === null ? null : now === value.id ? value : { ...value, id: now };
      });
      // Of a base's axis all that is left of that holds then.
      return left.length > 0 ? left : undefined;
    });
    return withMember(next, 'default', value => reader.now('value', value, axis.id) ?? undefined);
  }

  private rule(rule: OverlayDocument): OverlayDocument | null {
    const { reader } = this;
    const id = reader.now('rule', rule.id);
    if (id === null) return null;
    const when = rule.when && reader.condition(rule.when);
    if (when === null) return this.lost('rule', rule.id);
    const set =
      rule.set &&
      mapMembers(rule.set, (path, properties) => {
        const now = reader.path(path);
        if (now === null) return null;
        const left = mapMembers(properties!, (property, text) => {
          const value = text === null ? null : reader.value(text as string);
          return value === null && text !== null ? null : [property, value];
        });
        return Object.keys(left).length === 0 && Object.keys(properties!).length > 0 ? null : [now, left];
      });
    // What said something and has nothing left to say is gone.
    if (set && Object.keys(set).length === 0 && Object.keys(rule.set!).length > 0 && rule.note === undefined)
      // What lay over a base's rule leaves that as it was.
      return rule.when === undefined ? null : this.lost('rule', rule.id);
    const after = rule.after === undefined ? undefined : (reader.rule(rule.after) ?? this.ahead(rule.after));
    if (id === rule.id && when === rule.when && set === rule.set && after === rule.after) return rule;
    const { after: _, ...rest } = rule;
    return {
      ...rest,
      id,
      ...(when ? { when } : {}),
      ...(after === undefined ? {} : { after }),
      ...(set ? { set } : {}),
    };
  }

  /** The rule before one that is gone, as far as a base has it; none for one of a nested component. */
  private ahead(id: string): string | undefined {
    const ids = (this.component.document.rules ?? []).map(rule => rule.id);
    const before = ids.slice(0, Math.max(0, ids.indexOf(id))).reverse();
    return before.map(each => this.reader.rule(each)).find(each => each !== null) ?? undefined;
  }

  private sample(sample: SampleDocument): SampleDocument | null {
    const { reader } = this;
    const id = reader.now('sample', sample.id);
    if (id === null) return null;
    const content = mapMembers(sample.content, (key, text) => {
      const now = reader.now('content', key);
      if (now === null) return null;
      const drawn = this.drawings.has(key) ? this.drawing(text) : text;
      if (drawn === undefined) return null;
      const left = Array.isArray(drawn) ? this.entries(key, drawn) : this.text(drawn);
      return left === undefined ? null : [now, left];
    });
    return id === sample.id && content === sample.content ? sample : { ...sample, id, content };
  }

  /** A drawing by its name, or one for each value of an axis. */
  private drawing(given: SampleDocument['content'][string]): SampleDocument['content'][string] | undefined {
    if (typeof given === 'string') return this.reader.now('icon', given) ?? undefined;
    if (!isObject(given)) return given;
    const left = mapMembers(given, (value, name) => {
      const now = this.reader.now('icon', String(name));
      return now === null ? null : [value, now];
    });
    return Object.keys(left).length === 0 ? undefined : (left as SampleDocument['content'][string]);
  }

  /** A text for each value of an axis. */
  private text(text: SampleDocument['content'][string]): unknown {
    if (!isObject(text)) return text;
    const { axes } = this.component.space;
    const axis = axisOfValues(Object.keys(text), axes)?.id;
    if (axis === undefined) return text;
    const held = this.reader.narrowing?.heldAt(axis);
    if (held !== null && held !== undefined) return (text as Record<string, unknown>)[held];
    return mapMembers(text, (value, each) => {
      const now = this.reader.now('value', value, axis);
      return now === null ? null : [now, each];
    });
  }

  /** The entries of a list, each for a copy of the component that is repeated for them. */
  private entries(key: string, list: readonly unknown[]): readonly unknown[] {
    const nested = this.component.nested.find(({ repeat }) => repeat === key);
    const inside = nested && this.reader.about(nested.component);
    if (!inside) return list;
    const isTaken = (name: string): boolean => nested.content.has(name);
    return mapEntries(list, entry => {
      if (!isObject(entry)) return entry;
      return mapMembers(entry as Record<string, unknown>, (name, value) => {
        if (name === 'is' && isObject(value)) {
          const is = mapMembers(value as Record<string, unknown>, (axis, each) => {
            const [axisNow, now] = [inside.now('axis', axis), inside.now('value', String(each), axis)];
            return axisNow === null || now === null ? null : [axisNow, now];
          });
          return Object.keys(is).length === 0 ? null : [name, is];
        }
        const now = isTaken(name) ? name : inside.now('content', name);
        return now === null ? null : [now, value];
      });
    });
  }

  private plate(plate: PlateDocument): PlateDocument | null {
    const { reader } = this;
    const id = reader.now('plate', plate.id);
    if (id === null) return null;
    const axes = (list: readonly string[]): readonly string[] =>
      mapEntries(list, axis => (axis === 'situation' ? axis : reader.now('axis', axis)));
    let next = id === plate.id ? plate : { ...plate, id };
    next = withMember(next, 'across', axes);
    next = withMember(next, 'down', axes);
    next = withMember(next, 'hold', hold =>
      mapMembers(hold, (axis, value) => {
        const [axisNow, now] = [reader.now('axis', axis), reader.now('value', value!, axis)];
        return axisNow === null || now === null ? null : [axisNow, now];
      }),
    );
    next = withMember(next, 'values', values => {
      const left = mapMembers(values, (axis, ids) => {
        const axisNow = axis === 'situation' ? axis : reader.now('axis', axis);
        const now = mapEntries(ids!, id =>
          axis === 'situation' ? reader.now('situation', id) : reader.now('value', id, axis),
        );
        return axisNow === null || now.length === 0 ? null : [axisNow, now];
      });
      return Object.keys(left).length > 0 ? left : undefined;
    });
    return withMember(next, 'sample', sample => reader.now('sample', sample) ?? undefined);
  }

  private contents(content: readonly ContentDocument[]): readonly ContentDocument[] {
    return mapEntries(content, each => {
      const id = this.reader.now('content', each.id);
      return id === null ? null : id === each.id ? each : { ...each, id };
    });
  }

  private slot(slot: string): string | null {
    const at = slot.lastIndexOf('.');
    const part = this.reader.path(slot.slice(0, at));
    return part === null ? null : part + slot.slice(at);
  }

  private without(without: NonNullable<DerivedDocument['without']>): DerivedDocument['without'] {
    const kinds = {
      axes: 'axis',
      limits: 'limit',
      rules: 'rule',
      situations: 'situation',
      samples: 'sample',
      plates: 'plate',
      content: 'content',
      parameters: 'parameter',
      walkthroughs: 'walkthrough',
    } as const;
    const left = mapMembers(without, (list, ids) => {
      const kind = kinds[list as keyof typeof kinds];
      const now = mapEntries(ids!, id => this.reader.now(kind, id));
      return now.length === 0 && ids!.length > 0 ? null : [list, now];
    });
    return Object.keys(left).length === 0 && Object.keys(without).length > 0 ? undefined : left;
  }
}
