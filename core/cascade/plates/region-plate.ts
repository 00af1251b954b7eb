import type { Component } from '../../components/component';
import { bits, type Box } from '../../space/box';
import type { Extent } from '../../space/extent';
import type { Arrangement } from './plate-grid';

/** So many axes may run in one direction of a plate that is made for a region. */
const MOST = 2;

/**
 * A plate on which a region can be seen among its neighbours: axes that the region names run across and down, the others are
 * held where one of its combinations has them, at rest as far as possible.
 */
export function regionArrangement(component: Component, region: Box, sample: string | null): Arrangement {
  const { axes, full } = component.space;
  const named = axes.flatMap((axis, index) => (region[index] === full[index] ? [] : [axis]));
  const states = named.filter(axis => axis.kind === 'state');
  const options = named.filter(axis => axis.kind === 'option');
  // States run across as they do on most plates; where all are of one kind, half of them run down.
  const mixed = states.length > 0 && options.length > 0;
  const across = (mixed ? states : named.slice(0, Math.floor(named.length / 2))).slice(0, MOST);
  const down = named.filter(axis => !across.includes(axis)).slice(0, MOST);
  const shown = plainestIn(component, component.space.allowedIn(region)) ?? component.space.indices({});
  const laidOut = new Set([...across, ...down]);
  const hold = axes.flatMap((axis, index) =>
    laidOut.has(axis) || shown[index] === axis.rest ? [] : [[axis.id, axis.values[shown[index]!]!.id]],
  );
  return {
    across: across.map(axis => axis.id),
    down: down.map(axis => axis.id),
    hold: Object.fromEntries(hold) as Record<string, string>,
    sample,
  };
}

/** So many boxes are looked at for the plainest combination. */
const LOOKED_AT = 200;

/** The own combination (value indices) of an extent that departs least from rest and defaults; `null` if there is none. */
export function plainestIn({ space }: Component, where: Extent): number[] | null {
  const { axes, extents } = space;
  const atRest = (box: Box): number => box.filter((mask, index) => (mask >> axes[index]!.rest) & 1).length;
  let plainest: Box | null = null;
  let looked = 0;
  for (const whole of extents.boxesOf(extents.shadow(where))) {
    const box = whole.slice(0, axes.length);
    if (!plainest || atRest(box) > atRest(plainest)) plainest = box;
    if (++looked === LOOKED_AT) break;
  }
  return (
    plainest &&
    plainest.map((mask, index) => ((mask >> axes[index]!.rest) & 1 ? axes[index]!.rest : bits(mask)[0]!))
  );
}
