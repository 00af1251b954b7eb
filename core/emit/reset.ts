import type { Part } from '../anatomy/anatomy';
import type { Component } from '../rules/component';
import { partClass } from './class-names';
import type { StyleBlock } from './stylesheet';

type Declarations = readonly (readonly [string, string])[];

const EVERY_PART: Declarations = [
  ['box-sizing', 'border-box'],
  ['margin', '0'],
  ['padding', '0'],
  ['border', '0 solid'],
  ['min-width', '0'],
];

/** What browsers give to elements and a design system decides itself. One row per kind of part. */
const BY_KIND: Readonly<Record<string, Declarations>> = {
  control: [
    ['appearance', 'none'],
    ['flex', '1 1 0px'],
    ['width', '100%'],
    ['background-color', 'transparent'],
    ['border-radius', '0'],
    ['color', 'inherit'],
    ['font', 'inherit'],
    ['letter-spacing', 'inherit'],
    ['line-height', 'inherit'],
    ['text-align', 'inherit'],
    ['cursor', 'inherit'],
    ['outline', '0 none'],
    ['opacity', '1'],
  ],
  action: [
    ['appearance', 'none'],
    ['background-color', 'transparent'],
    ['border-radius', '0'],
    ['color', 'inherit'],
    ['font', 'inherit'],
    ['cursor', 'inherit'],
  ],
  icon: [
    ['flex', 'none'],
    ['pointer-events', 'none'],
  ],
};

/** The ground on which the rules stand. Its selectors weigh what a rule's weigh and come before them. */
export function resetBlocks(component: Component, prefix: string): StyleBlock[] {
  const { parts } = component.anatomy;
  const selectorOf = (part: Part): string => `.${partClass(prefix, component, part.name)}`;
  const every = { key: 'reset', selector: parts.map(selectorOf).join(', '), declarations: EVERY_PART };
  // Parts of one kind need the same.
  const kinds = [...new Set(parts.map(part => part.kind))];
  const blocks = kinds.map(kind => ({
    key: `reset/${kind.kind}`,
    selector: parts
      .filter(part => part.kind === kind)
      .map(selectorOf)
      .join(', '),
    declarations: [...kind.layout, ...(BY_KIND[kind.kind] ?? [])],
  }));
  return [every, ...blocks, ...insideBlocks(component, prefix)];
}

/** Elements inside a part that are no parts themselves: the drawing in an icon, the placeholder in a control. */
const INSIDE: readonly { kind: string; selector: string; declarations: Declarations }[] = [
  {
    kind: 'icon',
    selector: ' > svg',
    declarations: [
      ['display', 'block'],
      ['width', '100%'],
      ['height', '100%'],
      ['fill', 'currentcolor'],
    ],
  },
  {
    // The placeholder takes the control's colour: a rule for an empty field colours it.
    kind: 'control',
    selector: '::placeholder',
    declarations: [
      ['color', 'inherit'],
      ['opacity', '1'],
    ],
  },
];

function insideBlocks(component: Component, prefix: string): StyleBlock[] {
  return INSIDE.flatMap(({ kind, selector, declarations }) => {
    const parts = component.anatomy.parts.filter(part => part.kind.kind === kind);
    if (parts.length === 0) return [];
    const selectors = parts.map(part => `.${partClass(prefix, component, part.name)}${selector}`);
    return [{ key: `reset/${kind}${selector}`, selector: selectors.join(', '), declarations }];
  });
}
