import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { Problem } from '@periwinkle/core/json/problem';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Menu, MenuItem } from '../common/menu';
import { counted, countText } from '../common/numbers';
import { useCarried } from '../data/address';
import { useStore } from '../data/system-context';
import type { ComponentDialogName } from '../making/component-dialogs';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';

interface LineProps {
  readonly system: System;
  readonly component: Component;
  readonly contexts: ContextInput;
  /** `null` while they are looked for. */
  readonly findings: readonly Problem[] | null;
  readonly onFindings: () => void;
  readonly onAct: (name: ComponentDialogName) => void;
  /** One place up or down in the reader's order. */
  readonly onStep: (by: -1 | 1) => void;
}

/** A component on the contents page: what it is, how it looks at rest, what it holds, and what can be done with it. */
export function FieldLine({ system, component, contexts, findings, onFindings, onAct, onStep }: LineProps) {
  const { id } = useStore();
  const carried = useCarried();
  const base = component.derivation && componentNamed(system, component.derivation.own.extends);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: component.id, attributes: { roleDescription: 'line that can be moved' } });
  return (
    <div
      ref={setNodeRef}
      className={isDragging ? 'line carried' : 'line'}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <div className="what">
        <button
          type="button"
          ref={setActivatorNodeRef}
          className="grip"
          {...attributes}
          {...listeners}
          aria-label={`Move ${component.title}`}
          title="Drag, or press Space and use the arrow keys"
        >
          <Grip />
        </button>
        <Link to={`/${id}/${component.id}${carried}`}>{component.title}</Link>
        <LineMenu component={component} onAct={onAct} onStep={onStep} />
        <p>
          {component.summary}
          {base ? <i> Derived from {base.title}.</i> : null}
        </p>
      </div>
      <PreviewSurface system={system} contexts={contexts} className="ground">
        <FieldAtRest system={system} component={component} wants={component.situations[0]?.when} />
      </PreviewSurface>
      <div className="counts">
        {countText(component.space.count())}
        <br />
        {findings === null ? (
          <span aria-busy="true">…</span>
        ) : findings.length === 0 ? (
          <span className="holds">holds</span>
        ) : (
          <button
            type="button"
            className="act fails"
            aria-label={`${counted(findings.length, 'finding')} of ${component.title}`}
            onClick={onFindings}
          >
            {counted(findings.length, 'finding')}
          </button>
        )}
      </div>
    </div>
  );
}

/** Six dots to take hold of. */
function Grip() {
  return (
    <svg width="8" height="13" viewBox="0 0 8 13" aria-hidden="true" fill="currentColor">
      {[1.5, 6.5].flatMap(x => [1.5, 6.5, 11.5].map(y => <circle key={`${x} ${y}`} cx={x} cy={y} r="1.1" />))}
    </svg>
  );
}

const ACTS: readonly { readonly name: ComponentDialogName; readonly words: string }[] = [
  { name: 'rename', words: 'rename, say what it is for' },
  { name: 'derive', words: 'derive another from it' },
  { name: 'copy', words: 'duplicate' },
  { name: 'remove', words: 'remove' },
];

function LineMenu({ component, onAct, onStep }: Pick<LineProps, 'component' | 'onAct' | 'onStep'>) {
  return (
    <span className="line-menu">
      <Menu label={`change ${component.title}`} words="change" className="act">
        {ACTS.map(({ name, words }) => (
          <MenuItem key={name} onClick={() => onAct(name)}>
            {words}
          </MenuItem>
        ))}
        <MenuItem onClick={() => onStep(-1)}>one place up</MenuItem>
        <MenuItem onClick={() => onStep(1)}>one place down</MenuItem>
      </Menu>
    </span>
  );
}
