import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import { isObject, isSameJson } from '@periwinkle/core/json/json';
import { FormDialog } from '../common/dialog';

type ListContent = Readonly<Record<string, unknown>>;

/** The entries of a list, in a table: what each shows, and in which states it is. */
export function EntriesDialog({
  title,
  component,
  contentKey,
  entries: given,
  onCommit,
  onClose,
}: {
  title: string;
  component: Component;
  contentKey: string;
  entries: readonly unknown[];
  onCommit: (entries: readonly ListContent[]) => string | null;
  onClose: () => void;
}) {
  const [entries, setEntries] = useState<readonly ListContent[]>(given.filter(isObject));
  const [fault, setFault] = useState<string | null>(null);
  const [begunOn, setBegunOn] = useState(given);
  const nested = component.nested.find(({ repeat }) => repeat === contentKey);
  const declared = component.document.content?.find(({ id }) => id === contentKey)?.entry ?? [];
  const keys = [
    ...new Set([
      ...declared.map(({ id }) => id),
      ...(nested ? contentKeys(nested.component).filter(key => !nested.content.has(key)) : []),
    ]),
  ];
  const free =
    nested?.component.space.axes.filter(axis => !Object.hasOwn(nested.use.document.with ?? {}, axis.id)) ??
    [];
  const change = (index: number, next: ListContent): void => setEntries(entries.with(index, next));
  const move = (index: number, by: number): void => {
    const to = index + by;
    if (to < 0 || to >= entries.length) return;
    setEntries(entries.toSpliced(index, 1).toSpliced(to, 0, entries[index]!));
  };
  const keep = (): void => {
    if (!isSameJson(given, begunOn)) {
      // Asked once; whoever keeps again means it.
      setBegunOn(given);
      return setFault(
        'The entries were changed elsewhere meanwhile. Keep once more to put yours in their place.',
      );
    }
    const reason = onCommit(entries);
    if (reason === null) onClose();
    else setFault(reason);
  };
  return (
    <FormDialog
      title={`Entries, ${title}`}
      act="Keep these"
      isWide
      fault={fault}
      onAct={keep}
      onClose={onClose}
    >
      <table className="entries">
        <thead>
          <tr>
            {keys.map(key => (
              <th key={key} scope="col">
                {key}
              </th>
            ))}
            {free.map(axis => (
              <th key={axis.id} scope="col">
                {axis.title.toLowerCase()}
              </th>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {entries.map((entry, index) => {
            const is = isObject(entry['is']) ? (entry['is'] as Readonly<Record<string, string>>) : {};
            return (
              <tr key={index}>
                {keys.map(key => (
                  <td key={key}>
                    <input
                      className="form-control form-control-sm"
                      aria-label={`${key}, entry ${index + 1}`}
                      value={typeof entry[key] === 'string' ? entry[key] : ''}
                      placeholder={isObject(entry[key]) ? 'differs by its states' : ''}
                      onChange={event => change(index, { ...entry, [key]: event.target.value })}
                    />
                  </td>
                ))}
                {free.map(axis => (
                  <td key={axis.id}>
                    <select
                      className="form-select form-select-sm"
                      aria-label={`${axis.title}, entry ${index + 1}`}
                      value={is[axis.id] ?? axis.values[axis.rest]!.id}
                      onChange={event =>
                        change(
                          index,
                          withState(entry, is, axis.id, event.target.value, axis.values[axis.rest]!.id),
                        )
                      }
                    >
                      {axis.values.map(({ id, words }) => (
                        <option key={id} value={id}>
                          {words}
                        </option>
                      ))}
                    </select>
                  </td>
                ))}
                <td className="acts">
                  <button
                    type="button"
                    className="act"
                    aria-label={`entry ${index + 1} earlier`}
                    onClick={() => move(index, -1)}
                  >
                    ↑
                  </button>{' '}
                  <button
                    type="button"
                    className="act"
                    aria-label={`entry ${index + 1} later`}
                    onClick={() => move(index, 1)}
                  >
                    ↓
                  </button>{' '}
                  <button
                    type="button"
                    className="act"
                    aria-label={`without entry ${index + 1}`}
                    onClick={() => setEntries(entries.toSpliced(index, 1))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="adding">
        <button type="button" className="act" onClick={() => setEntries([...entries, {}])}>
          another entry
        </button>
      </p>
    </FormDialog>
  );
}

/** An entry with one of its states set; at rest nothing is said of it. */
function withState(
  entry: ListContent,
  is: Readonly<Record<string, string>>,
  axis: string,
  value: string,
  rest: string,
): ListContent {
  const { [axis]: _, ...others } = is;
  const next = value === rest ? others : { ...is, [axis]: value };
  const { is: __, ...content } = entry;
  return Object.keys(next).length === 0 ? content : { ...content, is: next };
}
