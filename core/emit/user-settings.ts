import type { Component } from '../components/component';
import type { Box } from '../space/box';
import type { ComponentNames } from './names';
import { pressArea } from './press-area';
import { boxFormulas, type SelectorScheme } from './selector-scheme';
import type { StyleBlock } from './stylesheet';

type Declarations = readonly (readonly [string, string])[];

/** What must be seen of a state where the person's own colours replace ours: one row each, the later over the earlier. */
const FORCED: readonly {
  readonly axis: string;
  readonly value: string;
  readonly frame: Declarations;
  readonly text?: Declarations;
}[] = [
  {
    axis: 'validity',
    value: 'invalid',
    frame: [
      ['border-color', 'CanvasText'],
      ['border-style', 'dotted'],
      ['outline', '1px dashed CanvasText'],
    ],
  },
  {
    axis: 'focus',
    value: 'keyboard',
    frame: [
      ['outline', '2px solid Highlight'],
      ['outline-offset', '2px'],
    ],
  },
  {
    axis: 'availability',
    value: 'disabled',
    frame: [['border-color', 'GrayText']],
    text: [['color', 'GrayText']],
  },
];

/** What follows the settings of the person at the machine, after all rules: forced colours, reduced motion. */
export function userSettingBlocks(
  component: Component,
  names: ComponentNames,
  scheme: SelectorScheme,
): StyleBlock[] {
  return [...forcedColors(component, names, scheme), ...reducedMotion(component, names, scheme)];
}

function forcedColors(component: Component, names: ComponentNames, scheme: SelectorScheme): StyleBlock[] {
  const { space, anatomy } = component;
  const framed = pressArea(component) ?? anatomy.bearer ?? anatomy.root;
  const texts = anatomy.parts.filter(part => !part.kind.box).map(part => part.name);
  const formulaOf = boxFormulas(scheme, component, names);
  return FORCED.flatMap(({ axis, value, frame, text }) => {
    const index = space.axisIndex(axis);
    const place = space.axes[index]?.indexOf.get(value);
    if (place === undefined) return [];
    const ladder = space.axes[index]!.ladder;
    const region: Box = space.full.map((mask, each) =>
      each !== index ? mask : ladder ? (mask >> place) << place : 1 << place,
    );
    const where = space.reachedFrom(region);
    const formula = formulaOf(space.cover(where, 0));
    const block = (parts: readonly string[], declarations: Declarations): StyleBlock => ({
      key: `forced ${axis}=${value}/${parts.join('+')}`,
      within: '@media (forced-colors: active)',
      selector: scheme.select(component, parts, formula, names),
      declarations,
    });
    return [block([framed.name], frame), ...(text && texts.length > 0 ? [block(texts, text)] : [])];
  });
}

function reducedMotion(component: Component, names: ComponentNames, scheme: SelectorScheme): StyleBlock[] {
  const moving = new Set(
    component.rules.flatMap(({ settings }) =>
      settings.filter(({ property }) => property.name === 'transition-property').map(({ part }) => part),
    ),
  );
  if (moving.size === 0) return [];
  return [
    {
      key: 'reduced motion',
      within: '@media (prefers-reduced-motion: reduce)',
      selector: scheme.select(component, [...moving], { kind: 'true' }, names),
      declarations: [['transition-property', 'none']],
    },
  ];
}
