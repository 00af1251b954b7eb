import type { Component } from '@periwinkle/core/components/component';
import { addEntry } from '@periwinkle/core/edits/entry-edits';
import type { WalkthroughDocument } from '@periwinkle/core/documents/behaviour-document';
import { AddByName } from '../making/add-by-name';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What was done to a field is kept under a title, as a walkthrough of it. */
export function KeepWalkthrough({
  component,
  walkthrough,
  onKept,
}: {
  component: Component;
  walkthrough: () => Omit<WalkthroughDocument, 'id' | 'title'>;
  onKept: (id: string, title: string) => void;
}) {
  const restructure = useRestructure();
  const keep = (title: string): string | null => {
    const known = component.document.walkthroughs ?? [];
    const id = idFor(title, each => known.some(one => one.id === each));
    const reason = restructure(
      addEntry(component.id, 'walkthroughs', { id, title, ...walkthrough() }),
      `${component.title}: walkthrough ${title}`,
    );
    if (reason === null) onKept(id, title);
    return reason;
  };
  return <AddByName words="keep as a walkthrough" placeholder="A mistake, mended" onAdd={keep} />;
}
