import { bits, withMask, type Box } from './box';
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
  const starts: Box[] = [];
  for (const box of extents.boxesOf(open)) {
    starts.push(box);
    if (starts.length === TRIES) break;
  }
  const grown = starts.flatMap(start => [
    freed(extents, start, forbidden, false),
    freed(extents, start, forbidden, true),
  ]);
  const named = (box: Box): number => box.filter((mask, axis) => mask !== extents.full[axis]).length;
  const rated = grown.map(box => ({ box, covers: extents.share(open, box), named: named(box) }));
  const best = rated.reduce((sofar, each) =>
    each.covers > sofar.covers || (each.covers === sofar.covers && each.named < sofar.named) ? each : sofar,
  );
  return letIn(extents, best.box, forbidden);
}

/** Frees every axis that can be free. */
function freed(extents: Extents, start: Box, forbidden: Extent, fromLast: boolean): Box {
  const axes = start.map((_, axis) => axis);
  if (fromLast) axes.reverse();
  let box = start;
  for (const axis of axes) {
    if (box[axis] === extents.full[axis]) continue;
    const free = withMask(box, axis, extents.full[axis]!);
    if (!extents.meets(forbidden, free)) box = free;
  }
  return box;
}

/** Lets in every single value that can be. */
function letIn(extents: Extents, start: Box, forbidden: Extent): Box {
  let box = start;
  for (let axis = 0; axis < start.length; axis++) {
    for (const value of bits(extents.full[axis]! & ~box[axis]!)) {
      const wider = withMask(box, axis, box[axis]! | (1 << value));
      if (!extents.meets(forbidden, wider)) box = wider;
    }
  }
  return box;
}

/** Leaves out boxes whose share the others hold too, the narrowest first. */
function irredundant(extents: Extents, cover: readonly Box[], wanted: Extent): Box[] {
  let kept = [...cover];
  for (const box of [...cover].reverse()) {
    const others = kept.filter(other => other !== box);
    const rest = extents.minus(wanted, extents.union(others.map(other => extents.of(other))));
    if (rest === NOWHERE) kept = others;
  }
  return kept;
}
