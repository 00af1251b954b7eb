import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { changeEntry, renameEntry } from '@periwinkle/core/edits/entry-edits';
import type { PlateDocument } from '@periwinkle/core/documents/component-document';
import { CommitField } from '../making/commit-field';
import { useRestructure } from '../making/use-restructure';

/** Number, title and caption of a plate, to be written where they stand. */
export function PlateCaption({
  component,
  place,
  onRenamed,
}: {
  component: Component;
  place: number;
  onRenamed: (id: string) => void;
}) {
  const restructure = useRestructure();
  const [isOpen, setOpen] = useState(false);
  const plate = component.document.plates?.[place];
  if (!plate) return <b>Plate {place + 1}.</b>;
  const change = (words: Partial<PlateDocument>): string | null =>
    restructure(
      changeEntry(component.id, 'plates', place, { ...plate, ...words }),
      `${component.title}: caption of ${plate.id}`,
    );
  if (!isOpen)
    return (
      <>
        <b>
          Plate {place + 1}
          {plate.title ? `. ${plate.title}` : ''}.
        </b>{' '}
        {plate.caption}{' '}
        <button type="button" className="act" aria-label="write the caption" onClick={() => setOpen(true)}>
          write
        </button>
      </>
    );
  return (
    <span className="caption-editor">
      <CommitField label="title" value={plate.title ?? ''} autoFocus onCommit={title => change({ title })} />
      <CommitField label="caption" value={plate.caption ?? ''} onCommit={caption => change({ caption })} />
      <CommitField
        label="id"
        mono
        value={plate.id}
        onCommit={id => {
          const reason = restructure(
            renameEntry(component.id, 'plates', plate.id, id),
            `${component.title}: plate ${plate.id} is now ${id}`,
          );
          if (reason === null) onRenamed(id);
          return reason;
        }}
      />
      <button type="button" className="act" onClick={() => setOpen(false)}>
        done
      </button>
    </span>
  );
}
