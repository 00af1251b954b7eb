import type { System } from '../components/system';
import { NAMES } from '../patch/identity';
import { pointerSteps, valueAt } from '../json/json';
import { LIST_ENTRIES } from '../documents/component-document';
import { PatchError, type Patch, type PatchOperation } from '../patch/operations';
import { walkPatch } from '../patch/patch';
import { renamedComponent } from './renamed-documents';
import { type WrittenComponent } from '../documents/component-document';
import type { NameChange, NameLookup } from './renamed-names';
import type { NameKind } from '../documents/names';
import { familyOf } from './restructure';

const ENTRIES: Readonly<Record<string, NameKind>> = { ...LIST_ENTRIES, values: 'value' };

/**
 * What a patch of a component's document gives another name; `null` where nothing. `document` is the one that it was made on, `system` as things
 * are called in what is to be carried along.
 */
export function renamesInPatch(
  system: System,
  path: string,
  document: unknown,
  patch: Patch,
): NameLookup | null {
  const component = system.components.find(({ id }) => system.fileOf.get(id) === path);
  if (!component) return null;
  const changes: NameChange[] = [];
  try {
    walkPatch(document, patch, (here, operation) => {
      if (operation.op === 'test') return null;
      const change = changeOf(here, operation);
      if (change) changes.push(change);
      return operation;
    });
  } catch (error) {
    if (error instanceof PatchError) return null;
    throw error;
  }
  return changes.length > 0
    ? { of: new Set(familyOf(system, component.id).map(({ id }) => id)), changes }
    : null;
}

/** Whether a patch may give something another name: told from it alone, which costs nothing. */
export const mayRename = (patch: Patch): boolean => patch.some(isRename);

const isRename = ({ op, path }: PatchOperation): boolean =>
  (op === 'replace' && NAMES.includes(path.slice(path.lastIndexOf('/') + 1))) ||
  (op === 'move' && path.startsWith('/content/'));

function changeOf(here: unknown, operation: PatchOperation): NameChange | null {
  const steps = pointerSteps(operation.path) ?? [];
  if (operation.op === 'move') {
    const from = pointerSteps(operation.from) ?? [];
    const isKey = from[0] === 'content' && steps[0] === 'content' && from.length === 2 && steps.length === 2;
    return isKey && from[1] !== steps[1] ? { kind: 'content', name: from[1]!, to: steps[1]! } : null;
  }
  if (operation.op !== 'replace' || typeof operation.value !== 'string') return null;
  const name = valueAt(here, steps);
  if (typeof name !== 'string' || name === operation.value) return null;
  const key = steps.at(-1);
  if (key === 'part') return { kind: 'part', name, to: operation.value };
  const kind = key === 'id' ? ENTRIES[steps.at(-3) ?? ''] : undefined;
  if (kind === undefined) return null;
  const axis = kind === 'value' ? valueAt(here, [...steps.slice(0, 2), 'id']) : undefined;
  return { kind, name, to: operation.value, ...(typeof axis === 'string' ? { axis } : {}) };
}

/** A document of a system with everything that it names as that is called by now: the same one where it names nothing of it. */
export function withRenames(system: System, names: NameLookup, path: string, document: unknown): unknown {
  const component = system.components.find(({ id }) => system.fileOf.get(id) === path);
  if (!component) return document;
  return renamedComponent(system, component, document as WrittenComponent, names).document;
}
