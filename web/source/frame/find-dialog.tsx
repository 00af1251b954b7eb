import { useMemo, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { useNavigate } from 'react-router';
import type { System } from '@periwinkle/core/components/system';
import { arrangementOf } from '@periwinkle/core/cascade/plates/plate-grid';
import { trialsOf } from '@periwinkle/core/trials/trials';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { SHEETS } from '../common/sheets';
import { useCarried } from '../data/address';
import { useStore } from '../data/system-context';

interface Found extends CompletionItem {
  readonly kind: string;
  readonly to: string;
}

const MOST = 40;

/** Finds a field, a token or a situation by a piece of its name. */
export function FindDialog({ system, onClose }: { system: System; onClose: () => void }) {
  const { id } = useStore();
  const navigate = useNavigate();
  const carried = useCarried();
  const [text, setText] = useState('');
  const all = useMemo(() => everything(system, id), [system, id]);
  const found = fitting(all, text, MOST);
  const go = (target: Found | null): void => {
    if (!target) return;
    onClose();
    const [path = '', query = ''] = target.to.split('?');
    const joined = [query, carried.slice(1)].filter(Boolean).join('&');
    void navigate(joined ? `${path}?${joined}` : path);
  };
  return (
    <Modal show onHide={onClose} animation={false} aria-label="Find">
      <Modal.Body>
        <Completion
          label="Find a field, a page, a token or a situation"
          text={text}
          items={found}
          onType={setText}
          onTake={go}
          onEscape={onClose}
          describe={({ kind }) => <span className="value">{kind}</span>}
          choosesFirst
          stays
          floats={false}
          input={{
            className: 'form-control',
            autoFocus: true,
            placeholder: 'A field, a page, a token, a situation',
          }}
        />
        {found.length === 0 ? <p className="said">Nothing here is called that.</p> : null}
      </Modal.Body>
    </Modal>
  );
}

/** Parts of the book that are no field's. */
const PAGES = [
  { title: 'Fields', path: '' },
  { title: 'New field', path: '/new' },
  { title: 'Lineup', path: '/lineup' },
  { title: 'Icons', path: '/icons' },
  { title: 'Tokens', path: '/tokens' },
  { title: 'Trials', path: '/trials' },
  { title: 'Guide', path: '/guide' },
  { title: 'Outputs', path: '/outputs' },
] as const;

function everything(system: System, id: string): Found[] {
  return [
    ...PAGES.map(({ title, path }) => found(title, 'page', `/${id}${path}`)),
    ...system.components.flatMap(component => [
      found(component.title, 'field', `/${id}/${component.id}`),
      ...SHEETS.slice(1).map(({ title, path }) =>
        found(`${title} of ${component.title}`, 'sheet', `/${id}/${component.id}${path}`),
      ),
      found(`${component.title} in the guide`, 'page', `/${id}/guide/${component.id}`),
      ...component.situations.map(situation => {
        const isRow = arrangementOf(component, null).down.includes('situation');
        const query = isRow ? `rows=${situation.id}&columns=*` : `rows=*&columns=${situation.id}`;
        return found(
          `${situation.title}, ${component.title}`,
          'situation',
          `/${id}/${component.id}?${query}`,
        );
      }),
    ]),
    ...trialsOf(system).map(trial => found(trial.title, 'trial', `/${id}/trials/${trial.id}`)),
    ...[...system.tokens.usual().byKey.values()].map(token =>
      found(token.path, token.type, `/${id}/tokens?token=${encodeURIComponent(token.key)}`),
    ),
  ];
}

const found = (shown: string, kind: string, to: string): Found => ({ text: to, shown, kind, to });
