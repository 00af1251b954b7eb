import type { Component } from '@periwinkle/core/components/component';
import { addEntry, changeEntry, moveEntry, removeEntry } from '@periwinkle/core/edits/entry-edits';
import type { StructuralEdit } from '@periwinkle/core/edits/restructure';
import type { PlateDocument } from '@periwinkle/core/documents/component-document';
import { isSameJson } from '@periwinkle/core/json/json';
import { arrangementOf, type Arrangement } from '@periwinkle/core/cascade/plates/plate-grid';
import { Menu, MenuItem } from '../common/menu';
import { useStore } from '../data/system-context';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What can be done with the plate that is looked at: kept as it is arranged now, kept as another, moved, taken out. */
export function PlateActs({
  component,
  plateId,
  arrangement,
  onPlate,
}: {
  component: Component;
  plateId: string | null;
  arrangement: Arrangement;
  /** Goes to a plate; `null` to the first. */
  onPlate: (id: string | null) => void;
}) {
  const restructure = useRestructure();
  const store = useStore();
  const plates = component.document.plates ?? [];
  const index = Math.max(
    0,
    plates.findIndex(({ id }) => id === plateId),
  );
  const plate = plates[index];
  const isChanged =
    plate !== undefined && !isSameJson(asPlate(arrangement), asPlate(arrangementOf(component, plate.id)));
  const run = (edit: StructuralEdit, words: string): boolean => {
    const reason = restructure(edit, `${component.title}: ${words}`);
    if (reason !== null) store.say('error', reason);
    return reason === null;
  };
  const keepAs = (title: string): void => {
    const id = idFor(title, each => plates.some(other => other.id === each));
    const next: PlateDocument = { id, title, ...asPlate(arrangement) };
    if (run(addEntry(component.id, 'plates', next), `plate ${title} made`)) onPlate(id);
  };
  return (
    <Menu label="change plates" words={isChanged || !plate ? 'keep' : 'change'} className="act">
      {isChanged ? (
        <MenuItem
          onClick={() => {
            const { across: _, down: __, hold: ___, values: ____, sample: _____, ...words } = plate;
            if (
              run(
                changeEntry(component.id, 'plates', index, { ...words, ...asPlate(arrangement) }),
                `plate ${plate.title ?? plate.id} arranged anew`,
              )
            )
              onPlate(plate.id);
          }}
        >
          keep {plate.title ?? plate.id} as it is arranged now
        </MenuItem>
      ) : null}
      <MenuItem onClick={() => keepAs(freshTitle(component, plate))}>keep this as another plate</MenuItem>
      {plate ? (
        <>
          <MenuItem
            onClick={() =>
              run(moveEntry(component.id, 'plates', index, index - 1), `plate ${plate.id} earlier`)
            }
          >
            earlier among the plates
          </MenuItem>
          <MenuItem
            onClick={() =>
              run(moveEntry(component.id, 'plates', index, index + 1), `plate ${plate.id} later`)
            }
          >
            later among the plates
          </MenuItem>
          <MenuItem
            onClick={() => {
              if (
                run(removeEntry(component.id, 'plates', index), `plate ${plate.title ?? plate.id} taken out`)
              )
                onPlate(null);
            }}
          >
            take this plate out
          </MenuItem>
        </>
      ) : null}
    </Menu>
  );
}

/** An arrangement as a plate says it. */
function asPlate({ across, down, hold, values, sample }: Arrangement): Omit<PlateDocument, 'id'> {
  return {
    across,
    down,
    hold,
    ...(values && Object.keys(values).length > 0 ? { values } : {}),
    ...(sample === null ? {} : { sample }),
  };
}

const freshTitle = ({ plates }: Component, plate: PlateDocument | undefined): string =>
  plate ? `${plate.title ?? plate.id}, another` : `Plate ${plates.length + 1}`;
