import type { System } from '@periwinkle/core/components/system';
import { idFrom } from '../common/id-from';
import { Completion, fitting, type CompletionItem } from '../common/completion';

/** How something new is called, and where it stands. */
export interface NewName {
  readonly title: string;
  /** What was typed; empty as long as it follows the title. */
  readonly id: string;
  readonly group: string;
}

/** An id that says what a title says, and is not taken. */
export function idFor(title: string, taken: (id: string) => boolean): string {
  const plain = idFrom(title) || 'field';
  let id = plain;
  for (let number = 2; taken(id); number++) id = `${plain}-${number}`;
  return id;
}

/** The id of a new component: what was typed, else what follows from its title. */
export const idOf = ({ id, title }: NewName, { components }: System): string =>
  id || idFor(title, each => RESERVED.has(each) || components.some(component => component.id === each));

/** Addresses of the book's parts, which no component can have. */
const RESERVED = new Set([
  'tokens',
  'trials',
  'findings',
  'guide',
  'outputs',
  'releases',
  'lineup',
  'icons',
  'new',
]);
export const isReserved = (id: string): boolean => RESERVED.has(id);

/** Title, id and group of a component. */
export function NameFields({
  system,
  name,
  usual,
  onName,
}: {
  system: System;
  name: NewName;
  /** The title as long as none is typed. */
  usual: string;
  onName: (name: NewName) => void;
}) {
  const groups = [...new Set(system.components.map(({ group }) => group.join('/')).filter(Boolean))];
  const items: readonly CompletionItem[] = groups.map(text => ({ text, shown: text }));
  return (
    <div className="name-fields">
      <label htmlFor="new-field-title">title</label>
      <input
        id="new-field-title"
        className="form-control"
        value={name.title}
        placeholder={usual}
        maxLength={120}
        autoFocus
        onChange={event => onName({ ...name, title: event.target.value })}
      />
      <label htmlFor="new-field-id">id</label>
      <input
        id="new-field-id"
        className="form-control mono"
        value={name.id}
        placeholder={idOf({ ...name, title: name.title.trim() || usual }, system)}
        spellCheck={false}
        onChange={event => onName({ ...name, id: event.target.value.trim() })}
      />
      <span aria-hidden="true">group</span>
      <Completion
        label="group"
        text={name.group}
        items={fitting(items, name.group, 12)}
        onType={group => onName({ ...name, group })}
        onTake={item => item && onName({ ...name, group: item.text })}
        input={{ className: 'form-control', placeholder: 'Entry/Free text' }}
      />
    </div>
  );
}
