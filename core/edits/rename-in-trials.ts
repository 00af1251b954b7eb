import { componentNamed, type System } from '../components/system';
import { documentsOf, type Documents } from '../documents/document-kinds';
import type { TrialDocument, TrialFieldDocument } from '../documents/trial-document';
import { mapEntries, mapMembers, NameReader, withMember, type NameLookup } from './name-changes';

/** Documents in which trials name everything as it is called by now; fields of what is gone go. The same object where nothing differs. */
export function renamedInTrials(system: System, documents: Documents, names: NameLookup): Documents {
  const result = new Map(documents);
  for (const [file, document] of documentsOf(documents, 'trial')) {
    const trial = document as TrialDocument;
    const followed = withMember(trial, 'fields', fields =>
      mapEntries(fields, field => followedField(field, system, names)),
    );
    if (followed !== trial) result.set(file, followed);
  }
  return result;
}

function followedField(
  field: TrialFieldDocument,
  system: System,
  names: NameLookup,
): TrialFieldDocument | null {
  const component = componentNamed(system, field.component);
  if (!component) return field;
  const reader = new NameReader(names, component);
  const id = reader.now('component', field.component);
  if (id === null) return null;
  let next = id === field.component ? field : { ...field, component: id };
  next = withMember(next, 'set', set => {
    const left = mapMembers(set, (axis, value) => {
      const [axisNow, now] = [reader.now('axis', axis), reader.now('value', value!, axis)];
      return axisNow === null || now === null ? null : [axisNow, now];
    });
    return Object.keys(left).length === 0 ? undefined : left;
  });
  return withMember(next, 'sample', sample => reader.now('sample', sample) ?? undefined);
}
