import type { BehaviourDocument, MoveDocument, WalkthroughDocument } from '../documents/component-document';
import { mapEntries, mapMembers, withMember, type NameReader } from './name-changes';

/** Acts, and what moves do, that name a part, with what follows the name: `press entry:2`, `focus reveal`. */
const ON_PART = /^(point|press|hold|focus) ([^\s:]+)(.*)$/s;
/** Those that name a value of an axis: `app size=large`, `set size=large`. */
const ON_VALUE = /^(app|set) ([^=\s]+)=(.*)$/s;

/** An act, or what a move does, as its parts and values are called by now; `null` where they are gone. */
function followedAct(text: string, reader: NameReader): string | null {
  const [, verb, path = '', rest = ''] = ON_PART.exec(text) ?? [];
  if (verb !== undefined && !(verb === 'point' && path === 'away')) {
    const now = reader.path(path);
    return now === path ? text : now === null ? null : `${verb} ${now}${rest}`;
  }
  const [, word, axis = '', value = ''] = ON_VALUE.exec(text) ?? [];
  if (word === undefined || axis === 'value') return text;
  const [axisNow, now] = [reader.now('axis', axis), reader.now('value', value, axis)];
  if (axisNow === axis && now === value) return text;
  return axisNow === null || now === null ? null : `${word} ${axisNow}=${now}`;
}

/** A behaviour with everything that it names as that is called by now. */
export function renamedInBehaviour(behaviour: BehaviourDocument, reader: NameReader): BehaviourDocument {
  let next = withMember(behaviour, 'parts', parts =>
    mapMembers(parts, (role, name) => {
      const now = reader.path(name!);
      return now === null ? null : [role, now];
    }),
  );
  next = withMember(next, 'checks', checks =>
    mapEntries(checks, check => withMember(check, 'message', key => reader.now('content', key) ?? undefined)),
  );
  return withMember(next, 'moves', moves => mapEntries(moves, move => followedMove(move, reader)));
}

/** A move of which nothing is left goes. */
function followedMove(move: MoveDocument, reader: NameReader): MoveDocument | null {
  const on = followedAct(move.on, reader);
  const deeds = mapEntries(move.do, text => followedAct(text, reader));
  const when = move.when && reader.condition(move.when);
  if (on === null || deeds.length === 0 || when === null) return null;
  if (on === move.on && deeds === move.do && when === move.when) return move;
  return { ...move, on, ...(when ? { when } : {}), do: deeds };
}

/** A walkthrough as everything is called by now; `null` where it acts on what is gone. */
export function renamedInWalkthrough(
  walkthrough: WalkthroughDocument,
  reader: NameReader,
): WalkthroughDocument | null {
  const id = reader.now('walkthrough', walkthrough.id);
  const acts = mapEntries(walkthrough.acts, text => followedAct(text, reader));
  if (id === null || acts.length < walkthrough.acts.length) return null;
  let next = acts === walkthrough.acts ? walkthrough : { ...walkthrough, acts };
  if (id !== walkthrough.id) next = { ...next, id };
  next = withMember(next, 'set', set =>
    mapMembers(set, (axis, value) => {
      const [axisNow, now] = [reader.now('axis', axis), reader.now('value', value!, axis)];
      return axisNow === null || now === null ? null : [axisNow, now];
    }),
  );
  return withMember(next, 'sample', sample => reader.now('sample', sample) ?? undefined);
}
