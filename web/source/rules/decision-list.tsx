import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import { conditionWords } from '@periwinkle/core/space/condition';
import { withoutDecisionPatch } from '@periwinkle/core/edits/decide-contest';
import { useStore, useSystemPart } from '../data/system-context';

/** Decisions that the order of two rules is meant, each with its reason. */
export function DecisionList({ component }: { component: Component }) {
  const store = useStore();
  const edited = useSystemPart('edited');
  const words = (id: string): string => {
    const rule = component.rules.find(each => each.id === id);
    return rule ? conditionWords(rule.region, component.space.axes) : id;
  };
  const takeBack = (index: number, later: string): void =>
    store.edit(
      edited.fileOf.get(component.id)!,
      withoutDecisionPatch(component, index),
      `${component.title}: decision on ${later} taken back`,
    );
  return (
    <ul className="decisions">
      {component.decisions.map(({ index, earlier, later, properties, because }) => (
        <li key={index}>
          <span>
            <b>{words(later)}</b> after <b>{words(earlier)}</b>
            {properties ? <code> {properties.join(', ')}</code> : null}: {because}
          </span>
          {withoutDecisionPatch(component, index).length > 0 ? (
            <button type="button" className="act" onClick={() => takeBack(index, later)}>
              take it back
            </button>
          ) : (
            <small>decided in {componentNamed(edited, component.derivation!.own.extends)!.title}</small>
          )}
        </li>
      ))}
    </ul>
  );
}
