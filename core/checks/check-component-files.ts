import type { System } from '../components/system';
import { documentKind, documentsOf } from '../documents/document-kinds';
import { UNREADABLE } from '../documents/sound-part';
import { pointer } from '../json/json';
import { brief, inFile, ProblemList, type Problem } from '../json/problem';
import { Suggestions } from '../text/suggestions';

/** Components in the reader's order that there are not. */
export function orderSlips({ documents, components }: System): Problem[] {
  const { order = [] } = (documents.get('system.json') ?? {}) as { order?: readonly string[] };
  const ids = components.map(({ id }) => id);
  const list = new ProblemList();
  order.forEach((id, index) => {
    if (!ids.includes(id))
      list.warning(
        pointer('order', index),
        'unknown-component',
        `There is no component “${brief(id)}”.`,
        new Suggestions(ids).nearest(id),
        id,
      );
  });
  return inFile('system.json', list.problems);
}

/** A component in a file of another name is not found by who looks for it; one made beside another has a number behind its name. */
export function fileNameSlips({ documents }: System): Problem[] {
  return documentsOf(documents, 'component').flatMap(([path, document]) => {
    const { id } = document as { id: string };
    const named = path.slice('components/'.length, -'.component.json'.length);
    const list = new ProblemList();
    // What stands in for an id that is missing is nobody's.
    if (id === UNREADABLE) return [];
    if (named.replace(/-\d+$/, '') !== id && named !== id)
      list.warning(
        '/id',
        'other-file',
        `“${brief(id)}” lies in a file that is called “${brief(named)}”.`,
        named,
        id,
      );
    return inFile(path, list.problems);
  });
}

export function twinComponents(system: System): Problem[] {
  const seen = new Set<string>();
  return [...system.documents].flatMap(([path, document]) => {
    if (documentKind(path)?.kind !== 'component') return [];
    const { id } = document as { id: string };
    const list = new ProblemList();
    if (seen.has(id)) list.error('/id', 'duplicate-id', `There is a component “${id}” already.`);
    seen.add(id);
    return inFile(path, list.problems);
  });
}
