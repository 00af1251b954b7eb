import type { Component } from '../../components/component';
import type { Box } from '../../space/box';
import { NOWHERE, type Extent } from '../../space/extent';
import type { ComponentNames } from '../../render/names';
import { bearingWay } from '../../components/nesting/nested-names';
import { pressArea } from '../../render/press-area';
import { boxConditions } from './box-conditions';
import { ALWAYS } from './condition';
import { selectorOf, type SelectorScheme } from './selector-scheme';
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
  return [...forcedColorBlocks(component, names, scheme), ...reducedMotion(component, names, scheme)];
}

/** A component, or one within it, as the outermost sees it. */
interface Seen {
  readonly component: Component;
  /** Name of a part of it in the outermost. */
  readonly part: (name: string) => string;
  /** The outermost component's raw combinations in which this one is in a region. */
  readonly where: (region: Box) => Extent;
}

/** What must be seen where the person's own colours replace ours. */
export function forcedColorBlocks(
  outermost: Component,
  names: ComponentNames,
  scheme: SelectorScheme,
): StyleBlock[] {
  const conditionOf = boxConditions(scheme, outermost, names);
  return everySeen(outermost).flatMap(({ component, part, where }) => {
    const { space, anatomy } = component;
    const framed = pressArea(component) ?? anatomy.bearer ?? anatomy.root;
    const texts = anatomy.parts
      .filter(each => !each.kind.box && bearingWay(component, each) === '')
      .map(each => part(each.name));
    return FORCED.flatMap(({ axis, value, frame, text }) => {
      const index = space.axes.findIndex(({ id }) => id === axis);
      const place = space.axes[index]?.indexOf.get(value);
      if (place === undefined) return [];
      const ladder = space.axes[index]!.ladder;
      const region: Box = space.full.map((mask, each) =>
        each !== index ? mask : ladder ? (mask >> place) << place : 1 << place,
      );
      const raw = where(region);
      if (raw === NOWHERE) return [];
      const condition = conditionOf(outermost.space.cover(raw, NOWHERE));
      const block = (parts: readonly string[], declarations: Declarations): StyleBlock => ({
        key: `forced ${axis}=${value}/${parts.join('+')}`,
        within: '@media (forced-colors: active)',
        selector: selectorOf(scheme, outermost, parts, condition, names),
        declarations,
      });
      return [block([part(framed.name)], frame), ...(text && texts.length > 0 ? [block(texts, text)] : [])];
    });
  });
}

/** The component itself and all within it that bear states of their own. */
function everySeen(component: Component): Seen[] {
  const { space } = component;
  const own: Seen = { component, part: name => name, where: region => space.reachedFrom(region) };
  const within = (outer: Component, prefix: string, carry: (extent: Extent) => Extent): Seen[] =>
    outer.nested.flatMap(({ name, component: nested, reading }) => {
      const here = (extent: Extent): Extent => carry(reading.where(extent));
      const seen: Seen = {
        component: nested,
        part: part => `${prefix}${name}/${part}`,
        where: region => here(nested.space.extents.of(region)),
      };
      return [...(nested.anatomy.bearer ? [seen] : []), ...within(nested, `${prefix}${name}/`, here)];
    });
  return [own, ...within(component, '', extent => space.reachedBy({ region: space.full, extent }))];
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
      selector: selectorOf(scheme, component, [...moving], ALWAYS, names),
      declarations: [['transition-property', 'none']],
    },
  ];
}
