import { mapMembers } from '../json/change-members';
import {
  defines,
  ID_SCHEMA,
  translated,
  id,
  isEmptied,
  itself,
  keepsReferringTo,
  list,
  mapOf,
  narrowed,
  object,
  orNull,
  refersTo,
  required,
  shared,
  text,
  vital,
  written,
  type Of,
  type Scope,
  type Shape,
} from './shape';

export interface PartDocument {
  readonly part: string;
  readonly kind: string;
  readonly title?: string;
  readonly description?: string;
  /** Key of the sample's content that the part shows; of a nested component, by its keys those of the parent. */
  readonly content?: string | { readonly [key: string]: string };
  readonly element?: string;
  /** Those that a control may be, first the usual one; whoever uses the component chooses. */
  readonly elements?: readonly string[];
  readonly type?: string;
  /** Id of the component that a part of the kind `use` embeds. */
  readonly component?: string;
  /** Axes of that component and what each follows, in one of several forms. */
  readonly with?: { readonly [axis: string]: unknown };
  /** What parameters of that component are set to, by id. */
  readonly parameters?: { readonly [id: string]: string };
  /** Key of a list, or `value`: one for each of its entries. */
  readonly repeat?: string;
  readonly children?: readonly PartDocument[];
}

/** A key of the content, or those of a nested component with the parent's; of a change, `null` takes one out. */
const shown = written<string | { readonly [key: string]: string | null }>(
  { ...ID_SCHEMA, type: ['string', 'object'], additionalProperties: { type: 'string' } },
  (content, { names, used }) => {
    if (typeof content === 'string') return names.now('content', content);
    return mapMembers(content, (key, from) => {
      const there = used ? used.now('content', key) : key;
      const here = from === null ? null : names.now('content', from);
      return there === null || (here === null && from !== null) ? null : [there, here];
    });
  },
);

const bindings = written<{ readonly [axis: string]: unknown }>({ type: 'object' }, (all, { names, used }) =>
  names.bindings(all, used ?? null),
);

const parameters = mapOf(text, {
  pair: (key, value, { names, used }) => {
    const there = used ? used.now('parameter', key) : key;
    const now = value === null ? value : names.value(value);
    return there === null || now === null ? null : [there, now];
  },
});

/** Key of a list; `value` is the field's own. */
const repeated = written<string>({ type: 'string' }, (key, { names }) =>
  key === 'value' ? key : names.now('content', key),
);

/** Within a part that uses a component, its names are known too. */
const opened = (component: string | undefined, at: Scope): Scope => ({
  ...at,
  used: component === undefined ? null : at.names.of(component),
});

export const part: Shape<PartDocument> = object(
  {
    part: required(defines('part')),
    kind: required(id),
    title: text,
    description: text,
    content: shown,
    element: text,
    elements: list(text, { least: 1 }),
    type: text,
    component: keepsReferringTo('component', id),
    with: bindings,
    parameters,
    repeat: repeated,
    children: list(
      itself('part', (): Shape<PartDocument> => part),
      { called: 'part' },
    ),
  },
  { opens: ({ component }, at) => opened(component, at) },
) as Shape<PartDocument>;

export const partReference = shared('part', part);

/** What an edit changes of a part; `null` takes a member out. */
const change = object(
  {
    kind: id,
    title: orNull(text),
    description: orNull(text),
    content: narrowed(shown, { type: ['string', 'null'] }),
    element: orNull(text),
    type: orNull(text),
    elements: orNull(list(text, { least: 1 })),
    component: keepsReferringTo('component', id),
    with: orNull(bindings),
    parameters: { ...parameters, schema: { type: ['object', 'null'] } },
    repeat: orNull(repeated),
    // A check says at more length that these cannot be changed.
    part: written<unknown>({}),
    children: written<unknown>({}),
  },
  {
    opens: ({ component }, at) => (component === undefined ? at : opened(component, at)),
    isGone: isEmptied,
  },
);

/** One edit of a base's anatomy: one verb, and where. */
export type AnatomyEditDocument = Of<typeof anatomyEditMembers>;

const anatomyEditMembers = object(
  {
    insert: vital(partReference),
    remove: vital(refersTo('part')),
    move: vital(refersTo('part')),
    replace: vital(refersTo('part')),
    by: partReference,
    change: vital(refersTo('part')),
    to: vital(change),
    wrap: vital(list(refersTo('part'), { least: 1 })),
    in: vital(partReference),
    before: text,
    after: text,
    into: text,
  },
  {
    // A change of a part that uses a component names what that has.
    opens: ({ change: part }, at) => (part === undefined ? at : { ...at, used: at.names.inside(part) }),
  },
);

/** Places are read first: what stands beside a part that is gone finds another, which has its name already. */
export const anatomyEdit: Shape<AnatomyEditDocument> = {
  ...anatomyEditMembers,
  translate: (edit, at) => {
    const placed = at.names.anatomyEdit(edit) as AnatomyEditDocument | null;
    return placed && translated(anatomyEditMembers, placed, at);
  },
};
