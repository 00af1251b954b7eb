import type { Component } from '../components/component';
import type { System } from '../components/system';
import { defaultOf, heldAt, Narrowing, valueIds } from '../derivation/narrowing';
import type { AxisChangeDocument, AxisDocument } from '../documents/component-document';
import type { Documents } from '../documents/document-kinds';
import { isSameJson } from '../json/json';
import { stateAxis, STATE_CATALOGUE } from '../space/state-catalogue';
import type { WrittenComponent } from '../documents/component-document';
import { linked } from './linked-bindings';
import {
  CannotRestructure,
  familyOf,
  renameEverywhere,
  noSuch,
  refuseName,
  theComponent,
  withWritten,
  writtenOf,
  type StructuralEdit,
} from './restructure';

type ValueDocument = NonNullable<AxisDocument['values']>[number];

/** Words of an axis; `null` takes them out. */
export interface AxisWords {
  readonly title?: string | null;
  readonly description?: string | null;
}

/** Adds an option or a state from the catalogue, behind the others or at a place. */
export const addAxis =
  (id: string, axis: AxisDocument, at?: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    if (isLeftOut(component, axis.id)) return takenBack(system, component, axis.id);
    refuseAxisId(system, component, axis.id);
    if (axis.kind === 'state' && !stateAxis(axis.id))
      throw noSuch(
        'state',
        axis.id,
        STATE_CATALOGUE.map(state => state.id),
      );
    if (axis.kind === 'option' && !axis.values?.length)
      throw new CannotRestructure('An option needs at least one value.');
    const axes = writtenOf(component).axes ?? [];
    return linked(withAxes(system, component, axes.toSpliced(at ?? axes.length, 0, axis)));
  };

/** Takes an axis out: it is held at its default, and what asked for anything else is gone. */
export const removeAxis =
  (id: string, axis: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    const documents = renameEverywhere(system, system.documents, {
      of: family(system, component),
      changes: [{ kind: 'axis', name: axis, to: null }],
      narrowing: new Narrowing(new Map([[axis, heldAt(before)]])),
    });
    if (!isOfBase(component, axis)) return documents;
    const written = documents.get(system.fileOf.get(id)!) as WrittenComponent;
    const without = { ...written.without, axes: [...(written.without?.axes ?? []), axis] };
    return withWritten(system, documents, component, { ...written, without });
  };

/** Gives an option another id, wherever it is spoken of. */
export const renameAxis =
  (id: string, axis: string, to: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const { kind } = theAxis(component, axis);
    if (kind === 'state')
      throw new CannotRestructure(`“${axis}” is a state of the catalogue: its id stays, its title is yours.`);
    if (isOfBase(component, axis)) throw fromBase(component, axis);
    refuseAxisId(system, component, to);
    return renameEverywhere(system, system.documents, {
      of: family(system, component),
      changes: [{ kind: 'axis', name: axis, to }],
    });
  };

/** Moves an axis of the component's own to another place among these. */
export const moveAxis =
  (id: string, axis: string, to: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    if (isOfBase(component, axis))
      throw new CannotRestructure(`“${axis}” comes from the base, whose order holds here too.`);
    return withAxes(system, component, movedTo(writtenOf(component).axes ?? [], axis, to));
  };

/** Says an axis in other words. */
export const wordAxis =
  (id: string, axis: string, words: AxisWords): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    return withAxis(system, component, worded(theAxis(component, axis), words));
  };

/** Chooses what an option is where nobody chooses. */
export const chooseDefault =
  (id: string, axis: string, value: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    theValue(before, value);
    if (before.kind === 'state')
      throw new CannotRestructure(`A state begins at rest, “${valueIds(before)[0]!}”.`);
    return withAxis(system, component, { ...before, default: value });
  };

