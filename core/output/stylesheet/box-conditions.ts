import { ALWAYS, type Condition, type ConditionScope } from './condition';
import type { Component } from '../../components/component';
import type { WantedBox } from '../../space/readable-cover';
import { all, any, TRUE, type Formula } from './formula';
import type { ComponentNames } from '../../render/names';
import type { SelectorScheme } from './selector-scheme';

/** Makes conditions for unions of boxes; a test that is asked for again is made once. */
export function boxConditions(
  scheme: SelectorScheme,
  component: Component,
  names: ComponentNames,
): (boxes: readonly WantedBox[]) => Condition {
  const { everyAxis, axes, extents } = component.space;
  const made = everyAxis.map(() => new Map<string, Formula>());
  const axisFormula = (index: number, must: number, may: number): Formula => {
    if (may === extents.full[index]) return TRUE;
    const key = `${must} ${may}`;
    let formula = made[index]!.get(key);
    if (!formula)
      made[index]!.set(key, (formula = scheme.axis(everyAxis[index]!, { must, may }, component, names)));
    return formula;
  };
  const scopeOf = ({ must, may }: WantedBox): ConditionScope => {
    const inner = new Map<string, Formula>();
    for (let index = axes.length; index < must.length; index++) {
      const formula = axisFormula(index, must[index]!, may[index]!);
      const { id } = everyAxis[index]!;
      const part = id.slice(0, id.lastIndexOf('/'));
      if (formula.kind !== 'true') inner.set(part, all(inner.get(part) ?? TRUE, formula));
    }
    return {
      root: all(...axes.map((_, index) => axisFormula(index, must[index]!, may[index]!))),
      inner: [...inner].sort(([a], [b]) => a.length - b.length),
    };
  };
  return boxes => {
    const scopes = boxes.map(scopeOf);
    const own = any(...scopes.filter(({ inner }) => inner.length === 0).map(({ root }) => root));
    if (own.kind === 'true') return ALWAYS;
    const others = scopes.filter(({ inner }) => inner.length > 0);
    return own.kind === 'false' && others.length > 0 ? others : [{ root: own, inner: [] }, ...others];
  };
}
