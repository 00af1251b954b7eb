import type { Part } from '../components/anatomy/part';
import type { Anatomy } from '../components/anatomy/anatomy';
import { hostAndPseudo } from '../components/anatomy/pseudo-parts';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import { ObjectMemo } from '../json/object-memo';
import { kebab } from '../space/axis';
import { STATE_CATALOGUE } from '../space/state-catalogue';

/** Names under which a component's things reach CSS and markup. */
export interface ComponentNames {
  /** Class of the outermost part: `qs-text-field`. */
  readonly root: string;
  /**
   * Class of a part: `qs-text-field-frame`; the outermost part bears the component's own. Parts of nested components bear the way to
   * them alone: `qs-count-less` the root, `qs-count-less--frame` what is in it. Of a pseudo-part that and what CSS calls it.
   */
  readonly part: (part: string) => string;
  /** Attribute that carries an axis on the root: `data-size`; an inner axis, `less/size`, on the root of its component. */
  readonly axis: (axis: string) => string;
  /** The private custom property through which `@part.property` is read: `--_qs-text-field--frame--height`. */
  readonly published: (part: string, property: string) => string;
}

/** Every name of a system that reaches CSS and markup, but for those of tokens (`token-names`). No two are the same. */
export interface OutputNames {
  readonly prefix: string;
  readonly component: (id: string) => ComponentNames;
  /** Attribute that chooses a modifier's context: `data-theme`. */
  readonly context: (modifier: string) => string;
  /** Attribute that has tokens declared anew where a page changes some: `data-qs-anew`. */
  readonly anew: string;
  /** The private custom property that tells whether a context is on: `--_in--theme--night`. */
  readonly contextSwitch: (modifier: string, context: string) => string;
}

type NamedSystem = Pick<System, 'prefix' | 'components' | 'tokens'>;

const known = new ObjectMemo<OutputNames>();

/** The names of a system; the same object as long as nothing that bears a name comes, goes or is renamed. */
export const namesOf = (system: NamedSystem): OutputNames => known.of([system], () => equalNames(system));

/** So many sets of names are kept for later versions of a system. */
const MAX_KEPT = 16;
const kept = new Map<string, OutputNames>();

function equalNames(system: NamedSystem): OutputNames {
  const { prefix, components, tokens } = system;
  const key = JSON.stringify([
    prefix,
    components.map(({ id, anatomy, space, nested }) => [
      id,
      nested.map(each => [each.name, each.component.id]),
      anatomy.parts.map(part => part.name),
      space.everyAxis.map(axis => axis.id),
    ]),
    tokens.modifiers.map(({ name, contexts }) => [name, contexts]),
  ]);
  let names = kept.get(key);
  if (!names) {
    if (kept.size >= MAX_KEPT) kept.clear();
    kept.set(key, (names = makeNames(system)));
  }
  return names;
}

/** Gives each thing the name it asks for, or that name with a number where another has it already. */
class Allocation {
  constructor(private readonly taken = new Set<string>()) {}

  give(wanted: string): string {
    let name = wanted;
    for (let number = 2; this.taken.has(name); number++) name = `${wanted}-${number}`;
    this.taken.add(name);
    return name;
  }
}

/** Attributes that states bear on the root; contexts keep away from them. */
const STATE_ATTRIBUTES = STATE_CATALOGUE.flatMap(({ id, values }) => [
  `data-${id}`,
  ...values.flatMap(({ mark }) => mark?.attribute ?? []),
]);

function makeNames({ prefix, components, tokens }: NamedSystem): OutputNames {
  const attributes = new Allocation(new Set(STATE_ATTRIBUTES));
  const anew = attributes.give(`data-${prefix}-anew`);
  const contexts = new Map(
    tokens.modifiers.map(({ name }) => [name, attributes.give(`data-${plain(name)}`)]),
  );
  const switches = new Allocation();
  const contextSwitches = new Map(
    tokens.modifiers.map(({ name, contexts: own }) => [
      name,
      new Map(own.map(context => [context, switches.give(`--_in--${plain(name)}--${plain(context)}`)])),
    ]),
  );
  const classes = new Allocation();
  // A component's own class comes first: it stands in the markup of every page.
  const ordered = [...components].sort((a, b) => (a.id < b.id ? -1 : 1));
  const roots = new Map(ordered.map(({ id }) => [id, classes.give(`${prefix}-${plain(id)}`)]));
  const taken = new Set([anew, ...contexts.values()]);
  const byId: ReadonlyMap<string, ComponentNames> = new Map(
    ordered.map(component => [
      component.id,
      componentNames(component, roots, classes, taken, id => byId.get(id)!),
    ]),
  );
  return {
    prefix,
    component: id => byId.get(id)!,
    anew,
    context: modifier => contexts.get(modifier)!,
    contextSwitch: (modifier, context) => contextSwitches.get(modifier)!.get(context)!,
  };
}

function componentNames(
  { id, anatomy, space, nested }: Component,
  roots: ReadonlyMap<string, string>,
  classes: Allocation,
  takenAttributes: ReadonlySet<string>,
  others: (id: string) => ComponentNames,
): ComponentNames {
  const root = roots.get(id)!;
  const parts = new Map(
    anatomy.parts.map(part => [
      part.name,
      part === anatomy.root ? root : classes.give(`${root}-${wayTo(part, anatomy)}`),
    ]),
  );
  const attributes = new Allocation(new Set(takenAttributes));
  const axes = new Map(
    space.axes.map(axis => {
      const wanted = `data-${plain(axis.id)}`;
      // An axis called like a modifier must not switch its contexts.
      return [
        axis.id,
        attributes.give(takenAttributes.has(wanted) ? `data-${plain(id)}-${plain(axis.id)}` : wanted),
      ];
    }),
  );
  const innerAxis = (axis: string): string => {
    const { name, component } = nested.find(each => axis.startsWith(`${each.name}/`))!;
    return others(component.id).axis(axis.slice(name.length + 1));
  };
  return {
    root,
    part: part => {
      const [host, pseudo] = hostAndPseudo(part);
      return parts.get(host)! + pseudo;
    },
    axis: axis => axes.get(axis) ?? innerAxis(axis),
    // Classes are different for each part, and so is what is made of them.
    published: (part, property) =>
      `--_${[root, parts.get(part)!.slice(root.length + 1), property].filter(Boolean).join('--')}`,
  };
}

/** The way to a part as a class has it; what is nested is parted by two hyphens, which no name contains. */
function wayTo(part: Part, anatomy: Anatomy): string {
  const isNestedRoot = part.nested !== null && anatomy.outer(part)?.nested !== part.nested;
  return (isNestedRoot ? part.nested! : part.name).split('/').map(plain).join('--');
}

/** A name of any script as attributes and identifiers can hold it, without two hyphens in a row. */
function plain(name: string): string {
  const text = kebab(name)
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');
  return text === '' ? 'x' : text;
}
