import { oneOf } from '@periwinkle/core/json/problem';
import type { ReportedDead } from '@periwinkle/core/cascade/questions/rules-report';
import type { Component } from '@periwinkle/core/components/component';
import { removeRulePatch, settingPatch } from '@periwinkle/core/edits/edit-rules';
import { useStore, useSystemPart } from '../data/system-context';

/** Rules and single properties of rules that never have the last word, with why, and a way to be rid of them. */
export function DeadList({ component, dead }: { component: Component; dead: readonly ReportedDead[] }) {
  const store = useStore();
  const edited = useSystemPart('edited');
  const path = edited.fileOf.get(component.id)!;
  const remove = ({ rule, property }: ReportedDead): void => {
    if (property === null) {
      store.edit(path, removeRulePatch(component, rule), `${component.title}: rule ${rule} removed`);
      return;
    }
    const [part, name] = property.split('.') as [string, string];
    const patch = settingPatch(component, { rule }, part, name, null);
    store.edit(path, patch, `${component.title}: ${part} ${name} taken out of ${rule}`);
  };
  return (
    <ul className="dead">
      {dead.map(each => (
        <li key={`${each.rule} ${each.property}`}>
          <span>
            <b>{each.words}</b>
            {each.property === null ? null : (
              <>
                {' '}
                sets <code>{each.property}</code>, which
              </>
            )}{' '}
            {reason(each)}
          </span>
          <small>{each.rule}</small>
          {isOwn(component, each) ? (
            <button type="button" className="act" onClick={() => remove(each)}>
              take it out
            </button>
          ) : (
            <span />
          )}
        </li>
      ))}
    </ul>
  );
}

function reason({ because, by, limits }: ReportedDead): string {
  const after = oneOf(by).replace(/ or (?=[^,]*$)/, ' and ');
  if (because === 'silent') return 'says nothing.';
  if (because === 'never') return `never occurs${limits.length > 0 ? `: ${limits.join(' ')}` : '.'}`;
  return `is always covered by ${after}.`;
}

/** A member of a composite cannot be taken out by itself. */
function isOwn(component: Component, { rule, property }: ReportedDead): boolean {
  if (property === null) return true;
  const [part, name] = property.split('.') as [string, string];
  const found = component.document.rules?.find(each => each.id === rule);
  return found?.set[part]?.[name] !== undefined;
}
