import type {
  AxisDocument,
  ComponentDocument,
  DerivedDocument,
  RuleDocument,
} from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import { holdsIn } from './naive';
import { valuesOf } from './random-component';

/**
 * What a derived component stands for, from the model's words alone: conditions are asked of one value after the other, as
 * the base would hold them, and written as exact lists.
 */
export function plainDerived(base: ComponentDocument, own: DerivedDocument): ComponentDocument {
  const axes = axesOf(base, own);
  const restOf = (axis: AxisDocument): string => axis.default ?? valuesOf(axis)[0]!;
  const gone = new Set(own.without?.axes ?? []);

  /** Per axis the values with which a condition of the base holds; `null` where it can hold with none. */
  const exact = (condition: ConditionDocument): ConditionDocument | null => {
    const found: Record<string, string[]> = {};
    for (const [axis, wanted] of Object.entries(condition)) {
      const holds = (value: string): boolean => holdsIn({ [axis]: wanted }, { [axis]: value });
      if (gone.has(axis)) {
        if (!holds(restOf(base.axes!.find(each => each.id === axis)!))) return null;
        continue;
      }
      found[axis] = valuesOf(axes.find(each => each.id === axis)!).filter(holds);
      if (found[axis].length === 0) return null;
    }
    return found;
  };

  const limits = (base.limits ?? []).flatMap(limit => {
    const condition = exact(limit.while);
    const holds: Record<string, string[]> = {};
    for (const [axis, allowed] of Object.entries(limit.holds)) {
      if (gone.has(axis)) continue;
      const left = [allowed]
        .flat()
        .filter(value => valuesOf(axes.find(each => each.id === axis)!).includes(value));
      holds[axis] = left;
    }
    const isIdle = Object.keys(holds).length === 0 && Object.keys(limit.holds).length > 0;
    return condition && !isIdle ? [{ ...limit, while: condition, holds }] : [];
  });

  const lost = (own.anatomyEdits ?? []).flatMap(({ remove }) => remove ?? []);
  const overlays = new Map((own.rules ?? []).flatMap(rule => (rule.when ? [] : [[rule.id, rule] as const])));
  const kept = (base.rules ?? []).flatMap((rule): RuleDocument[] => {
    const when = exact(rule.when);
    if (!when || own.without?.rules?.includes(rule.id)) return [];
    const set = structuredClone(rule.set) as Record<string, Record<string, string>>;
    lost.forEach(part => delete set[part]);
    for (const properties of Object.values(set))
      for (const property of Object.keys(properties))
        for (const part of lost)
          properties[property] = properties[property]!.replaceAll(
            new RegExp(`@${part}\\.[\\w-]+`, 'g'),
            '0px',
          );
    for (const [part, properties] of Object.entries(overlays.get(rule.id)?.set ?? {})) {
      const here = (set[part] ??= {});
      for (const [property, text] of Object.entries(properties)) {
        if (text === null) delete here[property];
        else here[property] = text;
      }
      if (Object.keys(here).length === 0) delete set[part];
    }
    return [{ ...rule, when, set }];
  });
  const rules = [...kept];
  for (const rule of own.rules ?? []) {
    if (!rule.when) continue;
    const { after, ...rest } = rule as RuleDocument;
    let place = rules.length;
    // What is behind a nested rule is put there when the parts are flattened.
    if (after !== undefined && !after.includes('/')) {
      place = rules.findIndex(({ id }) => id === after) + 1;
      // Several that name the same rule keep their order.
      while (rules[place]?.after === after) place++;
    }
    rules.splice(place, 0, { ...rest, ...(after === undefined ? {} : { after }) });
  }
  return {
    ...base,
    id: own.id,
    axes,
    limits,
    // Others may stand behind a rule of which nothing is left.
    rules: rules
      .filter(({ set }) => Object.keys(set).length > 0)
      .map(({ after, ...rule }) => (after?.includes('/') ? { ...rule, after } : rule)),
  };
}

function axesOf(base: ComponentDocument, own: DerivedDocument): AxisDocument[] {
  const changes = new Map((own.axes ?? []).map(axis => [axis.id, axis]));
  const kept = (base.axes ?? []).flatMap(axis => {
    if (own.without?.axes?.includes(axis.id)) return [];
    const change = changes.get(axis.id);
    if (!change) return axis;
    return {
      ...axis,
      default: axis.kind === 'option' ? (axis.default ?? valuesOf(axis)[0]!) : axis.default,
      ...change,
    } as AxisDocument;
  });
  const added = (own.axes ?? []).filter(({ id }) => !(base.axes ?? []).some(axis => axis.id === id));
  return [...kept, ...(added as AxisDocument[])];
}
