import type { Component } from '../components/component';
import type { System } from '../components/system';
import { component as componentShape, type WrittenComponent } from '../documents/component-document';
import { documentsOf, type Documents } from '../documents/document-kinds';
import { translated } from '../documents/shape';
import { trial, type TrialDocument } from '../documents/trial-document';
import { RenamedNames, type Anchors, type NameChange, type NameLookup } from './renamed-names';

/**
 * A component's own document with everything that it names as that is called by now, and what has gone because nothing is left for it
 * to say. The same object where nothing differs.
 */
export function renamedComponent(
  system: System,
  component: Component,
  document: WrittenComponent,
  lookup: NameLookup,
  anchors?: Anchors,
): { readonly document: WrittenComponent; readonly gone: readonly NameChange[] } {
  const names = new RenamedNames(lookup, system, component, anchors);
  return { document: translated(componentShape, document, { names }) ?? document, gone: names.gone };
}

/** Documents in which trials name everything as it is called by now; fields of what is gone go. */
export function renamedTrials(system: System, documents: Documents, lookup: NameLookup): Documents {
  const names = new RenamedNames(lookup, system);
  const trials = documentsOf(documents, 'trial').map(
    ([file, document]) => [file, translated(trial, document as TrialDocument, { names })] as const,
  );
  return new Map<string, unknown>([...documents, ...trials]);
}
