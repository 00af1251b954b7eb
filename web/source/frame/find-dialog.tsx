import { useMemo, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { useNavigate } from 'react-router';
import type { System } from '@periwinkle/core/components/system';
import { arrangementOf } from '@periwinkle/core/plates/plate-grid';
import { useCarried } from '../data/address';
import { useStore } from '../data/system-context';

interface Found {
  readonly words: string;
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
  const [chosen, setChosen] = useState(0);
  const all = useMemo(() => everything(system, id), [system, id]);
  const wanted = text.trim().toLowerCase();
  const found = all.filter(each => each.words.toLowerCase().includes(wanted)).slice(0, MOST);
  const go = (target: Found | undefined): void => {
    if (!target) return;
    onClose();
    const [path = '', query = ''] = target.to.split('?');
    const joined = [query, carried.slice(1)].filter(Boolean).join('&');
    void navigate(joined ? `${path}?${joined}` : path);
  };
  return (
    <Modal show onHide={onClose} animation={false} aria-label="Find">
      <Modal.Body>
        <input
          className="form-control"
          autoFocus
          role="combobox"
          aria-expanded="true"
          aria-controls="found"
          aria-activedescendant={found[chosen] ? `found-${chosen}` : undefined}
          aria-label="Find a field, a token or a situation"
          placeholder="A field, a token, a situation"
          value={text}
          onChange={event => {
            setText(event.target.value);
            setChosen(0);
          }}
          onKeyDown={event => {
            const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
            if (step !== undefined) {
              event.preventDefault();
              setChosen(Math.max(0, Math.min(found.length - 1, chosen + step)));
            }
            if (event.key === 'Enter') go(found[chosen]);
          }}
        />
        <ul
          className="completion"
          style={{ position: 'static', marginTop: 8, border: 0, maxHeight: 360 }}
          role="listbox"
          id="found"
          aria-label="Found"
        >
          {found.map((each, index) => (
            <li
              key={each.to + each.words}
              id={`found-${index}`}
              role="option"
              aria-selected={index === chosen}
              className={index === chosen ? 'chosen' : ''}
              onMouseDown={() => go(each)}
              onMouseMove={() => setChosen(index)}
            >
              {each.words}
              <span className="value">{each.kind}</span>
            </li>
          ))}
        </ul>
        {found.length === 0 ? <p className="said">Nothing here is called that.</p> : null}
      </Modal.Body>
    </Modal>
  );
}

function everything(system: System, id: string): Found[] {
  return [
    ...system.components.flatMap(component => [
      { words: component.title, kind: 'field', to: `/${id}/${component.id}` },
      { words: `${component.title} in the guide`, kind: 'page', to: `/${id}/guide/${component.id}` },
      ...component.situations.map(situation => ({
        words: `${situation.title}, ${component.title}`,
        kind: 'situation',
        to: `/${id}/${component.id}?${
          arrangementOf(component, null).down.includes('situation')
            ? `rows=${situation.id}&columns=*`
            : `rows=*&columns=${situation.id}`
        }`,
      })),
    ]),
    ...[...system.tokens.usual().byKey.values()].map(token => ({
      words: token.path,
      kind: token.type,
      to: `/${id}/tokens?token=${encodeURIComponent(token.key)}`,
    })),
  ];
}
