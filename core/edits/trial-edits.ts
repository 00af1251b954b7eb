import type { System } from '../components/system';
import { documentsOf, type Documents } from '../documents/document-kinds';
import type { TrialDocument } from '../documents/trial-document';
import { CannotRestructure, noSuch, refuseName, type StructuralEdit } from './restructure';

/** Adds a trial under an id that is free. */
export const addTrial =
  (trial: TrialDocument): StructuralEdit =>
  system => {
    refuseName('a trial', trial.id, trialIds(system.documents));
    return new Map(system.documents).set(freeFile(system.documents, trial.id), trial);
  };

/** Changes what a trial says, but for its id. Its fields are sent under names of their own. */
export const changeTrial =
  (id: string, change: (trial: TrialDocument) => TrialDocument): StructuralEdit =>
  system => {
    const [file, trial] = theTrial(system, id);
    const next = { ...change(trial), id };
    const names = next.fields.map(({ name }) => name);
    const twice = names.find((name, place) => names.indexOf(name) !== place);
    if (twice !== undefined) throw new CannotRestructure(`Another field is sent as “${twice}” already.`);
    if (names.includes('')) throw new CannotRestructure('A field is sent under a name.');
    return new Map(system.documents).set(file, next);
  };

export const removeTrial =
  (id: string): StructuralEdit =>
  system => {
    const documents = new Map(system.documents);
    documents.delete(theTrial(system, id)[0]);
    return documents;
  };

function theTrial({ documents }: System, id: string): [file: string, trial: TrialDocument] {
  const found = documentsOf(documents, 'trial').find(([, trial]) => (trial as TrialDocument).id === id);
  if (!found) throw noSuch('trial', id, trialIds(documents));
  return found as [string, TrialDocument];
}

const trialIds = (documents: Documents): string[] =>
  documentsOf(documents, 'trial').map(([, trial]) => (trial as TrialDocument).id);

function freeFile(documents: Documents, id: string): string {
  for (let number = 1; ; number++) {
    const path = `trials/${number === 1 ? id : `${id}-${number}`}.trial.json`;
    if (!documents.has(path)) return path;
  }
}