/** Adds a value to an option, or one of the catalogue's to a state that has fewer. */
export const addValue =
  (id: string, axis: string, value: ValueDocument, at?: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    const values = valuesOf(before);
    if (before.kind === 'option') refuseName('a value', value.id, valueIds(before));
    const next =
      before.kind === 'option'
        ? values.toSpliced(at ?? values.length, 0, value)
        : inCatalogueOrder(before.id, [...values, value]);
    // An option without a default is what its first value is: that stays.
    const kept = before.kind === 'option' ? { default: defaultOf(before) } : {};
    return linked(withAxis(system, component, { ...before, ...kept, values: next }));
  };

/** Takes a value out; what asked for it alone is gone. */
export const removeValue =
  (id: string, axis: string, value: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    theValue(before, value);
    const left = valueIds(before).filter(each => each !== value);
    if (left.length === 0)
      throw new CannotRestructure(
        `“${value}” is the only value of ${axis}: take out the whole axis instead.`,
      );
    if (before.kind === 'state' && value === valueIds(before)[0])
      throw new CannotRestructure(`A state keeps its value at rest, “${value}”.`);
    const preset = defaultOf(before);
    const next = {
      ...before,
      values: valuesOf(before).filter(each => each.id !== value),
      ...(before.kind === 'option' ? { default: preset === value ? left[0]! : preset } : {}),
    };
    return renameEverywhere(system, withAxis(system, component, next), {
      of: family(system, component),
      changes: [{ kind: 'value', name: value, axis, to: null }],
      narrowing: new Narrowing(new Map([[axis, { values: left }]])),
    });
  };

/** Gives a value of an option another id, wherever it is spoken of. */
export const renameValue =
  (id: string, axis: string, value: string, to: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    theValue(before, value);
    if (before.kind === 'state')
      throw new CannotRestructure(
        `“${value}” is a value of the catalogue: its id stays, its title is yours.`,
      );
    if (isOfBase(component, axis) && theAxis(baseOf(component), axis).values?.some(each => each.id === value))
      throw fromBase(component, value);
    const taken = familyOf(system, id).flatMap(each =>
      (each.document.axes ?? []).filter(other => other.id === axis).flatMap(valueIds),
    );
    refuseName('a value', to, taken);
    return renameEverywhere(system, system.documents, {
      of: family(system, component),
      changes: [{ kind: 'value', name: value, axis, to }],
    });
  };

/** Moves a value of an option: the order carries meaning, of sizes for one. */
export const moveValue =
  (id: string, axis: string, value: string, to: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    theValue(before, value);
    if (before.kind === 'state')
      throw new CannotRestructure(`The values of ${axis} have their order, which is their meaning.`);
    const values = movedTo(valuesOf(before), value, to);
    return withAxis(system, component, { ...before, values, default: defaultOf(before) });
  };

/** Says a value in other words. */
export const wordValue =
  (id: string, axis: string, value: string, words: AxisWords): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theAxis(component, axis);
    theValue(before, value);
    const values = valuesOf(before).map(each => (each.id === value ? worded(each, words) : each));
    return withAxis(system, component, { ...before, values });
  };

const isLeftOut = (component: Component, axis: string): boolean =>
  writtenOf(component).without?.axes?.includes(axis) ?? false;

/** An axis of the base that was left out is there again. */
function takenBack(system: System, component: Component, axis: string): Documents {
  const written = writtenOf(component);
  const axes = written.without!.axes!.filter(each => each !== axis);
  const { axes: _, ...others } = written.without!;
  const without = axes.length > 0 ? { ...others, axes } : others;
  const { without: __, ...rest } = written;
  return withWritten(
    system,
    system.documents,
    component,
    Object.keys(without).length > 0 ? { ...written, without } : rest,
  );
}

const family = (system: System, { id }: Component): ReadonlySet<string> =>
  new Set(familyOf(system, id).map(each => each.id));

function theAxis({ document }: Pick<Component, 'document'>, id: string): AxisDocument {
  const axes = document.axes ?? [];
  const axis = axes.find(each => each.id === id);
  if (axis) return axis;
  throw noSuch(
    'axis',
    id,
    axes.map(each => each.id),
  );
}

function theValue(axis: AxisDocument, value: string): void {
  if (!valueIds(axis).includes(value)) throw noSuch(`value of ${axis.id}`, value, valueIds(axis));
}

