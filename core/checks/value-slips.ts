import type { Component } from '../components/component';
import { brief, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { PROPERTY_NAMES, propertyNamed } from '../css/property-registry';
import { settingPointer } from './check-values';

/** Times the size of a font that no line is high; whoever says more means px. */
const HIGHEST_LINE = 4;

/** Slips in what rules say: values that CSS takes, and that do nothing or something that nobody wants. */
export function valueSlips(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  for (const rule of component.rules.filter(({ nested }) => nested === undefined))
    for (const setting of rule.written) {
      const { property, text } = setting;
      const at = settingPointer(rule, setting);
      if (property.name === 'transition-property') transitionNames(text, at, problems);
      if (property.name === 'line-height' && Number(text) > HIGHEST_LINE)
        problems.warning(
          at,
          'unlikely-value',
          `Lines of ${text} times the size of the font; a length has a unit.`,
          `${text}px`,
        );
    }
  return problems.problems;
}

function transitionNames(text: string, at: string, problems: ProblemList): void {
  // What is no list of names is read elsewhere.
  if (/[{(]/.test(text)) return;
  for (const name of text.split(',').map(each => each.trim())) {
    if (name === '' || name.startsWith('--') || WIDE.includes(name) || propertyNamed(name)) continue;
    // CSS knows more properties than rules can set; those are written with a hyphen, or are no slip that one can tell.
    const near = nearest(name, PROPERTY_NAMES);
    if (near === undefined) continue;
    problems.warning(
      at,
      'unknown-property',
      `“${brief(name)}” is no property, so nothing moves.`,
      near,
      name,
    );
  }
}

const WIDE = ['all', 'none', 'inherit', 'initial', 'unset'];
