import type { Component, Nested } from '../components/component';
import { compileSystem, type System } from '../components/system';
import type { AnatomyEditDocument, PartDocument } from '../documents/part-document';
import type { Documents } from '../documents/document-kinds';
import { writtenOf, withWritten } from './restructure';
import { mapEntries, withMember } from '../json/change-members';

/**
 * Documents in which nested axes that follow an axis of the same values go on doing so where that has got more of them: through a map,
 * in which the new ones come to the nested default.
 */
export function linked(documents: Documents): Documents {
  const system = compileSystem(documents);
  return system.components.reduce<Documents>((now, component) => {
    const maps = component.nested.flatMap(nested => mapsOf(component, nested));
    return maps.length === 0 ? now : withMaps(system, now, component, maps);
  }, documents);
}

interface NewMap {
  readonly part: string;
  readonly axis: string;
  readonly binding: { readonly axis: string; readonly map: Readonly<Record<string, string>> };
}

function mapsOf(component: Component, { name, use, component: inner }: Nested): NewMap[] {
  return Object.entries(use.document.with ?? {}).flatMap(([id, from]) => {
    const [own, axis] = [component, inner].map((each, index) =>
      each.space.axes.find(other => other.id === (index === 0 ? from : id)),
    );
    if (typeof from !== 'string' || !own || !axis) return [];
    if (own.values.every(value => axis.indexOf.has(value.id))) return [];
    const rest = axis.values[axis.rest]!.id;
    const map = own.values.map(value => [value.id, axis.indexOf.has(value.id) ? value.id : rest]);
    return [
      {
        part: name,
        axis: id,
        binding: { axis: from, map: Object.fromEntries(map) as Record<string, string> },
      },
    ];
  });
}

/** Writes bindings where the part is written; of a base's part as a change of it. */
function withMaps(
  system: System,
  documents: Documents,
  component: Component,
  maps: readonly NewMap[],
): Documents {
  const written = writtenOf(component);
  const found = new Set<NewMap>();
  const inPart = (part: PartDocument): PartDocument => {
    const own = maps.filter(map => map.part === part.part);
    own.forEach(map => found.add(map));
    const next = withMember(part, 'children', children => mapEntries(children, inPart));
    if (own.length === 0) return next;
    return {
      ...next,
      with: { ...next.with, ...Object.fromEntries(own.map(map => [map.axis, map.binding])) },
    };
  };
  let next = withMember(written, 'anatomy', inPart);
  next = withMember(next, 'anatomyEdits', edits =>
    mapEntries(edits, edit =>
      (['insert', 'by', 'in'] as const).reduce<AnatomyEditDocument>(
        (each, key) => withMember(each, key, inPart),
        edit,
      ),
    ),
  );
  const left = maps.filter(map => !found.has(map));
  if (left.length > 0) {
    const changes = left.map(({ part, axis, binding }) => ({
      change: part,
      to: { with: { [axis]: binding } },
    }));
    next = { ...next, anatomyEdits: [...(next.anatomyEdits ?? []), ...changes] };
  }
  return withWritten(system, documents, component, next);
}
