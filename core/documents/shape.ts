import { mapEntries, mapMembers } from '../json/change-members';
import { QUOTAS } from '../json/quotas';
import { NAME_KINDS, type NameKind, type Names } from './names';

/**
 * The shape of a value in a document: how it is written, as a JSON Schema and as a type in TypeScript, and what it names. `translate` reads a
 * value again where things have other names; which these are is known to `Names`.
 */
export interface Shape<Type> {
  /** The order of `properties` is the canonical order of keys. */
  readonly schema: Schema;
  /**
   * The value with everything that it names as that is called by now; `null` where nothing is left of it, the same value where nothing
   * differs. Absent where it names nothing.
   */
  readonly translate?: ((value: Type, at: Scope) => unknown) | undefined;
  /** Of a member: whether it must be there, and whether what it stands in goes with it. */
  readonly need?: Need;
  /** What it gives a name to. */
  readonly defines?: NameKind;
  /** Of an object, and of the entries of a list. */
  readonly members?: Members;
  readonly entry?: AnyShape;
  /** What people call an entry of a list. */
  readonly called?: string;
}

/** JSON Schema, draft 2020-12. */
export interface Schema {
  readonly [keyword: string]: unknown;
}

type Need = 'required' | 'vital';

/** A shape of any type. A function of one type takes no other, so that `unknown` would fit none. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyShape = Shape<any>;
export type Members = Readonly<Record<string, AnyShape>>;

/** How names are read at a place of a document. */
export interface Scope {
  readonly names: Names;
  /** Id of the axis, within one. */
  readonly axis?: string;
  /** Names of the component that a part uses, within such a part. */
  readonly used?: Names | null;
}

/** The type of a shape's values. */
export type Of<S> = S extends Shape<infer Type> ? Type : never;

interface RequiredMember {
  readonly need: 'required';
}
type Flat<Type> = { [Key in keyof Type]: Type[Key] };
export type ObjectOf<M> = Flat<
  { readonly [Key in keyof M as M[Key] extends RequiredMember ? Key : never]: Of<M[Key]> } & {
    readonly [Key in keyof M as M[Key] extends RequiredMember ? never : Key]?: Of<M[Key]>;
  }
>;

export const ID_SCHEMA = {
  type: 'string',
  pattern: '^[A-Za-z][A-Za-z0-9_-]{0,63}$',
  description: 'letters, digits, - and _',
};

export const text: Shape<string> = { schema: { type: 'string' } };
export const id: Shape<string> = { schema: ID_SCHEMA };
export const flag: Shape<boolean> = { schema: { type: 'boolean' } };
export const number = (bounds: Schema = {}): Shape<number> => ({ schema: { type: 'number', ...bounds } });
export const integer = (bounds: Schema): Shape<number> => ({ schema: { type: 'integer', ...bounds } });
export const choice = <Value extends string>(values: readonly Value[]): Shape<Value> => ({
  schema: { enum: [...values] },
});
/** What says of a document which it is. */
export const format = (name: string): Shape<string> => ({ schema: { const: name } });
/** An object of which others say more than a schema can. */
export const anything: Shape<Readonly<Record<string, unknown>>> = { schema: { type: 'object' } };

/** A shape with other keywords. */
export const narrowed = <S extends AnyShape>(shape: S, keywords: Schema): S => ({
  ...shape,
  schema: { ...shape.schema, ...keywords },
});

/** A shape of a type of its own, of values that are written as a schema says. */
export const written = <Type>(
  schema: Schema,
  translate?: (value: Type, at: Scope) => Type | null,
): Shape<Type> => ({ schema, translate });

/** A value, or `null`. */
export const orNull = <Type>(shape: Shape<Type>): Shape<Type | null> =>
  narrowed(shape, { type: [shape.schema['type'], 'null'].flat() }) as Shape<Type | null>;

/** The name of something. */
export const refersTo = (kind: NameKind, as: Shape<string> = text): Shape<string> => ({
  schema: as.schema,
  translate: (name, { names, axis }) => names.now(kind, name, kind === 'value' ? axis : undefined),
});

/** The name of something, which stays where that is gone: a check reports it. */
export const keepsReferringTo = (kind: NameKind, as: Shape<string> = text): Shape<string> => ({
  schema: as.schema,
  translate: (name, { names }) => names.now(kind, name) ?? name,
});

/** The name that something has. */
export const defines = (kind: NameKind): Shape<string> & { readonly defines: NameKind } => ({
  ...refersTo(kind, id),
  defines: kind,
});

/** A member that must be there. What it stands in is gone with it. */
export const required = <S extends AnyShape>(shape: S): S & { readonly need: 'required' } => ({
  ...shape,
  need: 'required',
});

/** A member that may be absent, but with which what it stands in is gone when that was there. */
export const vital = <S extends AnyShape>(shape: S): S & { readonly need: 'vital' } => ({
  ...shape,
  need: 'vital',
});

interface ObjectWays<Type> {
  /** How names are read within it; `null` where nothing is known of them, and it stays as it is. */
  readonly opens?: (value: Type, at: Scope) => Scope | null;
  /** Whether nothing is left of it, though each of its members may be as it is. */
  readonly isGone?: (after: Type, before: Type) => boolean;
}

