import { shownKeys } from '../components/content-keys';
import type { Component } from '../components/component';
import { MAX_ENTRIES } from '../components/content/entries';
import { CONVERSIONS } from '../components/content/conversions';
import { namedIn, TEMPLATE_WORDS } from '../components/content/derived-text';
import type { ContentDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { brief, oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';

/** Checks what a component says of its content, and whether its samples and its nested components go with that. */
export function contentProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  const declared = component.document.content ?? [];
  const shown = shownKeys(component);
  declared.forEach((each, index) => {
    checkDeclared(each, pointer('content', index), problems);
    if (!shown.has(each.id) && each.kind !== 'value')
      problems.warning(
        pointer('content', index),
        'unused-content',
        `No part shows “${each.id}”.`,
        nearest(
          each.id,
          [...shown].filter(key => !declared.some(({ id }) => id === key)),
        ),
        each.id,
      );
  });
  checkSamples(component, declared, problems);
  checkUses(component, declared, problems);
  return problems.problems;
}

function checkDeclared(each: ContentDocument, at: string, problems: ProblemList): void {
  const { as, text, from } = each;
  if (as !== undefined && !Object.hasOwn(CONVERSIONS, as)) {
    const names = Object.keys(CONVERSIONS);
    problems.error(
      `${at}/as`,
      'unknown-conversion',
      `“${brief(as)}” is no conversion; there is ${oneOf(names)}.`,
      nearest(as, names),
    );
  }
  if (text !== undefined && from !== undefined)
    problems.error(
      `${at}/text`,
      'said-twice',
      'Content comes from sources or from a template, not from both.',
    );
  if (text !== undefined) {
    const words = Object.keys(TEMPLATE_WORDS);
    for (const name of namedIn(text)) {
      // Anything else is the way to a source, of which only samples know.
      if (words.includes(name) || /^(?!(value|list)\.)[A-Za-z][\w-]*(\.[\w-]+)+$/.test(name)) continue;
      problems.error(
        `${at}/text`,
        'unknown-word',
        `A template knows nothing called “${brief(name)}”; there is ${oneOf([...words, 'the way to a source'])}.`,
        nearest(name, words),
      );
    }
  }
  (each.entry ?? []).forEach((inner, index) => checkDeclared(inner, `${at}/entry/${index}`, problems));
}

/** Samples have what is required, in every entry of a list too. */
function checkSamples(
  component: Component,
  declared: readonly ContentDocument[],
  problems: ProblemList,
): void {
  const follows = ({ from, text }: ContentDocument): boolean => from !== undefined || text !== undefined;
  component.samples.forEach((sample, index) => {
    const at = pointer('samples', index, 'content');
    for (const each of declared) {
      const given = sample.content[each.id];
      if (each.required && given === undefined && !follows(each))
        problems.warning(
          at,
          'missing-content',
          `“${each.id}” is required, and not in this sample.`,
          undefined,
          each.id,
        );
      if (each.kind !== 'list' || given === undefined) continue;
      if (!Array.isArray(given)) {
        problems.error(at + pointer(each.id), 'wrong-type', `“${each.id}” is a list; this is none.`);
        continue;
      }
      if (given.length > MAX_ENTRIES)
        problems.warning(
          at + pointer(each.id),
          'too-many-entries',
          `Of these ${given.length} entries the first ${MAX_ENTRIES} are drawn; a sample needs only what shows how they look.`,
        );
      given.forEach((entry: object, place) => {
        const here = at + pointer(each.id, place);
        for (const inner of each.entry ?? [])
          if (inner.required && !Object.hasOwn(entry, inner.id))
            problems.warning(
              here,
              'missing-content',
              `“${inner.id}” is required in an entry.`,
              undefined,
              inner.id,
            );
      });
    }
  });
}

/** Nested components show keys that they have, and are repeated by what is a list. */
function checkUses({ nested }: Component, declared: readonly ContentDocument[], problems: ProblemList): void {
  for (const { use, component, content, repeat } of nested) {
    const own = component.document.content ?? [];
    const counts = own.some(
      ({ text }) => text !== undefined && namedIn(text).some(name => name.startsWith('value')),
    );
    const keys = [
      ...new Set([...shownKeys(component), ...own.map(({ id }) => id), ...(counts ? ['value'] : [])]),
    ];
    for (const key of content.keys()) {
      if (keys.includes(key)) continue;
      problems.error(
        `${use.pointer}/content${pointer(key)}`,
        'unknown-content',
        `“${component.id}” shows nothing called “${brief(key)}”; it shows ${oneOf(keys, 12)}.`,
        nearest(key, keys),
        key,
      );
    }
    const of = declared.find(({ id }) => id === repeat);
    if (repeat !== null && of && of.kind !== 'list' && of.kind !== 'value')
      problems.error(
        `${use.pointer}/repeat`,
        'not-a-list',
        `“${repeat}” is no list, so there is nothing to repeat by.`,
        nearest(
          repeat,
          declared.flatMap(({ id, kind }) => (kind === 'list' ? id : [])),
        ),
      );
  }
}
