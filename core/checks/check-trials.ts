import { behaves } from '../behaviour/behaves';
import { fieldsIn } from '../behaviour/other-fields';
import { componentNamed, type System } from '../components/system';
import { documentsOf } from '../documents/document-kinds';
import { pointer } from '../json/json';
import { brief, inFile, oneOf, ProblemList, type Problem } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { TrialDocument, TrialFieldDocument } from '../documents/trial-document';
import { checkGiven, checkSample } from './check-behaviour';

/** What structure alone cannot tell of a system's trials. */
export function trialProblems(system: System): Problem[] {
  const ids = new Set<string>();
  return documentsOf(system.documents, 'trial').flatMap(([file, document]) => {
    const { id, locale, fields } = document as TrialDocument;
    const problems = new ProblemList();
    if (ids.has(id)) problems.error('/id', 'duplicate-id', `There is a trial “${id}” already.`);
    ids.add(id);
    if (locale !== undefined && !isLocale(locale))
      problems.error('/locale', 'unknown-locale', `“${brief(locale)}” is no language tag (BCP 47).`);
    const names = new Set<string>();
    fields.forEach((field, index) => {
      const at = pointer('fields', index);
      if (names.has(field.name))
        problems.error(
          `${at}/name`,
          'duplicate-name',
          `Another field is sent as “${brief(field.name)}”; nobody could tell the two apart.`,
        );
      names.add(field.name);
      checkField(system, field, at, problems);
    });
    return inFile(file, problems.problems);
  });
}

/** Checks that compare with a field which no trial has, and which no component is called like. */
export function comparisonSlips(system: System): Problem[] {
  const names = new Set(system.components.map(({ id }) => id));
  for (const [, document] of documentsOf(system.documents, 'trial'))
    for (const { name } of (document as TrialDocument).fields) names.add(name);
  return system.components.flatMap(component => {
    const problems = new ProblemList();
    // What a derived component takes of its base is told there.
    const { derivation, document } = component;
    (derivation?.own ?? document).behaviour?.checks?.forEach((check, index) => {
      for (const name of fieldsIn(check)) {
        if (names.has(name)) continue;
        problems.warning(
          derivation ? '/behaviour' : `/behaviour${pointer('checks', index)}`,
          'unknown-field',
          `It compares with a field “${brief(name)}”, and none is called that, in any trial.`,
          nearest(name, names),
          name,
        );
      }
    });
    return inFile(system.fileOf.get(component.id)!, problems.problems);
  });
}

function checkField(system: System, field: TrialFieldDocument, at: string, problems: ProblemList): void {
  const component = componentNamed(system, field.component);
  const fields = system.components.filter(behaves).map(({ id }) => id);
  if (!component || !behaves(component)) {
    problems.error(
      `${at}/component`,
      component ? 'no-field' : 'unknown-component',
      component
        ? `Nothing can be filled in in “${component.id}”, or nobody said how it behaves; there is ${oneOf(fields, 12)}.`
        : `There is no component “${brief(field.component)}”.`,
      nearest(field.component, fields),
      field.component,
    );
    return;
  }
  checkSample(component, field.sample, `${at}/sample`, problems);
  checkGiven(component, field.set ?? {}, axis => `${at}/set${pointer(axis)}`, problems);
  if (field.required === true && component.space.axisIndex('requirement') < 0)
    problems.error(
      `${at}/required`,
      'unknown-axis',
      `“${component.id}” has no axis “requirement”, so it cannot be required.`,
    );
}

function isLocale(locale: string): boolean {
  try {
    return Intl.getCanonicalLocales(locale).length === 1;
  } catch {
    return false;
  }
}
