import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { LocalProblem, Problem } from '../json/problem';

/**
 * Problems of components at the places where things were written. What a derived component takes of its base is its base's
 * fault, told there once. Where it is wrong only in the derived one, through something that differs, that one's reference to
 * its base is the place; that something of the base is idle there is nobody's fault.
 */
export function atOrigins(
  { fileOf, origin }: System,
  found: ReadonlyMap<Component, readonly LocalProblem[]>,
): Problem[] {
  const bases = ({ derivation }: Component): readonly string[] =>
    (derivation?.bases ?? []).map(base => base.file);
  /** What was told in each file that something is derived from. */
  const told = new Map([...found.keys()].flatMap(bases).map(file => [file, new Set<string>()]));
  const problems: Problem[] = [];
  const nearestFirst = [...found].sort(([a], [b]) => bases(a).length - bases(b).length);
  for (const [component, own] of nearestFirst) {
    const file = fileOf.get(component.id)!;
    const before = bases(component).map(base => told.get(base)!);
    for (const problem of own) {
      const place = origin({ file, pointer: problem.pointer });
      const key = `${problem.code} ${place.file} ${place.pointer}`;
      if (place.file === file) problems.push({ ...problem, ...place });
      else if (problem.severity === 'warning' || before.some(keys => keys.has(key))) continue;
      else
        problems.push({
          ...problem,
          file,
          pointer: '/extends',
          message: `In what is taken from ${place.file}${place.pointer}: ${problem.message}`,
        });
      told.get(file)?.add(key);
    }
  }
  return problems;
}
