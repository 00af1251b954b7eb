import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { placeWords } from '@periwinkle/core/documents/edit-words';
import { pointerSteps } from '@periwinkle/core/json/json';
import type { Problem } from '@periwinkle/core/json/problem';
import { Dialog } from '../common/dialog';
import { useCarried } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';

/** What is found in a component, in sentences: where, what, and what was probably meant. */
export function FindingsDialog({
  component,
  findings,
  onClose,
}: {
  component: Component;
  findings: readonly Problem[];
  onClose: () => void;
}) {
  const { id } = useStore();
  const carried = useCarried();
  const { documents } = useSystemPart('system');
  return (
    <Dialog
      title={`Found in ${component.title}`}
      isWide
      isScrolled
      onClose={onClose}
      footer={
        <>
          <Link className="act" to={`/${id}/${component.id}/rules${carried}`}>
            to its rules
          </Link>
        </>
      }
    >
      <ul className="findings-list">
        {findings.map(({ file, pointer, code, message, suggestion }) => (
          <li key={`${file} ${pointer} ${code} ${message}`}>
            <small>{placeWords(documents.get(file), pointerSteps(pointer) ?? [])}</small>
            <p>
              {message}
              {suggestion === undefined ? null : (
                <>
                  {' '}
                  Probably meant: <code>{suggestion}</code>
                </>
              )}
            </p>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
