import type { Component } from '../components/component';
import type { System } from '../components/system';
import { inFile, ProblemList, type Problem } from '../json/problem';

/** Controls that no part names (WCAG 2.2, 4.1.2 and 3.3.2). Within another component the label is that one's matter, and a button shows its name itself. */
export function unlabelledControls({ components, fileOf }: System): Problem[] {
  const used = new Set(components.flatMap(({ nested }) => nested.map(({ component }) => component.id)));
  return components.flatMap(component => {
    const list = new ProblemList();
    if (!used.has(component.id) && isUnlabelled(component))
      list.warning(
        '/anatomy',
        'no-label',
        'Nothing says what the control is for: a part of kind “label” names it, on the screen and to assistive technology.',
      );
    return inFile(fileOf.get(component.id)!, list.problems);
  });
}

// What is taken of a base is told there, and what has no sample yet is only begun.
const isUnlabelled = ({ anatomy, derivation, samples }: Component): boolean =>
  derivation === null &&
  samples.length > 0 &&
  anatomy.control !== null &&
  anatomy.control.nested === null &&
  anatomy.control.element !== 'button' &&
  !anatomy.parts.some(({ kind }) => kind.kind === 'label');
