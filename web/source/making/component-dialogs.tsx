import { useMemo, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import {
  dependentsOf,
  deriveFrom,
  duplicateComponent,
  removeComponent,
  renameComponent,
  wordComponent,
} from '@periwinkle/core/edits/component-edits';
import { inTurn, type StructuralEdit } from '@periwinkle/core/edits/restructure';
import { FormDialog } from '../common/dialog';
import { useDialogAddress, type DialogAddress } from '../data/dialog-address';
import { useCarried } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { idOf, isReserved, NameFields, type NewName } from './name-fields';
import { TouchedList } from './touched-list';
import { useAttempt, useRestructure } from './use-restructure';

const NAMES = ['rename', 'derive', 'copy', 'remove'] as const;
export type ComponentDialogName = (typeof NAMES)[number];

export const useComponentDialogs = (): DialogAddress<ComponentDialogName> => useDialogAddress(NAMES);

/** What can be done with a whole component, each said before it is done. */
export function ComponentDialogs({ dialogs }: { dialogs: DialogAddress<ComponentDialogName> }) {
  const system = useSystemPart('edited');
  const component = dialogs.open && componentNamed(system, dialogs.open.about);
  if (!dialogs.open || !component) return null;
  const Dialog = DIALOGS[dialogs.open.name];
  return <Dialog key={component.id} component={component} onClose={dialogs.close} />;
}

interface DialogProps {
  readonly component: Component;
  readonly onClose: () => void;
}

const DIALOGS: Readonly<Record<ComponentDialogName, (props: DialogProps) => ReactNode>> = {
  rename: RenameDialog,
  derive: props => <AnotherDialog {...props} way="derive" />,
  copy: props => <AnotherDialog {...props} way="copy" />,
  remove: RemoveDialog,
};

function RenameDialog({ component, onClose }: DialogProps) {
  const restructure = useRestructure();
  const [title, setTitle] = useState(component.title);
  const [id, setId] = useState(component.id);
  const [summary, setSummary] = useState(component.summary);
  const [group, setGroup] = useState(component.group.join('/'));
  const [fault, setFault] = useState<string | null>(null);
  const isRenamed = id !== component.id;
  const rename = useMemo(
    () => (isRenamed ? renameComponent(component.id, id) : null),
    [component, id, isRenamed],
  );
  const tried = useAttempt(rename);
  const save = (): void => {
    if (isReserved(id)) return setFault(`“${id}” is the address of a part of this book; choose another id.`);
    const words = {
      ...(title === component.title ? {} : { title }),
      ...(summary === component.summary ? {} : { summary }),
      ...(group === component.group.join('/') ? {} : { group }),
    };
    const edits: StructuralEdit[] = [
      ...(Object.keys(words).length > 0 ? [wordComponent(component.id, words)] : []),
      ...(rename ? [rename] : []),
    ];
    const reason = restructure(
      inTurn(...edits),
      `${component.title}: ${rename ? `now ${id}` : 'other words'}`,
    );
    if (reason === null) onClose();
    else setFault(reason);
  };
  return (
    <FormDialog
      title={`Rename ${component.title}`}
      act="Rename"
      isReady={tried === null || tried.ok}
      fault={fault}
      onAct={save}
      onClose={onClose}
    >
      <div className="name-fields">
        <label htmlFor="rename-title">title</label>
        <input
          id="rename-title"
          className="form-control"
          value={title}
          autoFocus
          onChange={event => setTitle(event.target.value)}
        />
        <label htmlFor="rename-id">id</label>
        <input
          id="rename-id"
          className="form-control mono"
          value={id}
          spellCheck={false}
          onChange={event => {
            setFault(null);
            setId(event.target.value.trim());
          }}
        />
        <label htmlFor="rename-group">group</label>
        <input
          id="rename-group"
          className="form-control"
          value={group}
          onChange={event => setGroup(event.target.value)}
        />
        <label htmlFor="rename-summary">for</label>
        <input
          id="rename-summary"
          className="form-control"
          value={summary}
          onChange={event => setSummary(event.target.value)}
        />
      </div>
      {isRenamed ? <TouchedList tried={tried} about={component.id} /> : null}
    </FormDialog>
  );
}

const WAYS = {
  derive: {
    title: 'Derive from',
    act: 'Derive',
    ending: ', derived',
    edit: deriveFrom,
    done: 'derived from',
  },
  copy: {
    title: 'Duplicate',
    act: 'Duplicate',
    ending: ', a copy',
    edit: duplicateComponent,
    done: 'copied from',
  },
} as const;

function AnotherDialog({ component, onClose, way }: DialogProps & { way: keyof typeof WAYS }) {
  const system = useSystemPart('edited');
  const { id: systemId } = useStore();
  const restructure = useRestructure();
  const navigate = useNavigate();
  const carried = useCarried();
  const { title, act, ending, edit, done } = WAYS[way];
  const [typed, setTyped] = useState<NewName>({ title: '', id: '', group: component.group.join('/') });
  const [fault, setFault] = useState<string | null>(null);
  const usual = component.title + ending;
  const name = { ...typed, title: typed.title.trim() || usual };
  const make = (): void => {
    const id = idOf(name, system);
    if (isReserved(id)) return setFault(`“${id}” is the address of a part of this book; choose another id.`);
    const whole = { id, title: name.title, ...(name.group ? { group: name.group } : {}) };
    const reason = restructure(edit(component.id, whole), `${name.title} ${done} ${component.title}`);
    if (reason !== null) return setFault(reason);
    void navigate(`/${systemId}/${id}${carried}`);
  };
  return (
    <FormDialog title={`${title} ${component.title}`} act={act} fault={fault} onAct={make} onClose={onClose}>
      <NameFields system={system} name={typed} usual={usual} onName={setTyped} />
    </FormDialog>
  );
}

function RemoveDialog({ component, onClose }: DialogProps) {
  const system = useSystemPart('edited');
  const restructure = useRestructure();
  const edit = useMemo(() => removeComponent(component.id), [component.id]);
  const tried = useAttempt(edit);
  const [fault, setFault] = useState<string | null>(null);
  const { derived, users } = dependentsOf(system, component.id);
  const remove = (): void => {
    const reason = restructure(edit, `${component.title} removed`);
    if (reason === null) onClose();
    else setFault(reason);
  };
  return (
    <FormDialog
      title={`Remove ${component.title}`}
      act="Remove"
      isReady={tried?.ok ?? false}
      fault={fault}
      onAct={remove}
      onClose={onClose}
    >
      {derived.length + users.length === 0 ? (
        <p>Nothing is derived from it, and no other field holds it.</p>
      ) : null}
      {derived.length > 0 ? (
        <p>
          Derived from it: <b>{derived.map(({ title }) => title).join(', ')}</b>. What they take of it is
          written out in them, so that they stay as they are.
        </p>
      ) : null}
      {users.map(({ component: user, parts }) => (
        <p key={user.id}>
          <b>{user.title}</b> holds it as <code>{parts.join(', ')}</code>: that goes, with all that is said of
          it.
        </p>
      ))}
      <TouchedList tried={tried} about={component.id} />
      <p className="said">It can be taken back.</p>
    </FormDialog>
  );
}
