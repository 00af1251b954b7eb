import type { ComponentDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import type { ProblemList } from '../json/problem';
import { readAxes, type Axis } from './axis';
import { isEmpty, type Box } from './box';
import { EVERYWHERE, NOWHERE, Extents, type Extent } from './extent';
import { effectOf } from './limit-effect';
import { limitClusters, preimage, type LimitCluster } from './limit-clusters';
import { orderDependence, type OrderDependence } from './limit-order';
import type { Limit } from './limit';
import { settle, TangledLimits, UnsettledLimits } from './limits';
import { readableCover, shares, type WantedBox } from './readable-cover';
import { readLimits } from './read-limits';

/** A combination as people write it: axis to value. */
export interface Combination {
  readonly [axis: string]: string;
}

/** So many answers of one kind are remembered. */
const MAX_COVERS = 5000;

/**
 * The space of a component's combinations, with its limits compiled. Where a component uses others, its sets of combinations may
 * also depend on axes that these keep to themselves, the *inner* ones; combinations are counted over the component's own.
 */
export class Space {
  /** Over the own axes. */
  readonly full: Box;
  readonly extents: Extents;
  /** The combinations that the limits leave as they are. */
  readonly allowed: Extent;
  /** All others. */
  readonly never: Extent;
  private readonly reached = new Map<string, Extent>();
  private readonly covers = new Map<string, readonly WantedBox[]>();
  private readonly indexOfAxis: ReadonlyMap<string, number>;

  /** Own axes, then the inner ones. */
  readonly everyAxis: readonly Axis[];

  private constructor(
    /** The component's own. */
    readonly axes: readonly Axis[],
    /** Named by the path of the part that uses their component: `less/pointer`. */
    readonly inner: readonly Axis[],
    readonly limits: readonly Limit[],
    private readonly clusters: readonly LimitCluster[],
  ) {
    this.full = fullBox(axes);
    this.everyAxis = inner.length === 0 ? axes : [...axes, ...inner];
    const levels = [...limitedLast(axes.length, clusters), ...inner.map((_, index) => axes.length + index)];
    this.extents = new Extents(fullBox(this.everyAxis), levels, axes.length);
    this.never = this.extents.union(limits.map(limit => this.brokenWhere(limit)));
    this.allowed = this.extents.minus(EVERYWHERE, this.never);
    this.indexOfAxis = new Map(this.everyAxis.map((axis, index) => [axis.id, index]));
  }

  /** Compiles axes and limits of a document; what cannot be read is reported and left out. */
  static read(
    document: Pick<ComponentDocument, 'axes' | 'limits'>,
    problems: ProblemList,
    inner: readonly Axis[] = [],
  ): Space {
    const axes = readAxes(document.axes ?? [], problems);
    const limits = readLimits(document.limits ?? [], axes, problems);
    const full = fullBox(axes);
    try {
      const clusters = limitClusters(full, limits);
      const space = new Space(axes, inner, limits, clusters);
      for (const cluster of clusters) {
        const found = orderDependence(cluster, limits);
        if (found) space.reportOrder(found, problems);
      }
      return space;
    } catch (error) {
      const space = new Space(axes, inner, [], []);
      if (error instanceof UnsettledLimits) space.reportCircle(error, problems);
      else if (error instanceof TangledLimits) problems.error('/limits', 'tangled-limits', error.message);
      else throw error;
      return space;
    }
  }

  /** Place among own and inner axes; -1 where there is no such axis. */
  axisIndex(id: string): number {
    return this.indexOfAxis.get(id) ?? -1;
  }

  /** Value indices for a written combination, inner axes last: unnamed axes at rest, unknown names ignored. */
  indices(combination: Combination): number[] {
    return this.everyAxis.map(axis => {
      const index = axis.indexOf.get(combination[axis.id] ?? '');
      return index ?? axis.rest;
    });
  }

  /** Value indices of all axes, where some say nothing of the inner ones: these are at rest. */
  complete(indices: readonly number[]): readonly number[] {
    if (indices.length >= this.everyAxis.length) return indices;
    return [...indices, ...this.everyAxis.slice(indices.length).map(axis => axis.rest)];
  }

  /** The own combinations that lie in an extent with all inner axes at rest. */
  atRest(extent: Extent): Extent {
    if (this.inner.length === 0) return extent;
    const inner = [...this.extents.support(extent)].filter(axis => axis >= this.axes.length);
    return inner.reduce((left, axis) => this.extents.along(left, axis, this.everyAxis[axis]!.rest), extent);
  }

  /** The written form of value indices, every own axis named. */
  written(indices: readonly number[]): Combination {
    const combination: Record<string, string> = {};
    this.axes.forEach((axis, index) => (combination[axis.id] = axis.values[indices[index]!]!.id));
    return combination;
  }

  /** What the limits make of a raw combination, and the reasons of the limits that changed something. */
  settled(raw: readonly number[]): { combination: readonly number[]; because: readonly string[] } {
    if (this.extents.has(this.allowed, raw)) return { combination: raw, because: [] };
    const { combination, acted } = settle(raw, this.limits);
    return {
      combination,
      because: acted.map(limit => limit.because).filter(text => text !== ''),
    };
  }

  /** Where a rule speaks. */
  spoken({ region, extent }: { readonly region: Box; readonly extent?: Extent }): Extent {
    return extent ?? this.extents.of(region);
  }

  /** The allowed combinations of a region. */
  allowedIn(region: Box): Extent {
    return this.extents.and(this.extents.of(region), this.allowed);
  }

  /** Number of allowed combinations in a region; the whole space by default. */
  count(region: Box = this.full): bigint {
    return this.extents.count(this.allowedIn(region));
  }

  /** All raw combinations that count as some combination of `region`. */
  reachedFrom(region: Box): Extent {
    const key = region.join();
    let reached = this.reached.get(key);
    if (reached === undefined) {
      if (this.reached.size >= MAX_COVERS) this.reached.clear();
      this.reached.set(key, (reached = preimage(this.extents, this.clusters, region)));
    }
    return reached;
  }

  /** All raw combinations that count as one in which a rule speaks. */
  reachedBy({ region, extent }: { readonly region: Box; readonly extent?: Extent }): Extent {
    if (extent === undefined) return this.reachedFrom(region);
    const { extents, axes, full } = this;
    return extents.preimage(extents, extent, (axis, mask) =>
      axis < axes.length
        ? this.reachedFrom(full.map((all, index) => (index === axis ? mask : all)))
        : extents.of(extents.full.map((all, index) => (index === axis ? mask : all))),
    );
  }

  /** Few boxes that hold an extent and nothing else but what is free, each with what it must hold and what it may. */
  cover(extent: Extent, free: Extent): readonly WantedBox[] {
    const key = `${extent} ${free}`;
    let cover = this.covers.get(key);
    if (!cover) {
      if (this.covers.size >= MAX_COVERS) this.covers.clear();
      cover = shares(this.extents, extent, readableCover(this.extents, extent, free));
      this.covers.set(key, cover);
    }
    return cover;
  }

  /**
   * Few boxes for an extent of allowed combinations, wide where that says less: axes are free and ladders open upwards where
   * only what can never occur (or `free`) comes in. Otherwise no value is named that need not be.
   */
  readable(extent: Extent, free: Extent = this.never): Box[] {
    return this.cover(this.extents.shadow(extent), free).map(({ must, may }) =>
      must.slice(0, this.axes.length).map((mask, axis) => {
        if (may[axis] === this.full[axis]) return this.full[axis]!;
        const upwards = this.full[axis]! & ~((mask & -mask) - 1);
        return this.axes[axis]!.ladder && (upwards & ~may[axis]!) === 0 ? upwards : mask;
      }),
    );
  }

  /** Where a limit, taken alone, is broken. */
  brokenWhere(limit: Limit): Extent {
    const { extents, full } = this;
    if (isEmpty(limit.region)) return NOWHERE;
    const kept = [...full];
    for (const { axis, allowed } of limit.holds) kept[axis]! &= allowed;
    return extents.minus(extents.of(limit.region), extents.of(kept));
  }

  /** The raw combinations that would settle otherwise without a limit. */
  effectOf(limit: Limit): Extent {
    const place = this.limits.indexOf(limit);
    const cluster = this.clusters.find(each => each.limits.includes(place));
    return cluster ? effectOf(this.extents, cluster, this.limits, limit) : NOWHERE;
  }

  private reportCircle(found: UnsettledLimits, problems: ProblemList): void {
    const places = found.limits;
    problems.error(
      pointer('limits', places[0] ?? 0),
      'unsettled-limits',
      `Limits ${numbers(places)} push each other round without end, for example at ${this.words(found.combination)}.`,
    );
  }

  private reportOrder(found: OrderDependence, problems: ProblemList): void {
    const [first, second] = found.limits.map(index => this.limits[index]!.index) as [number, number];
    const [one, other] = found.results.map(result => this.changes(found.witness, result));
    problems.error(
      pointer('limits', second),
      'order-dependent-limits',
      `The result of limits ${numbers([first, second])} depends on which is applied first: ` +
        `${this.words(found.witness)} becomes ${one} or ${other}.`,
    );
  }

  private words(combination: readonly number[]): string {
    return combination
      .map((value, axis) => `${this.axes[axis]!.id} ${this.axes[axis]!.values[value]!.id}`)
      .join(', ');
  }

  /** The axes in which a result differs, in words. */
  private changes(before: readonly number[], after: readonly number[]): string {
    const changed = after.flatMap((value, axis) =>
      value === before[axis] ? [] : [`${this.axes[axis]!.id} ${this.axes[axis]!.values[value]!.id}`],
    );
    return changed.length > 0 ? changed.join(', ') : 'nothing else';
  }
}

/** `1 and 3`: places in the list of limits, counted from 1. */
const numbers = (places: readonly number[]): string => places.map(place => place + 1).join(' and ');

/** Whether a combination (value indices) lies in a box. */
export function inBox(box: Box, indices: readonly number[]): boolean {
  for (let axis = 0; axis < box.length; axis++) if (!((box[axis]! >> indices[axis]!) & 1)) return false;
  return true;
}

/** The axes in order, those that limits bind to one another together at the end: nearly every set depends on them. */
function limitedLast(axes: number, clusters: readonly LimitCluster[]): number[] {
  const last = clusters.flatMap(cluster => [...cluster.axes].sort((a, b) => a - b));
  const free = Array.from({ length: axes }, (_, axis) => axis).filter(axis => !last.includes(axis));
  return [...free, ...last];
}

const fullBox = (axes: readonly Axis[]): Box => axes.map(axis => 2 ** axis.values.length - 1);
