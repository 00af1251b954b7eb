import type { Limit } from './limit';
import { isEmpty, subtract, withMask, type Box } from './box';
import { joined } from './merge-boxes';
import { appliedOnce } from './apply-limits';

/** A region of raw combinations that the limits treat alike: per axis kept as it is (`-1`) or set to one value. */
export interface Piece {
  readonly box: Box;
  readonly target: readonly number[];
}

/** Limits that push a combination round in a circle: it never settles. */
export class UnsettledLimits extends Error {
  constructor(
    readonly combination: readonly number[],
    /** Places in the document of the limits that act in the circle. */
    readonly limits: readonly number[],
  ) {
    super('These limits never settle.');
    this.name = 'UnsettledLimits';
  }
}

/** Applies limits to one combination (value indices) until nothing changes; also tells which limits acted. */
export function settle(
  raw: readonly number[],
  limits: readonly Limit[],
): { combination: number[]; acted: readonly Limit[] } {
  let combination = [...raw];
  // Most combinations are left as they are.
  if (limits.every(limit => appliedOnce(raw, limit) === null)) return { combination, acted: [] };
  const acted = new Set<Limit>();
  const seen = new Set([combination.join()]);
  for (let index = 0; index < limits.length;) {
    const next = appliedOnce(combination, limits[index]!);
    if (!next) {
      index++;
      continue;
    }
    combination = next;
    acted.add(limits[index]!);
    if (seen.has(combination.join()))
      throw new UnsettledLimits(
        raw,
        [...acted].map(limit => limit.index),
      );
    seen.add(combination.join());
    index = 0;
  }
  return { combination, acted: [...acted] };
}

/** Limits so entangled that they part the space into more pieces than anybody could oversee. */
export class TangledLimits extends Error {
  constructor() {
    super(`These limits part the space into more than ${MAX_PIECES} pieces.`);
    this.name = 'TangledLimits';
  }
}

const MAX_PIECES = 1500;

/** Each axis that a limit holds can double the pieces: called before there are so many that nobody gets to count them. Throws `TangledLimits`. */
export function refuseMore(pieces: readonly unknown[]): void {
  if (pieces.length > MAX_PIECES) throw new TangledLimits();
}

interface OpenPiece extends Piece {
  /** Limits that acted, each with the target it led to, to notice a circle. */
  readonly passed: readonly string[];
  /** Whether the last of them has led there before. */
  readonly circling: boolean;
}

/** A region of raw combinations that never settle, with the places of the limits that act in it. */
export interface Endless {
  readonly box: Box;
  readonly limits: readonly number[];
}

/**
 * Parts the raw space into disjoint pieces on which the limits do one thing. The number of pieces grows with limits and
 * axes, not with combinations: a piece is split only along the axes that a limit names. Regions that never settle are told
 * to `endless`, and are in no piece. Throws `TangledLimits`.
 */
export function parted(full: Box, limits: readonly Limit[], endless: (found: Endless) => void): Piece[] {
  const open: OpenPiece[] = [{ box: full, target: full.map(() => -1), passed: [], circling: false }];
  const settled: Piece[] = [];
  const known = limits.map(limit => ({ limit, named: namedAxes(limit.region, full) }));
  for (let piece = open.pop(); piece; piece = open.pop()) {
    const parts = piece.circling ? null : applyFirst(piece, known);
    if (parts) open.push(...parts);
    else if (piece.circling) endless({ box: piece.box, limits: limitsPassed(piece) });
    else settled.push({ box: piece.box, target: piece.target });
    if (open.length + settled.length > MAX_PIECES) throw new TangledLimits();
  }
  return joinAlike(settled);
}

/** The pieces of limits that settle everywhere. Throws `UnsettledLimits` and `TangledLimits`. */
export const piecesOf = (full: Box, limits: readonly Limit[]): Piece[] =>
  parted(full, limits, ({ box, limits: places }) => {
    const combination = box.map(mask => 31 - Math.clz32(mask & -mask));
    throw new UnsettledLimits(combination, places);
  });

