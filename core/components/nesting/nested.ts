import type { Component, Nested } from '../component';
import { isObject } from '../../json/json';
import { ObjectMemo } from '../../json/object-memo';
import { ProblemList, type LocalProblem } from '../../json/problem';
import type { Axis } from '../../space/axis';
import type { Space } from '../../space/space';
import { readBindings, type Binding } from './bindings';
import { NestedReading } from './nested-reading';
import type { Use } from './uses';

/** A use whose component is there. */
export interface FoundUse {
  readonly use: Use;
  readonly component: Component;
}

/**
 * The axes that nested components keep to themselves, under the names that the parent knows them by: those that are not bound,
 * and all that these components have of others.
 */
export function innerAxes(uses: readonly FoundUse[]): Axis[] {
  return uses.flatMap(({ use, component }) => {
    const bound = new Set(Object.keys(use.document.with ?? {}));
    const { axes, inner } = component.space;
    return [...axes.filter(axis => !bound.has(axis.id)), ...inner].map(axis => innerAxis(use, axis));
  });
}

const innerAxis = ({ document }: Use, axis: Axis): Axis => ({ ...axis, id: `${document.part}/${axis.id}` });

interface ReadUse {
  readonly bindings: ReadonlyMap<string, Binding>;
  readonly reading: NestedReading;
  readonly problems: readonly LocalProblem[];
}
/** By place of the use. */
const readings = new ObjectMemo<Map<string, ReadUse>>();

/** Reads how a component is embedded. The same use over the same spaces has the same reading. */
export function readNested({ use, component }: FoundUse, space: Space, problems: ProblemList): Nested {
  const byPlace = readings.of([use.document, component.space, space], () => new Map<string, ReadUse>());
  let read = byPlace.get(use.pointer);
  if (!read) {
    const own = new ProblemList();
    const bindings = readBindings(use, component.space.axes, space.axes, own);
    const reading = new NestedReading(use.document.part, bindings, component.space, space);
    byPlace.set(use.pointer, (read = { bindings, reading, problems: own.problems }));
  }
  problems.take(read.problems);
  const { part, content, repeat } = use.document;
  return {
    name: part,
    component,
    use,
    repeat: repeat ?? null,
    content: new Map(
      isObject(content) ? Object.entries(content).map(([key, from]) => [key, String(from)]) : [],
    ),
    reading: read.reading,
  };
}