/** The values as a document lists them; those of a state that lists none are the catalogue's. */
const valuesOf = (axis: AxisDocument): readonly ValueDocument[] =>
  axis.values ?? valueIds(axis).map(id => ({ id }));

function inCatalogueOrder(state: string, values: readonly ValueDocument[]): readonly ValueDocument[] {
  const known = stateAxis(state)?.values.map(({ id }) => id) ?? [];
  const wrong = values.find(
    ({ id }, index) => !known.includes(id) || values.findIndex(each => each.id === id) < index,
  );
  if (wrong) {
    const free = known.filter(id => !values.some(each => each.id === id));
    throw noSuch(`value left of ${state}`, wrong.id, free);
  }
  return values.toSorted((a, b) => known.indexOf(a.id) - known.indexOf(b.id));
}

function movedTo<Entry extends { readonly id: string }>(
  list: readonly Entry[],
  id: string,
  to: number,
): readonly Entry[] {
  const from = list.findIndex(each => each.id === id);
  const place = Math.min(Math.max(0, to), list.length - 1);
  return from < 0 ? list : list.toSpliced(from, 1).toSpliced(place, 0, list[from]!);
}

function worded<Entry extends object>(entry: Entry, words: AxisWords): Entry {
  const next = { ...entry } as Record<string, unknown>;
  for (const [key, text] of Object.entries(words) as [string, string | null][]) {
    if (text === null || text === '') delete next[key];
    else next[key] = text;
  }
  return next as Entry;
}

const baseOf = ({ derivation }: Component): Pick<Component, 'document'> => ({ document: derivation!.base });

const isOfBase = ({ derivation }: Component, axis: string): boolean =>
  derivation?.base.axes?.some(each => each.id === axis) ?? false;

const fromBase = ({ derivation }: Component, name: string): CannotRestructure =>
  new CannotRestructure(
    `“${name}” comes from “${derivation!.bases[0]!.id}” and is named there; its title is yours.`,
  );

function refuseAxisId(system: System, component: Component, id: string): void {
  const taken = familyOf(system, component.id).flatMap(each =>
    (each.document.axes ?? []).map(axis => axis.id),
  );
  refuseName('an axis', id, [...taken, 'situation', 'element']);
}

const withAxes = (system: System, component: Component, axes: readonly AxisChangeDocument[]): Documents =>
  withWritten(system, system.documents, component, { ...writtenOf(component), axes });

/** Writes an axis as it is to be: of a base's axis what differs from that. */
function withAxis(system: System, component: Component, axis: AxisDocument): Documents {
  const own = writtenOf(component).axes ?? [];
  const at = own.findIndex(each => each.id === axis.id);
  const base = isOfBase(component, axis.id) ? theAxis(baseOf(component), axis.id) : null;
  const next = base ? departure(base, axis) : axis;
  if (base && Object.keys(next).length === 1)
    return withAxes(
      system,
      component,
      own.filter((_, index) => index !== at),
    );
  return withAxes(system, component, at < 0 ? [...own, next] : own.with(at, next));
}

/** What an axis says otherwise than its base's: of values that are kept only other words. */
function departure(base: AxisDocument, axis: AxisDocument): AxisChangeDocument {
  const next: Record<string, unknown> = { id: axis.id };
  for (const key of ['title', 'description'] as const)
    if (axis[key] !== undefined && axis[key] !== base[key]) next[key] = axis[key];
  if (!isSameJson(valuesOf(axis), valuesOf(base))) {
    const before = new Map(valuesOf(base).map(value => [value.id, value]));
    next['values'] = valuesOf(axis).map(value => {
      const known = before.get(value.id);
      const said = Object.entries(value).filter(
        ([key, text]) => key === 'id' || known?.[key as keyof ValueDocument] !== text,
      );
      return Object.fromEntries(said);
    });
  }
  if (axis.kind === 'option' && defaultOf(axis) !== defaultOf(base)) next['default'] = defaultOf(axis);
  return next as unknown as AxisChangeDocument;
}
