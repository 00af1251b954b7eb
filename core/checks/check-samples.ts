import { choicesOf } from '../components/nesting/entries';
import type { Component } from '../components/component';
import { firstFailing } from '../behaviour/validation';
import { atRest } from '../behaviour/machine';
import { valueFormatOf } from '../behaviour/value-format';
import type { Plan } from '../behaviour/plan';
import { planOf } from '../behaviour/make-plan';
import { entriesGiven } from '../behaviour/rendered-field';
import { entryOf } from '../components/content/entries';
import { axisOfValues, sampleTexts } from '../components/content/sample-text';
import type { SampleDocument, SampleText } from '../documents/component-document';
import { isObject, pointer } from '../json/json';
import { brief, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';

/** Slips in samples: texts by values that there are not, and values that are not what they stand for. */
export function sampleSlips(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  const plan = planOf(component);
  component.samples.forEach((sample, index) => {
    const at = pointer('samples', index);
    textsByValues(component, sample, at, problems);
    valuesOfKind(component, plan, sample, at, problems);
    wrongThatPasses(plan, sample, at, problems);
  });
  return problems.problems;
}

/** A text may depend on an axis: its values, and no others, name the texts. */
function textsByValues(
  { space }: Component,
  { content }: SampleDocument,
  at: string,
  problems: ProblemList,
): void {
  // Where no axis could be read, something else is wrong.
  if (space.axes.length === 0) return;
  for (const [key, given] of Object.entries(content)) {
    if (!isObject(given) || Array.isArray(given)) continue;
    const names = Object.keys(given);
    const axis = axisOfValues(names, space.axes);
    for (const name of names) {
      if (axis?.indexOf.has(name)) continue;
      const known = (axis ? [axis] : space.axes).flatMap(each => [...each.indexOf.keys()]);
      problems.warning(
        at + pointer('content', key, name),
        'unknown-value',
        axis
          ? `“${brief(name)}” is no value of ${axis.id}, on which this text depends.`
          : `“${brief(name)}” is a value of no axis, so this text is never shown.`,
        nearest(name, known),
        name,
      );
    }
  }
}

/** What is entered is of the field's kind, and of a list one of its entries. */
function valuesOfKind(
  component: Component,
  plan: Plan,
  sample: SampleDocument,
  at: string,
  problems: ProblemList,
): void {
  if (!component.document.behaviour?.value || !component.anatomy.control) return;
  const key = component.anatomy.control.content ?? 'value';
  const entries = choicesOf(component) ? entriesGiven({ component, sample }) : [];
  for (const value of sampleTexts(sample.content[key] as SampleText | undefined)) {
    if (value === '') continue;
    // Half a code and a text that is too long are states that one wants to see.
    if (['text', 'area', 'secret', 'search', 'code'].includes(plan.value.kind)) continue;
    const isKnown = entries.length === 0 || value.split('\n').every(each => entryOf(entries, each));
    if (isKnown && !plan.kind.isMisfit(value, plan.value)) continue;
    problems.warning(
      at + pointer('content', key),
      'unfit-value',
      isKnown
        ? `“${brief(value)}” is nothing that a ${plan.value.kind} holds.`
        : `“${brief(value)}” is none of the entries of this sample.`,
    );
  }
}

/** A value that stands for what a check refuses fails it. */
function wrongThatPasses(
  plan: Plan,
  { wrong = {} }: SampleDocument,
  at: string,
  problems: ProblemList,
): void {
  if (plan.checks.length === 0) return;
  const start = atRest(plan);
  for (const [id, text] of Object.entries(wrong)) {
    const here = at + pointer('wrong', id);
    const check = plan.checks.find(each => each.id === id);
    if (!check) {
      const ids = plan.checks.map(each => each.id);
      problems.warning(here, 'unknown-check', `There is no check “${brief(id)}”.`, nearest(id, ids), id);
      continue;
    }
    // What is compared with another field, or asked, fails only beside that.
    if (check.kind === 'ask' || check.equals !== undefined) continue;
    if ([check.least, check.most].some(bound => typeof bound === 'object')) continue;
    const value = plan.kind.read?.(text, valueFormatOf(plan, start), '') ?? text;
    if (firstFailing({ ...plan, checks: [check] }, { ...start, value }) === null)
      problems.warning(here, 'unfit-value', `“${brief(text)}” passes “${id}”, which it is to fail.`);
  }
}
