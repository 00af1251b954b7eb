import type { System } from '../components/system';
import { repaired } from './repair';
import { CannotRestructure, patchesBetween, type DocumentPatch, type StructuralEdit } from './restructure';
import { touchedBetween, type TouchedComponent } from './touched-entries';
import type { Documents } from '../documents/document-kinds';
import type { Problem } from '../json/problem';
import { newErrors } from '../checks/new-errors';

/** What an edit would do, before it is done; or why it cannot be. */
export type DryRun =
  | {
      readonly ok: true;
      readonly documents: Documents;
      readonly patches: readonly DocumentPatch[];
      readonly touched: readonly TouchedComponent[];
    }
  | { readonly ok: false; readonly reason: string; readonly problems: readonly Problem[] };

/** Tries a structural edit on a system. What would bring in an error that was not there before is refused, with that error. */
export function dryRun(system: System, edit: StructuralEdit): DryRun {
  let edited: Documents;
  try {
    edited = edit(system);
  } catch (error) {
    if (error instanceof CannotRestructure) return { ok: false, reason: error.message, problems: [] };
    throw error;
  }
  const { documents, errors } = repaired(system, edited, after => newErrors(system.documents, after));
  if (errors.length > 0) return { ok: false, reason: errors[0]!.message, problems: errors };
  return {
    ok: true,
    documents,
    patches: patchesBetween(system.documents, documents),
    touched: touchedBetween(system.documents, documents),
  };
}
