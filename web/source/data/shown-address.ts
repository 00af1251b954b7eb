import type { Component } from '@periwinkle/core/components/component';
import type { Combination } from '@periwinkle/core/space/space';

/** Address parameter that names one combination of a component: `shown=content:filled,validity:invalid`. */
export const SHOWN = 'shown';

/** The combination that the address names, after the limits. */
export function shownIn({ space }: Component, text: string | null): Combination {
  const said = Object.fromEntries(
    (text ?? '').split(',').flatMap(pair => {
      const [axis, value] = pair.split(':');
      const place = space.axes.find(each => each.id === axis);
      return place && value !== undefined && place.indexOf.has(value) ? [[place.id, value]] : [];
    }),
  );
  return space.written(space.settled(space.indices(said)).combination);
}

/** A combination as the address names it; nothing of one at rest. */
export function shownText({ space }: Component, combination: Combination): string | null {
  const said = space.axes.flatMap(axis => {
    const value = combination[axis.id];
    return value === undefined || value === axis.values[axis.rest]!.id ? [] : [`${axis.id}:${value}`];
  });
  return said.length === 0 ? null : said.join(',');
}
