import { useCallback, useMemo } from 'react';
import { dryRun, type DryRun } from '@periwinkle/core/edits/dry-run';
import type { StructuralEdit } from '@periwinkle/core/edits/restructure';
import { useStore, useSystemPart } from '../data/system-context';

/** Makes a structural edit, or says why it cannot be made. */
export type Restructure = (edit: StructuralEdit, label: string) => string | null;

/** Structural edits are made on what is shown, in all documents at once, and taken back by one step. */
export function useRestructure(): Restructure {
  const store = useStore();
  return useCallback(
    (edit, label) => {
      const tried = dryRun(store.state().edited, edit);
      if (!tried.ok) return tried.reason;
      store.editTogether(tried.patches, label);
      return null;
    },
    [store],
  );
}

/** What an edit would do; `null` where there is none to be tried. */
export function useAttempt(edit: StructuralEdit | null): DryRun | null {
  const system = useSystemPart('edited');
  return useMemo(() => edit && dryRun(system, edit), [system, edit]);
}
