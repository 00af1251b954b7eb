import type { AnatomyEditDocument, ConditionDocument, PartDocument } from '../documents/component-document';
import { isObject } from '../json/json';
import { narrowedBindings } from '../derivation/narrow-uses';
import { valueIds } from '../derivation/narrowing';
import { componentNamed, type System } from '../components/system';
import { mapEntries, mapMembers, withMember, type NameReader } from './name-changes';

/** Where a part goes: beside another, or as the last into a box. */
export type PartPlace = { readonly before: string } | { readonly after: string } | { readonly into: string };

/** Where what an edit of the anatomy puts beside or into a part that is gone finds its place; `stays` where the part goes only later. */
export type Anchors = ReadonlyMap<string, PartPlace | 'stays'>;

/** A part with everything that it names, its parts included; `null` where it is gone itself. */
export function renamedInPart(part: PartDocument, reader: NameReader, system: System): PartDocument | null {
  const name = reader.now('part', part.part);
  if (name === null) return null;
  let next = name === part.part ? part : { ...part, part: name };
  next = withMember(next, 'children', children =>
    mapEntries(children, child => renamedInPart(child, reader, system)),
  );
  return followedMembers(next, reader, system);
}

type PartMembers = Partial<PartDocument>;

/** What a part, or a change of one, says besides its name and its parts. */
function followedMembers<Members extends PartMembers>(
  members: Members,
  reader: NameReader,
  system: System,
  uses: string | undefined = members.component,
): Members {
  const used = uses === undefined ? undefined : componentNamed(system, uses);
  const inside = used ? reader.about(used) : null;
  const own = (key: string): string | undefined => reader.now('content', key) ?? undefined;
  let next: PartMembers = members;
  next = withMember(next, 'content', content =>
    typeof content === 'string'
      ? own(content)
      : mapMembers(content, (key, from) => {
          const there = inside ? inside.now('content', key) : key;
          // Of a change, `null` takes a key out.
          const here = (from as string | null) === null ? from : reader.now('content', from);
          return there === null || (here === null && from !== null) ? null : [there, here];
        }),
  );
  next = withMember(next, 'repeat', key => (key === 'value' ? key : own(key)));
  next = withMember(next, 'component', id => reader.now('component', id) ?? id);
  next = withMember(next, 'parameters', parameters =>
    mapMembers(parameters, (key, text) => {
      const there = inside ? inside.now('parameter', key) : key;
      const value = reader.value(text);
      return there === null || value === null ? null : [there, value];
    }),
  );
  next = withMember(next, 'with', bindings => followedBindings(bindings, reader, inside));
  return next as Members;
}

type Bindings = Readonly<Record<string, unknown>>;

function followedBindings(bindings: Bindings, reader: NameReader, inside: NameReader | null): Bindings {
  const narrowed = reader.narrowing ? narrowedBindings(bindings, reader.narrowing) : bindings;
  return mapMembers(narrowed, (axis, binding) => {
    const there = inside ? inside.now('axis', axis) : axis;
    // What bound an axis that is gone binds nothing.
    if (there === null) return null;
    const value = (id: unknown): string | null =>
      typeof id === 'string' ? (inside ? inside.now('value', id, axis) : id) : null;
    const followed = followedBinding(binding, reader, inside, value);
    return followed === null ? null : [there, followed];
  });
}

function followedBinding(
  binding: unknown,
  reader: NameReader,
  inside: NameReader | null,
  value: (id: unknown) => string | null,
): unknown {
  if (typeof binding === 'string') return followedLink(binding, reader, inside, value);
  if (Array.isArray(binding)) {
    return mapEntries(binding as { when: ConditionDocument; is: unknown }[], each => {
      if (!isObject(each) || !isObject(each.when)) return each;
      const when = reader.condition(each.when as unknown as ConditionDocument);
      const is = value(each.is);
      if (when === null || is === null) return null;
      return when === (each.when as unknown) && is === each.is ? each : { ...each, when, is };
    });
  }
  if (!isObject(binding)) return binding;
  if ('is' in binding) {
    const is = value(binding['is']);
    return is === null ? null : is === binding['is'] ? binding : { is };
  }
  if (typeof binding['axis'] !== 'string' || !isObject(binding['map'])) return binding;
  const from = binding['axis'];
  const now = reader.now('axis', from) ?? from;
  const map = mapMembers(binding['map'] as Record<string, unknown>, (key, each) => {
    const [here, there] = [reader.now('value', key, from), value(each)];
    return here === null || there === null ? null : [here, there];
  });
  return now === from && map === binding['map'] ? binding : { axis: now, map };
}

/** An axis that follows another of the same values goes on doing so while they are the same, else through a map. */
function followedLink(
  from: string,
  reader: NameReader,
  inside: NameReader | null,
  value: (id: unknown) => string | null,
): unknown {
  const now = reader.now('axis', from) ?? from;
  const own = reader.component.document.axes?.find(({ id }) => id === from);
  if (!own || !inside) return now;
  const pairs = valueIds(own).map(id => [reader.now('value', id, from), value(id)] as const);
  if (pairs.every(([here, there]) => here === null || here === there)) return now;
  const map = pairs.filter(([here, there]) => here !== null && there !== null);
  return { axis: now, map: Object.fromEntries(map) };
}

/** An edit of a base's anatomy; `null` where it has nothing left to do. */
export function renamedInEdit(
  edit: AnatomyEditDocument,
  reader: NameReader,
  anchors: Anchors,
  system: System,
): AnatomyEditDocument | null {
  const place = followedPlace(edit, reader, anchors);
  const named = (name: string): string | undefined => reader.now('part', name) ?? undefined;
  const target = edit.remove ?? edit.move ?? edit.change;
  if (target !== undefined && named(target) === undefined) return null;
  if (edit.replace !== undefined && named(edit.replace) === undefined) {
    // What came instead of a part that is gone comes where that was.
    const by = edit.by && renamedInPart(edit.by, reader, system);
    const where = anchors.get(edit.replace);
    return by && where && where !== 'stays' ? { insert: by, ...where } : null;
  }
  const part = (each: PartDocument): PartDocument | undefined =>
    renamedInPart(each, reader, system) ?? undefined;
  let next = place;
  for (const key of ['remove', 'move', 'replace', 'change'] as const) next = withMember(next, key, named);
  for (const key of ['insert', 'by', 'in'] as const) next = withMember(next, key, part);
  if (edit.insert && !next.insert) return null;
  if (edit.change !== undefined) {
    const uses = reader.component.nested.find(({ name }) => name === edit.change)?.component.id;
    next = withMember(next, 'to', to => {
      const followed = followedMembers(to as Partial<PartDocument>, reader, system, uses);
      return followed as NonNullable<AnatomyEditDocument['to']>;
    });
    if (next.to && Object.keys(next.to).length === 0) return null;
  }
  next = withMember(next, 'wrap', names => mapEntries(names, name => reader.now('part', name)));
  return edit.wrap && (next.wrap!.length === 0 || !next.in) ? null : next;
}

function followedPlace(edit: AnatomyEditDocument, reader: NameReader, anchors: Anchors): AnatomyEditDocument {
  for (const key of ['before', 'after', 'into'] as const) {
    const name = edit[key];
    if (name === undefined) continue;
    const now = reader.now('part', name);
    if (now === name) return edit;
    const anchor = now === null ? anchors.get(name) : { [key]: now };
    if (anchor === 'stays') return edit;
    const { [key]: _, ...rest } = edit;
    return { ...rest, ...anchor };
  }
  return edit;
}
