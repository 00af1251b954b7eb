import { axisOfValues } from '../components/content/sample-text';
import { OF_CONTROLS, shownKeys } from '../components/content-keys';
import type { Component } from '../components/component';
import { isObject, pointer } from '../json/json';
import { brief, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { leavesOf, propertyNamed } from '../css/property-registry';

/** What a component says that changes nothing of it, ever: rules, axes, transitions and texts without effect. */
export function idleSlips(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  idleRules(component, problems);
  idleOptions(component, problems);
  idleTransitions(component, problems);
  idleTexts(component, problems);
  return problems.problems;
}

/** One that is taken from a base may be emptied on purpose: others stand behind it. */
function idleRules({ document }: Component, problems: ProblemList): void {
  if (document.extends) return;
  (document.rules ?? []).forEach(({ id, set }, index) => {
    if (Object.values(set).every(properties => Object.keys(properties).length === 0))
      problems.warning(pointer('rules', index), 'idle-rule', `“${brief(id)}” sets nothing.`);
  });
}

/** Options on which nothing depends but what else can be chosen. Where no rule has a condition yet, none of them can be heard. */
function idleOptions({ document, space }: Component, problems: ProblemList): void {
  const { anatomy, rules = [], content, behaviour, samples = [] } = document;
  if (!rules.some(({ when }) => Object.keys(when).length > 0)) return;
  const named = namesIn([anatomy, rules, content, behaviour]);
  const ofTexts = new Set(
    samples.flatMap(sample =>
      Object.values(sample.content).flatMap(text =>
        isObject(text) ? (axisOfValues(Object.keys(text), space.axes)?.id ?? []) : [],
      ),
    ),
  );
  (document.axes ?? []).forEach(({ id, kind, values = [] }, index) => {
    if (kind !== 'option' || values.length < 2 || named.has(id) || ofTexts.has(id)) return;
    problems.warning(
      pointer('axes', index),
      'idle-axis',
      `Nothing depends on “${brief(id)}”: no rule, part or text speaks of it, so all its values look the same.`,
    );
  });
}

/** All keys and texts in some of a document. */
function namesIn(parts: readonly unknown[]): ReadonlySet<string> {
  const names = new Set<string>();
  const visit = (value: unknown): void => {
    if (typeof value === 'string') names.add(value);
    else if (Array.isArray(value)) value.forEach(visit);
    else if (isObject(value))
      for (const [key, inner] of Object.entries(value)) {
        names.add(key);
        visit(inner);
      }
  };
  parts.forEach(visit);
  return names;
}

/** Transitions of properties that no rule sets for the part: nothing ever passes from one value to another. */
function idleTransitions({ document }: Component, problems: ProblemList): void {
  const { rules = [] } = document;
  rules.forEach(({ set }, index) => {
    for (const [part, properties] of Object.entries(set)) {
      const names = properties['transition-property']?.split(',').map(name => name.trim());
      if (!names) continue;
      const settings = rules.flatMap(rule => Object.keys(rule.set[part] ?? {}).flatMap(leavesOf));
      for (const name of names) {
        if (!propertyNamed(name) || leavesOf(name).some(each => settings.includes(each))) continue;
        problems.warning(
          pointer('rules', index, 'set', part, 'transition-property'),
          'idle-transition',
          `No rule sets ${brief(name)} of “${brief(part)}”, so nothing passes from one value of it to another.`,
        );
      }
    }
  });
}

/** Texts of samples that no part shows and no check says. */
function idleTexts(component: Component, problems: ProblemList): void {
  const { document, samples } = component;
  const shown = new Set([
    ...OF_CONTROLS,
    ...shownKeys(component),
    ...(document.content ?? []).map(({ id }) => id),
    ...namesIn([document.behaviour]),
  ]);
  samples.forEach(({ content }, index) => {
    for (const key of Object.keys(content)) {
      if (shown.has(key)) continue;
      problems.warning(
        pointer('samples', index, 'content', key),
        'unused-content',
        `No part shows “${brief(key)}”, and no check says it.`,
        nearest(key, shown),
        key,
      );
    }
  });
}
