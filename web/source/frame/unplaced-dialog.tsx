import { useState } from 'react';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { writeJson } from '@periwinkle/core/json/json-text';
import { relocated } from '@periwinkle/core/patch/relocate';
import { Choice } from '../common/choice';
import { Dialog } from '../common/dialog';
import { useStore, useSystemPart } from '../data/system-context';
import type { Unplaced } from '../synchronisation/unplaced';
import { EditContent, titleOf } from './edit-content';

/** What could not be placed: each with why and what it says, to be copied, placed after all or elsewhere, or put away. */
export function UnplacedDialog({ onClose }: { onClose: () => void }) {
  const all = useSystemPart('unplaced');
  return (
    <Dialog title="Not placed" isWide isScrolled onClose={onClose}>
      {all.length === 0 ? (
        <p className="said">Nothing. What you do and cannot be stored is kept here.</p>
      ) : (
        <ul className="unplaced-list">
          {all.map(each => (
            <Entry key={each.edit.key} unplaced={each} />
          ))}
        </ul>
      )}
    </Dialog>
  );
}

function Entry({ unplaced }: { unplaced: Unplaced }) {
  const store = useStore();
  const { documents } = useSystemPart('edited');
  const [said, setSaid] = useState<string | null>(null);
  const { edit, reason } = unplaced;
  const place = (path?: string): void => {
    if (!store.place(unplaced, path)) setSaid('It does not fit there: what it changes is not there.');
  };
  const copy = (): void => {
    const text = writeJson(edit.parts.map(({ path, patch }) => ({ path, patch })));
    navigator.clipboard.writeText(text).then(
      () => setSaid('Copied.'),
      () => setSaid('This browser does not let it be copied.'),
    );
  };
  const [only] = edit.parts;
  const others = edit.parts.length === 1 && only ? othersOf(documents, only.path, only.patch) : [];
  return (
    <li>
      <h3>{edit.label}</h3>
      <p className="said">{reason}</p>
      <EditContent parts={edit.parts} />
      <div className="acts">
        <button
          type="button"
          className="act"
          aria-label={`place again: ${edit.label}`}
          onClick={() => place()}
        >
          place again
        </button>
        {others.length > 0 ? (
          <Choice
            label={`place elsewhere: ${edit.label}`}
            value=""
            items={others.map(path => ({ id: path, words: titleOf(documents.get(path), path) }))}
            onChoose={place}
            className="act"
          >
            place in …
          </Choice>
        ) : null}
        <button type="button" className="act" aria-label={`copy: ${edit.label}`} onClick={copy}>
          copy
        </button>
        <button
          type="button"
          className="act"
          aria-label={`put away: ${edit.label}`}
          onClick={() => store.forget(unplaced)}
        >
          put away
        </button>
        <span role="status">{said}</span>
      </div>
    </li>
  );
}

/** Other documents of the same kind in which an edit fits. */
function othersOf(
  documents: ReadonlyMap<string, unknown>,
  path: string,
  patch: Unplaced['edit']['parts'][number]['patch'],
): string[] {
  const kind = documentKind(path);
  return [...documents.keys()].filter(
    other => other !== path && documentKind(other) === kind && relocated(documents.get(other), patch).ok,
  );
}