const limitsPassed = ({ passed }: OpenPiece): number[] => [
  ...new Set(passed.map(text => Number(text.split(':')[0]))),
];

interface Named {
  readonly limit: Limit;
  /** Axes that it is not for all values of: few of many. */
  readonly named: readonly number[];
}

/** The axes of which a region does not have all values. */
export const namedAxes = (region: Box, full: Box): number[] =>
  region.flatMap((mask, axis) => (mask === full[axis] ? [] : [axis]));

/** Whether a limit changes something in a piece. This is asked of each limit for each piece. */
function acts({ box, target }: Piece, { limit: { region, holds }, named }: Named): boolean {
  for (const axis of named) {
    const fixed = target[axis]!;
    if (((fixed >= 0 ? 1 << fixed : box[axis]!) & region[axis]!) === 0) return false;
  }
  return holds.some(({ axis, allowed }) => {
    const fixed = target[axis]!;
    return ((fixed >= 0 ? 1 << fixed : box[axis]! & region[axis]!) & ~allowed) !== 0;
  });
}

/** Splits a piece by the first limit that acts in it, or gives `null` when none does. */
function applyFirst(piece: OpenPiece, limits: readonly Named[]): OpenPiece[] | null {
  for (const each of limits) {
    if (!acts(piece, each)) continue;
    const { limit } = each;
    const inside = restrict(piece, limit.region)!;
    const violations = limit.holds.map(hold => ({ ...hold, bad: violating(piece, inside, hold) }));
    const outside = subtract(piece.box, inside).map(box => ({ ...piece, box }));
    // Inside, each held axis is split into the values that stay and the values that are changed.
    let parts: { box: Box; target: readonly number[]; changed: boolean }[] = [
      { box: inside, target: piece.target, changed: false },
    ];
    for (const { axis, bad, first } of violations) {
      if (bad === 0) continue;
      parts = parts.flatMap(part => {
        const stays = part.box[axis]! & ~bad;
        const change = {
          box: withMask(part.box, axis, part.box[axis]! & bad),
          target: replaced(part.target, axis, first),
          changed: true,
        };
        return stays === 0 ? [change] : [{ ...part, box: withMask(part.box, axis, stays) }, change];
      });
      refuseMore(parts);
    }
    return [...outside, ...parts.map(part => nextPiece(piece, part, limit))];
  }
  return null;
}

function nextPiece(
  piece: OpenPiece,
  part: { box: Box; target: readonly number[]; changed: boolean },
  limit: Limit,
): OpenPiece {
  if (!part.changed) return { ...piece, box: part.box };
  const state = `${limit.index}:${part.target.join()}`;
  const circling = piece.passed.includes(state);
  return { box: part.box, target: part.target, passed: [...piece.passed, state], circling };
}

/** The part of a piece whose image lies in `region`, or `null`. */
export function restrict(piece: Piece, region: Box): Box | null {
  const box: number[] = [];
  for (let axis = 0; axis < region.length; axis++) {
    const fixed = piece.target[axis]!;
    if (fixed >= 0 && !((region[axis]! >> fixed) & 1)) return null;
    box.push(fixed >= 0 ? piece.box[axis]! : piece.box[axis]! & region[axis]!);
  }
  return isEmpty(box) ? null : box;
}

function violating(piece: Piece, inside: Box, hold: Limit['holds'][number]): number {
  const fixed = piece.target[hold.axis]!;
  if (fixed < 0) return inside[hold.axis]! & ~hold.allowed;
  return (hold.allowed >> fixed) & 1 ? 0 : inside[hold.axis]!;
}

/** A target with one axis set to a value. */
export const replaced = (target: readonly number[], axis: number, value: number): number[] =>
  target.map((old, index) => (index === axis ? value : old));

function joinAlike(pieces: readonly Piece[]): Piece[] {
  const byTarget = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const key = piece.target.join();
    byTarget.set(key, [...(byTarget.get(key) ?? []), piece]);
  }
  return [...byTarget.values()].flatMap(alike =>
    joined(alike.map(({ box }) => box)).map(box => ({ box, target: alike[0]!.target })),
  );
}
