import { contains, type Box } from './box';
import { EVERYWHERE, NOWHERE, type Extent, type Extents } from './extent';

/** How many starting points are tried for each box of a cover. */
const TRIES = 4;

/**
 * Few, wide boxes that together hold all of `wanted` and nothing but `wanted` and `free` (what does not matter). Each is
 * as wide as it can be and none is covered by the others. Found greedily, as two-level minimisers of logic do (R. K.
 * Brayton et al., "Logic Minimization Algorithms for VLSI Synthesis", 1984): the smallest such cover is NP-hard to find.
 * Where one box is enough, one is given.
 */
export function readableCover(extents: Extents, wanted: Extent, free: Extent = NOWHERE): Box[] {
  const forbidden = extents.minus(EVERYWHERE, extents.or(wanted, free));
  const cover: Box[] = [];
  for (let open = wanted; open !== NOWHERE; open = extents.minus(open, extents.of(cover.at(-1)!))) {
    cover.push(widestFrom(extents, open, forbidden));
  }
  return irredundant(extents, cover, wanted);
}

/** A box that must be held, and a wider one around it that may be. */
export interface WantedBox {
  readonly must: Box;
  readonly may: Box;
}

/** For each box of a cover the part of the whole that is left to it by those before. */
export function shares(extents: Extents, whole: Extent, cover: readonly Box[]): WantedBox[] {
  let open = whole;
  return cover.map(may => {
    const must = extents.hull(extents.and(open, extents.of(may)));
    open = extents.minus(open, extents.of(must));
    return { must, may };
  });
}

/** The box that covers most of what is still open, among those grown from a few places in it. */
function widestFrom(extents: Extents, open: Extent, forbidden: Extent): Box {
  const around = extents.hull(open);
  if (!extents.meets(forbidden, around))
    return letIn(extents, freed(extents, around, forbidden, false), forbidden);
  const grown: Box[] = [];
  let tries = 0;
  for (const start of extents.boxesOf(open)) {
    // From inside a box that is known the way leads to the same one nearly always.
    if (!grown.some(box => contains(box, start)))
      grown.push(freed(extents, start, forbidden, false), freed(extents, start, forbidden, true));
    if (++tries === TRIES) break;
  }
  const named = (box: Box): number => box.filter((mask, axis) => mask !== extents.full[axis]).length;
  const rated = grown.map(box => ({ box, covers: extents.share(open, box), named: named(box) }));
  const best = rated.reduce((sofar, each) =>
    each.covers > sofar.covers || (each.covers === sofar.covers && each.named < sofar.named) ? each : sofar,
  );
  return letIn(extents, best.box, forbidden);
}

/** Frees every axis that can be free. */
function freed(extents: Extents, start: Box, forbidden: Extent, fromLast: boolean): Box {
  const box = [...start];
  for (let step = 0; step < box.length; step++) {
    const axis = fromLast ? box.length - 1 - step : step;
    if (box[axis] !== extents.full[axis] && extents.meeting(forbidden, box, axis) === 0)
      box[axis] = extents.full[axis]!;
  }
  return box;
}

/** Lets in every single value that can be. */
function letIn(extents: Extents, start: Box, forbidden: Extent): Box {
  const box = [...start];
  for (let axis = 0; axis < box.length; axis++) {
    if (box[axis] !== extents.full[axis])
      box[axis] = extents.full[axis]! & ~extents.meeting(forbidden, box, axis);
  }
  return box;
}

/** Leaves out boxes whose share the others hold too, the last found first. */
function irredundant(extents: Extents, cover: readonly Box[], wanted: Extent): Box[] {
  const before: Extent[] = [NOWHERE];
  for (const box of cover) before.push(extents.or(before.at(-1)!, extents.of(box)));
  const kept: Box[] = [];
  let after: Extent = NOWHERE;
  for (let place = cover.length - 1; place >= 0; place--) {
    const others = extents.or(before[place]!, after);
    if (extents.minus(wanted, others) === NOWHERE) continue;
    kept.unshift(cover[place]!);
    after = extents.or(after, extents.of(cover[place]!));
  }
  return kept;
}
