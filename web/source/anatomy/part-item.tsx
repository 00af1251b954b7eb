import { useDraggable, useDroppable } from '@dnd-kit/core';
import { useCombinedRefs } from '@dnd-kit/utilities';
import type { RefObject } from 'react';
import { Link } from 'react-router';
import { useCarried } from '../data/address';
import { useStore } from '../data/system-context';
import type { AimedPlace } from './part-drag';
import type { PartLine } from './part-lines';

const SOURCES = { own: '', base: '', changed: 'departs from the base', added: 'added here' } as const;

/** One part in the list: chosen by a press, taken along by a drag. */
export function PartItem({
  line,
  isSelected,
  aimed,
  chosen,
  onSelect,
}: {
  line: PartLine;
  isSelected: boolean;
  /** Where beside it a dragged part would come to stand. */
  aimed: AimedPlace['side'] | null;
  /** Is given the button of the chosen one. */
  chosen: RefObject<HTMLButtonElement | null>;
  onSelect: (name: string) => void;
}) {
  const { id } = useStore();
  const carried = useCarried();
  const { name, number, part, uses, outer } = line;
  const drop = useDroppable({ id: name });
  const drag = useDraggable({ id: name, disabled: outer === null });
  const state = [isSelected ? 'chosen' : '', drag.isDragging ? 'carried' : '', aimed ? `aimed-${aimed}` : ''];
  return (
    <li
      ref={useCombinedRefs(drop.setNodeRef, drag.setNodeRef)}
      className={state.filter(Boolean).join(' ')}
      onPointerDown={event => drag.listeners?.['onPointerDown']?.(event)}
    >
      <span className="number">{number}</span>
      <button
        type="button"
        ref={isSelected ? chosen : undefined}
        className="part"
        style={{ paddingInlineStart: line.depth * 16 }}
        aria-pressed={isSelected}
        onClick={() => onSelect(name)}
      >
        <code>{name}</code>{' '}
        <span className="said">
          {uses === null ? kindWords(line) : 'uses'} {part.content ? <i>{part.content}</i> : null}
        </span>
      </button>
      <span className="note">
        {uses === null ? null : <Link to={`/${id}/${uses}/anatomy${carried}`}>{uses}</Link>}
        {line.isDrawn ? null : <span className="said">not there now</span>}
        {SOURCES[line.source] ? <span className="source">{SOURCES[line.source]}</span> : null}
      </span>
    </li>
  );
}

const kindWords = ({ part }: PartLine): string =>
  part.kind.kind === 'control' ? part.element : part.kind.kind;
