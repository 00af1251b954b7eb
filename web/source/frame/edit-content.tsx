import { editWords } from '@periwinkle/core/documents/edit-words';
import { isObject } from '@periwinkle/core/json/json';
import { useSystemPart } from '../data/system-context';
import type { EditPart } from '../synchronisation/working-copy';

const MOST = 12;

/** What an edit does, place by place, in words and with its values. */
export function EditContent({ parts }: { parts: readonly EditPart[] }) {
  const { documents } = useSystemPart('edited');
  const all = parts.flatMap(({ path, patch }) =>
    editWords(documents.get(path) ?? null, patch).map(word => ({
      ...word,
      title: titleOf(documents.get(path), path),
    })),
  );
  return (
    <dl className="edit-content">
      {all.slice(0, MOST).map(({ title, place, value, isMove }, index) => (
        <div key={index}>
          <dt>
            {title}, {place}
          </dt>
          <dd className={isMove ? undefined : 'mono'}>
            {value === null ? (
              <i>taken out</i>
            ) : isMove ? (
              `moved ${value}`
            ) : value === '' ? (
              <i>empty</i>
            ) : (
              value
            )}
          </dd>
        </div>
      ))}
      {all.length > MOST ? <p className="said">and {all.length - MOST} more</p> : null}
    </dl>
  );
}

/** What people call a document: its title, else its file. */
export const titleOf = (document: unknown, path: string): string =>
  isObject(document) && typeof document['title'] === 'string' ? document['title'] : path;
