import type { ComponentDocument, ConditionDocument, LimitDocument } from '../formats/component-document';
import { pointer } from '../formats/json';
import type { ProblemList } from '../formats/problem';
import { readAxes, type Axis } from './axis';
import { volume, type Box } from './box';
import { readCondition } from './condition';
import { allowedIn, piecesOf, preimage, settle, UnsettledLimits, type Limit, type Piece } from './limits';
import { simplify } from './simplify';

/** A combination as people write it: axis to value. */
export interface Combination {
  readonly [axis: string]: string;
}

/** The space of a component's combinations, with its limits compiled. */
export class Space {
  readonly full: Box;
  private readonly pieces: readonly Piece[];
  private readonly indexOfAxis: ReadonlyMap<string, number>;

  private constructor(
    readonly axes: readonly Axis[],
    readonly limits: readonly Limit[],
    pieces: readonly Piece[],
  ) {
    this.full = fullBox(axes);
    this.pieces = pieces;
    this.indexOfAxis = new Map(axes.map((axis, index) => [axis.id, index]));
  }

  /** Compiles axes and limits of a document; what cannot be read is reported and left out. */
  static read(document: ComponentDocument, problems: ProblemList): Space {
    const axes = readAxes(document.axes ?? [], problems);
    const limits = (document.limits ?? []).flatMap(
      (limit, index) => readLimit(limit, index, axes, problems) ?? [],
    );
    try {
      return new Space(axes, limits, piecesOf(fullBox(axes), limits));
    } catch (error) {
      if (!(error instanceof UnsettledLimits)) throw error;
      const where = error.combination
        .map((value, axis) => `${axes[axis]!.id} ${axes[axis]!.values[value]!.id}`)
        .join(', ');
      const names = error.limits.map(index => index + 1).join(' and ');
      problems.error(
        pointer('limits', error.limits[0] ?? 0),
        'unsettled-limits',
        `Limits ${names} push each other round without end, for example at ${where}.`,
      );
      return new Space(axes, [], piecesOf(fullBox(axes), []));
    }
  }

  axisIndex(id: string): number {
    return this.indexOfAxis.get(id) ?? -1;
  }

  /** Value indices for a written combination: unnamed axes at rest, unknown names ignored. */
  indices(combination: Combination): number[] {
    return this.axes.map(axis => {
      const index = axis.values.findIndex(value => value.id === combination[axis.id]);
      return index < 0 ? axis.rest : index;
    });
  }

  /** The written form of value indices, every axis named. */
  written(indices: readonly number[]): Combination {
    return Object.fromEntries(this.axes.map((axis, index) => [axis.id, axis.values[indices[index]!]!.id]));
  }

  /** What the limits make of a raw combination, and the reasons of the limits that changed something. */
  settled(raw: readonly number[]): { combination: readonly number[]; because: readonly string[] } {
    const { combination, acted } = settle(raw, this.limits);
    return {
      combination,
      because: acted.map(index => this.limits[index]!.because).filter(text => text !== ''),
    };
  }

  /** Number of allowed combinations in a region; the whole space by default. */
  count(region: Box = this.full): bigint {
    return allowedIn(this.pieces, region).reduce((sum, box) => sum + volume(box), 0n);
  }

  /** The allowed combinations of a region as disjoint boxes. */
  allowed(region: Box = this.full): Box[] {
    return allowedIn(this.pieces, region);
  }

  /** Few wide boxes of all raw combinations that count as some combination of `region`. */
  reachedFrom(region: Box): Box[] {
    return simplify(preimage(this.pieces, region), this.full);
  }
}

/** Whether a combination (value indices) lies in a box. */
export function inBox(box: Box, indices: readonly number[]): boolean {
  for (let axis = 0; axis < box.length; axis++) if (!((box[axis]! >> indices[axis]!) & 1)) return false;
  return true;
}

const fullBox = (axes: readonly Axis[]): Box => axes.map(axis => 2 ** axis.values.length - 1);

function readLimit(
  document: LimitDocument,
  index: number,
  axes: readonly Axis[],
  problems: ProblemList,
): Limit | null {
  const at = pointer('limits', index);
  const region = readCondition(document.while, axes, `${at}/while`, problems);
  // What a limit holds is a plain set of values: "away" means away, not "at least away".
  const exact: ConditionDocument = Object.fromEntries(
    Object.entries(document.holds).map(([axis, value]) => [axis, [value].flat()]),
  );
  const held = readCondition(exact, axes, `${at}/holds`, problems);
  if (!region || !held) return null;
  const holds = Object.entries(exact).map(([id, values]) => {
    const axis = axes.findIndex(candidate => candidate.id === id);
    const first = axes[axis]!.values.findIndex(value => value.id === values[0]);
    return { axis, allowed: held[axis]!, first };
  });
  return { region, holds, because: document.because ?? '' };
}
