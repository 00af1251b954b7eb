import type { Component } from './component';
import type { System } from './system';

/** Files of the components that one stands on: its own, its bases', and those of all that is nested in it. */
export function filesOf(system: System, component: Component): ReadonlySet<string> {
  const files = new Set<string>();
  const open = [component];
  for (let next = open.pop(); next; next = open.pop()) {
    const file = system.fileOf.get(next.id);
    if (file === undefined || files.has(file)) continue;
    files.add(file);
    for (const base of next.derivation?.bases ?? []) files.add(base.file);
    open.push(...next.nested.map(use => use.component));
  }
  return files;
}
