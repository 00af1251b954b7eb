import type { Component } from '@periwinkle/core/components/component';
import { removeEntry, type EntryList } from '@periwinkle/core/edits/entry-edits';
import { ConsideredAct } from './considered-act';

/** What can be done with an entry of a list as a whole: put elsewhere, where the order means something, and taken out. */
export function EntryActs({
  component,
  list,
  index,
  name,
  onMove,
  onGone,
}: {
  component: Component;
  list: EntryList;
  index: number;
  /** As readers and the history call it. */
  name: string;
  onMove?: (by: number) => void;
  onGone: () => void;
}) {
  return (
    <div className="acts">
      {onMove ? (
        <>
          <button type="button" className="act" onClick={() => onMove(-1)}>
            up
          </button>
          <button type="button" className="act" onClick={() => onMove(1)}>
            down
          </button>
        </>
      ) : null}
      <ConsideredAct
        words="take it out"
        title={name}
        edit={removeEntry(component.id, list, index)}
        label={`${component.title}: ${name} taken out`}
        about={component.id}
        onDone={onGone}
      />
    </div>
  );
}
