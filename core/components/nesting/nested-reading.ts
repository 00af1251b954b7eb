import { EVERYWHERE, NOWHERE, type Extent } from '../../space/extent';
import type { Space } from '../../space/space';
import type { Box } from '../../space/box';
import type { Binding } from './bindings';

/**
 * In which of a parent's combinations a nested component is in which of its own. Sets are carried over as sets: through the
 * limits of the nested component, then through what its axes are bound to.
 */
export class NestedReading {
  /** By axis of the nested component: how it is bound, or which axis of the parent's space it is. */
  private readonly sources: readonly (Binding | number)[];
  private readonly raw: readonly Map<number, Extent>[];
  private readonly settled: readonly Map<number, Extent>[];

  constructor(
    name: string,
    bindings: ReadonlyMap<string, Binding>,
    private readonly nested: Space,
    private readonly parent: Space,
  ) {
    this.sources = nested.everyAxis.map(({ id }) => bindings.get(id) ?? parent.axisIndex(`${name}/${id}`));
    this.raw = nested.everyAxis.map(() => new Map());
    this.settled = nested.everyAxis.map(() => new Map());
  }

  /** The parent's combinations in which the nested component is in one of an extent of its allowed ones. */
  where(extent: Extent): Extent {
    const { nested, parent } = this;
    return parent.extents.preimage(nested.extents, extent, (axis, mask) =>
      onceIn(this.settled[axis]!, mask, () => this.whereSettled(axis, mask)),
    );
  }

  /** The nested component's combination in one of the parent's (value indices), before and after its limits. */
  indices(settled: readonly number[]): {
    readonly raw: readonly number[];
    readonly settled: readonly number[];
  } {
    const raw = this.sources.map(source =>
      typeof source === 'number' ? settled[source]! : valueIn(source, settled),
    );
    return { raw, settled: this.nested.settled(raw).combination };
  }

  /** Whether an axis of the nested component stands free beside its parent's. */
  isFree(axis: number): boolean {
    return typeof this.sources[axis] === 'number';
  }

  /** Where an axis has one of some values after the nested limits. */
  private whereSettled(axis: number, mask: number): Extent {
    const { nested, parent } = this;
    if (axis >= nested.axes.length) return this.whereRaw(axis, mask);
    const box = nested.full.map((full, index) => (index === axis ? mask : full));
    return parent.extents.preimage(nested.extents, nested.reachedFrom(box), (each, values) =>
      onceIn(this.raw[each]!, values, () => this.whereRaw(each, values)),
    );
  }

  /** The same before the nested limits. */
  private whereRaw(axis: number, mask: number): Extent {
    const { extents } = this.parent;
    const source = this.sources[axis]!;
    if (typeof source === 'number') return extents.ofAxis(source, mask);
    let open = EVERYWHERE;
    let found = NOWHERE;
    const has = (value: number): boolean => ((mask >> value) & 1) === 1;
    for (const { region, value } of source.cases) {
      const here = extents.of(region);
      if (has(value)) found = extents.or(found, extents.and(open, here));
      open = extents.minus(open, here);
    }
    return has(source.otherwise) ? extents.or(found, open) : found;
  }
}

function valueIn({ cases, otherwise }: Binding, settled: readonly number[]): number {
  const holds = (region: Box): boolean => region.every((mask, axis) => (mask >> settled[axis]!) & 1);
  return cases.find(({ region }) => holds(region))?.value ?? otherwise;
}

function onceIn(known: Map<number, Extent>, key: number, make: () => Extent): Extent {
  let extent = known.get(key);
  if (extent === undefined) known.set(key, (extent = make()));
  return extent;
}
