import type { ConditionDocument } from '../../documents/condition-document';
import { isObject, pointer } from '../../json/json';
import { brief, oneOf, type ProblemList } from '../../json/problem';
import { nearest } from '../../text/suggestions';
import type { Axis } from '../../space/axis';
import type { Box } from '../../space/box';
import { readCondition } from '../../space/condition';
import type { Use } from './uses';

/** How an axis of a nested component follows its parent: the first case that holds counts. Over the parent's own axes. */
export interface Binding {
  readonly cases: readonly { readonly region: Box; readonly value: number }[];
  /** The value where no case holds. */
  readonly otherwise: number;
}

/** What is bound of a nested component, by axis id. What cannot be read is reported, and stands at default or rest. */
export function readBindings(
  use: Use,
  nested: readonly Axis[],
  parent: readonly Axis[],
  problems: ProblemList,
): ReadonlyMap<string, Binding> {
  const bindings = new Map<string, Binding>();
  for (const [id, written] of Object.entries(use.document.with ?? {})) {
    const at = `${use.pointer}/with${pointer(id)}`;
    const axis = nested.find(each => each.id === id);
    if (!axis) {
      const ids = nested.map(each => each.id);
      problems.error(
        at,
        'unknown-axis',
        `“${use.component}” has no axis “${brief(id)}” to bind; it has ${oneOf(ids, 12)}.`,
        nearest(id, ids),
        id,
      );
      continue;
    }
    bindings.set(id, new BindingReader(axis, parent, problems).read(written, at));
  }
  return bindings;
}

class BindingReader {
  private readonly atRest: Binding;

  constructor(
    private readonly axis: Axis,
    private readonly parent: readonly Axis[],
    private readonly problems: ProblemList,
  ) {
    this.atRest = { cases: [], otherwise: axis.rest };
  }

  /** One of the forms: an axis' name, `axis` with `map`, `is`, or a list of cases. */
  read(written: unknown, at: string): Binding {
    if (typeof written === 'string') return this.same(written, at);
    if (Array.isArray(written)) return this.cases(written, at);
    if (isObject(written) && 'is' in written && Object.keys(written).length === 1)
      return { cases: [], otherwise: this.value(written['is'], `${at}/is`) ?? this.axis.rest };
    if (isObject(written) && typeof written['axis'] === 'string' && isObject(written['map']))
      return this.mapped(written['axis'], written['map'], at);
    this.problems.error(
      at,
      'wrong-shape',
      'A binding is the name of an axis here, { "axis", "map" }, { "is" }, or a list of { "when", "is" }.',
    );
    return this.atRest;
  }

  private same(id: string, at: string): Binding {
    const place = this.parentAxis(id, at);
    if (place === null) return this.atRest;
    const cases = this.parent[place]!.values.flatMap((each, index) => {
      const value = this.axis.indexOf.get(each.id);
      if (value === undefined) {
        const ids = [...this.axis.indexOf.keys()];
        this.problems.error(
          at,
          'unmatched-value',
          `“${each.id}” of ${id} is no value of ${this.axis.id}; there is ${oneOf(ids, 12)}. Say with a map what it becomes.`,
        );
        return [];
      }
      return [{ region: this.only(place, 1 << index), value }];
    });
    return { cases, otherwise: this.axis.rest };
  }

  /** A key on a ladder means "at least"; the highest reached counts. */
  private mapped(id: string, map: Readonly<Record<string, unknown>>, at: string): Binding {
    const place = this.parentAxis(id, `${at}/axis`);
    if (place === null) return this.atRest;
    const from = this.parent[place]!;
    const byKey = new Map<number, number>();
    for (const [key, written] of Object.entries(map)) {
      const here = `${at}/map${pointer(key)}`;
      const index = from.indexOf.get(key);
      const value = this.value(written, here);
      if (index === undefined) this.unknown(key, from, here);
      else if (value !== null) byKey.set(index, value);
    }
    if (byKey.size === Object.keys(map).length) this.forgotten(from, byKey, `${at}/map`);
    const keys = [...byKey.keys()].sort((a, b) => a - b);
    const cases = from.values.flatMap((_, index) => {
      const key = from.ladder ? keys.findLast(each => each <= index) : index;
      const value = key === undefined ? undefined : byKey.get(key);
      return value === undefined ? [] : [{ region: this.only(place, 1 << index), value }];
    });
    return { cases, otherwise: this.axis.rest };
  }

  /**
   * A few values of an option that are named are what departs from the nested default; most of them, and another forgotten, is
   * hardly meant.
   */
  private forgotten(from: Axis, named: ReadonlyMap<number, number>, at: string): void {
    if (from.kind !== 'option' || named.size * 2 <= from.values.length) return;
    for (const [index, { id }] of from.values.entries()) {
      if (named.has(index) || index === from.rest) continue;
      const otherwise = this.axis.values[this.axis.rest]!.id;
      this.problems.warning(
        at,
        'unmapped-value',
        `This map forgets “${id}” of ${from.id}, which becomes ${otherwise} like all that a map does not name.`,
        `"${id}": "${otherwise}"`,
        id,
      );
    }
  }

  private cases(list: readonly unknown[], at: string): Binding {
    const cases = list.flatMap((each, index) => {
      const here = `${at}/${index}`;
      if (!isObject(each) || !isCondition(each['when']) || !('is' in each)) {
        this.problems.error(here, 'wrong-shape', 'A case is { "when": condition, "is": value }.');
        return [];
      }
      const region = readCondition(each['when'], this.parent, `${here}/when`, this.problems);
      const value = this.value(each['is'], `${here}/is`);
      return region && value !== null ? [{ region, value }] : [];
    });
    return { cases, otherwise: this.axis.rest };
  }

  private only(place: number, mask: number): Box {
    return this.parent.map((axis, index) => (index === place ? mask : 2 ** axis.values.length - 1));
  }

  private parentAxis(id: string, at: string): number | null {
    const place = this.parent.findIndex(each => each.id === id);
    if (place >= 0) return place;
    const ids = this.parent.map(each => each.id);
    this.problems.error(
      at,
      'unknown-axis',
      `There is no axis “${brief(id)}” here that “${this.axis.id}” could follow; there is ${oneOf(ids, 12)}.`,
      nearest(id, ids),
      id,
    );
    return null;
  }

  private value(written: unknown, at: string): number | null {
    const value = typeof written === 'string' ? this.axis.indexOf.get(written) : undefined;
    if (value !== undefined) return value;
    this.unknown(written, this.axis, at);
    return null;
  }

  private unknown(written: unknown, axis: Axis, at: string): void {
    const ids = [...axis.indexOf.keys()];
    this.problems.error(
      at,
      'unknown-value',
      `“${brief(written)}” is no value of ${axis.id}; there is ${oneOf(ids, 12)}.`,
      nearest(written, ids),
      brief(written),
    );
  }
}

const isCondition = (written: unknown): written is ConditionDocument =>
  isObject(written) &&
  Object.values(written).every(
    wanted =>
      typeof wanted === 'string' || (Array.isArray(wanted) && wanted.every(each => typeof each === 'string')),
  );
