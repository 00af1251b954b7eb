import { iconKeys } from '../components/icon-keys';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import { isObject } from '../json/json';
import { CannotRestructure, renameEverywhere, noSuch, type StructuralEdit } from './restructure';

const NAME = /^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/;
const fileOf = (name: string): string => `icons/${name}.svg`;

/** Puts drawings in, by name; one that is there is replaced wherever it is shown. */
export const putIcons =
  (icons: ReadonlyMap<string, string>): StructuralEdit =>
  ({ documents }) => {
    const next = new Map(documents);
    for (const [name, svg] of icons) {
      refuseIconName(name);
      next.set(fileOf(name), svg);
    }
    return next;
  };

/** Gives a drawing another name, in all samples that show it. */
export const renameIcon =
  (name: string, to: string): StructuralEdit =>
  system => {
    const svg = theIcon(system, name);
    refuseIconName(to);
    if (system.icons.has(to)) throw new CannotRestructure(`There is an icon “${to}” already.`);
    const followed = new Map(
      renameEverywhere(system, system.documents, { of: null, changes: [{ kind: 'icon', name, to }] }),
    );
    followed.delete(fileOf(name));
    return followed.set(fileOf(to), svg);
  };

/** Takes a drawing out; samples no longer show it. */
export const removeIcon =
  (name: string): StructuralEdit =>
  system => {
    theIcon(system, name);
    const followed = new Map(
      renameEverywhere(system, system.documents, { of: null, changes: [{ kind: 'icon', name, to: null }] }),
    );
    followed.delete(fileOf(name));
    return followed;
  };

/** How often samples show a drawing, by component. */
export function usesOfIcon(
  { components }: System,
  name: string,
): { readonly component: Component; readonly samples: number }[] {
  return components.flatMap(component => {
    const keys = iconKeys(component);
    const showing = component.samples.filter(({ content }) =>
      Object.entries(content).some(([key, given]) => keys.has(key) && namesIn(given).includes(name)),
    );
    return showing.length > 0 ? [{ component, samples: showing.length }] : [];
  });
}

function namesIn(given: unknown): unknown[] {
  return isObject(given) ? Object.values(given) : [given];
}

function theIcon({ icons }: System, name: string): string {
  const svg = icons.get(name);
  if (svg === undefined) throw noSuch('icon', name, [...icons.keys()]);
  return svg;
}

function refuseIconName(name: string): void {
  if (!NAME.test(name))
    throw new CannotRestructure(
      `“${name.slice(0, 40)}” cannot be the name of an icon: letters, digits, - and _, 60 at most.`,
    );
}