/** An object of some members and no others. */
export function object<M extends Members>(
  members: M,
  { opens, isGone }: ObjectWays<ObjectOf<M>> = {},
): Shape<ObjectOf<M>> & { readonly members: M } {
  type Value = ObjectOf<M>;
  const entries = Object.entries(members);
  const nameKey = entries.find(([, member]) => member.defines !== undefined)?.[0];
  const translate = (value: Value, at: Scope): Value | null => {
    const inside = opens ? opens(value, at) : at;
    if (inside === null) return value;
    let isLost = false;
    let isNameless = false;
    const after = mapMembers(value, (key, member) => {
      const shape = Object.hasOwn(members, key) ? members[key] : undefined;
      const left = translated(shape, member, inside);
      if (left !== null || member === null) return [key, left];
      if (shape!.need !== undefined) isLost = true;
      if (key === nameKey) isNameless = true;
      return null;
    });
    if (!isLost && !isGone?.(after, value)) return after;
    // That its name is gone has been said by whoever asked.
    if (nameKey !== undefined && !isNameless) at.names.lost(members[nameKey]!.defines!, value);
    return null;
  };
  return {
    schema: {
      type: 'object',
      properties: Object.fromEntries(entries.map(([key, { schema }]) => [key, schema])),
      required: entries.flatMap(([key, { need }]) => (need === 'required' ? key : [])),
      additionalProperties: false,
    },
    members,
    ...(opens || isGone || entries.some(([, member]) => member.translate) ? { translate } : {}),
  } as Shape<Value> & { readonly members: M };
}

interface ListWays {
  /** What people call an entry; where it has a name, by what it is. */
  readonly called?: string;
  /** Fewer are no list. */
  readonly least?: number;
  readonly most?: number;
  /** Whether the list goes with any of its entries, or with the last; it stays empty otherwise. */
  readonly goesWith?: 'any' | 'last';
}

export function list<S extends AnyShape>(
  entry: S,
  { called, least, most = QUOTAS.entries, goesWith }: ListWays = {},
): Shape<readonly Of<S>[]> & { readonly entry: S } {
  const translate = (value: readonly Of<S>[], at: Scope): readonly Of<S>[] | null => {
    const after = mapEntries(value, each => translated(entry, each, at) as Of<S> | null);
    const isShort =
      after.length < value.length && after.length < (goesWith === 'any' ? value.length : fewest);
    return isShort ? null : after;
  };
  const fewest = least ?? (goesWith === 'last' ? 1 : 0);
  return {
    schema: {
      type: 'array',
      items: entry.schema,
      maxItems: most,
      ...(least === undefined ? {} : { minItems: least }),
    },
    entry,
    called,
    ...(entry.translate ? { translate } : {}),
  } as Shape<readonly Of<S>[]> & { readonly entry: S };
}

/** Another key and value; `null` where they say nothing any more. */
type Pair = readonly [key: string, value: unknown] | null;

interface MapWays<Value> {
  /** How keys are written; as ids where nothing is said. */
  readonly keys?: Schema;
  /** What becomes of a key and its value. */
  readonly pair?: (key: string, value: Value, at: Scope) => Pair;
  /** Whether the map goes with its last member; it stays empty otherwise. */
  readonly goesWith?: 'last';
}

/** An object of any keys. */
export function mapOf<S extends AnyShape>(
  value: S,
  { keys = ID_SCHEMA, pair, goesWith }: MapWays<Of<S>> = {},
): Shape<{ readonly [key: string]: Of<S> }> {
  type Map = { readonly [key: string]: Of<S> };
  const change =
    pair ??
    ((key: string, each: Of<S>, at: Scope): Pair => {
      const left = translated(value, each, at);
      return left === null && each !== null ? null : [key, left];
    });
  const translate = (map: Map, at: Scope): Map | null => {
    const after = mapMembers(map, (key, each) => change(key, each as Of<S>, at));
    return goesWith === 'last' && isEmptied(after, map) ? null : after;
  };
  return {
    schema: { type: 'object', propertyNames: keys, additionalProperties: value.schema },
    ...(pair || value.translate ? { translate } : {}),
  } as Shape<Map>;
}

/** A shape whose schema lies among the `$defs`, where others refer to it. */
export const shared = <S extends AnyShape>(name: string, shape: S): S => ({
  ...shape,
  schema: { $ref: `#/$defs/${name}` },
});

/** A shape within itself, by its name among the `$defs`. */
export const itself = <Type>(name: string, shape: () => Shape<Type>): Shape<Type> => ({
  schema: { $ref: `#/$defs/${name}` },
  translate: (value, at) => translated(shape(), value, at),
});

/** Whether an object had something and has nothing left. */
export const isEmptied = (after: object = {}, before: object = {}): boolean =>
  Object.keys(after).length === 0 && Object.keys(before).length > 0;

/** A value with everything that it names as that is called by now; `null` where nothing is left of it. What is `null` stays so. */
export function translated<Type>(shape: Shape<Type> | undefined, value: Type, at: Scope): Type | null {
  if (!shape?.translate || value === null || value === undefined) return value;
  return shape.translate(value, at) as Type | null;
}

/** What the entries of a list give names to, if they do. */
export const definedBy = ({ entry }: AnyShape): NameKind | undefined =>
  Object.values(entry?.members ?? {}).find(({ defines: kind }) => kind !== undefined)?.defines;

/** What people call one entry of each list among some members. */
export const entryWords = (members: Members): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.entries(members).flatMap(([name, shape]) => {
      const kind = definedBy(shape);
      const words = shape.called ?? (kind && NAME_KINDS[kind]);
      return words === undefined ? [] : [[name, words] as const];
    }),
  );
