import { behaviour, walkthrough } from './behaviour-document';
import { condition, held, settings } from './condition-shapes';
import { mapEntries, mapMembers } from '../json/change-members';
import { QUOTAS } from '../json/quotas';
import type { NameKind } from './names';
import { anatomyEdit, part, partReference, type PartDocument } from './part-document';
import {
  anything,
  choice,
  definedBy,
  defines,
  entryWords,
  flag,
  format,
  id,
  ID_SCHEMA,
  isEmptied,
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
  translated,
  vital,
  written,
  type Of,
  type Schema,
  type Shape,
} from './shape';

const AXIS_KINDS = ['option', 'state'] as const;

const axisValue = object({ id: required(defines('value')), title: text, description: text });

/** An axis, or one of the base with what differs. */
export type AxisChangeDocument = Of<typeof axis>;
const axis = object(
  {
    id: required(defines('axis')),
    kind: choice(AXIS_KINDS),
    title: text,
    description: text,
    values: list(axisValue, { least: 1 }),
    default: refersTo('value'),
  },
  { opens: ({ id: name }, at) => ({ ...at, axis: name }) },
);
export type AxisDocument = AxisChangeDocument & Pick<Required<AxisChangeDocument>, 'kind'>;

export type LimitDocument = Of<typeof limit>;
const limit = object({
  /** Needed only where something refers to it. */
  id: vital(defines('limit')),
  while: required(condition),
  holds: required(held),
  because: text,
});

const PATH: Schema = {
  type: 'string',
  pattern: '^[A-Za-z][A-Za-z0-9_-]{0,63}(/[A-Za-z][A-Za-z0-9_-]{0,63}){0,8}(::[a-z-]{1,32})?$',
  description: 'names joined by /, with :: before what a browser draws in a part',
};

/** The text of a property's value; `null` takes an entry of a base's rule out. */
const propertyText = written<string | null>({ type: ['string', 'null'] }, (value, { names }) =>
  value === null ? null : names.value(value),
);

/** Property, then the value as text. */
const propertiesOfPart = mapOf(propertyText, { goesWith: 'last' });

/** Part, then property. */
export const settingsOfParts = mapOf(propertiesOfPart, {
  keys: PATH,
  pair: (path, properties, at) => {
    const [now, left] = [at.names.path(path), translated(propertiesOfPart, properties, at)];
    return now === null || left === null ? null : [now, left];
  },
});

/** A rule of its own, or, under the id of a base's rule and without a condition, what is laid over that one. */
export type OverlayDocument = Of<typeof rule>;
const rule = object(
  {
    id: required(defines('rule')),
    when: vital(condition),
    /** Id of the rule behind which it stands, among rules that were written elsewhere. */
    after: written<string>(
      { type: 'string' },
      (name, { names }) => names.rule(name) ?? names.ruleAhead(name),
    ),
    set: settingsOfParts,
    note: text,
  },
  // What said something and has nothing left to say is gone.
  { isGone: (after, before) => before.note === undefined && isEmptied(after.set, before.set) },
);
export type RuleDocument = Omit<OverlayDocument, 'when' | 'set'> &
  Pick<Required<OverlayDocument>, 'when'> & {
    readonly set: { readonly [part: string]: { readonly [property: string]: string } };
  };

export type SituationDocument = Of<typeof situation>;
const situation = object({
  id: required(defines('situation')),
  title: text,
  when: required(condition),
  /** When it appears, and why it exists. */
  means: text,
});

/** What users of a component can set. */
export type ParameterDocument = Of<typeof parameter>;
const parameter = object({
  id: required(defines('parameter')),
  title: text,
  /** A token type; no composite one. */
  type: required(text),
  /** Any value of that type. */
  default: required(text),
  description: text,
});

export const CONTENT_KINDS = ['text', 'icon', 'value', 'list'] as const;

/** Something that parts show, by a key. */
export interface ContentDocument {
  readonly id: string;
  readonly kind?: (typeof CONTENT_KINDS)[number];
  readonly title?: string;
  readonly required?: boolean;
  /** Sources by their way, `due.currency`: the first that is there counts. */
  readonly from?: readonly string[];
  /** A conversion of what a source gives. */
  readonly as?: string;
  /** The last resort. */
  readonly else?: string;
  /** A template: `{value.length} of {value.most}`. */
  readonly text?: string;
  /** Of a list: what each entry holds. */
  readonly entry?: readonly ContentDocument[];
}

const content = object({
  id: required(defines('content')),
  kind: choice(CONTENT_KINDS),
  title: text,
  required: flag,
  from: list(text, { least: 1 }),
  as: text,
  else: text,
  text,
  entry: list(written<ContentDocument>({ $ref: '#/$defs/content' })),
});

/** Text for a content key, or one text per axis value (`{ "invalid": "…" }`). */
export type SampleText = string | { readonly [value: string]: string };

/** What a sample gives, or an entry of a list in it, by key: a text, one for each value of an axis, or a list. */
const given: Schema = {
  type: 'object',
  propertyNames: ID_SCHEMA,
  additionalProperties: {
    type: ['string', 'object', 'array'],
    additionalProperties: { type: 'string' },
    items: { $ref: '#/$defs/given' },
  },
};

/** A list's entries hold content by key, and under `is` the values of axes that they set. */
const givenContent = written<{ readonly [key: string]: SampleText | readonly unknown[] }>(
  { $ref: '#/$defs/given' },
  (content, { names }) =>
    mapMembers(content, (key, value) => {
      const [now, left] = [names.now('content', key), names.given(key, value)];
      return now === null || left === null ? null : [now, left];
    }),
);

export type SampleDocument = Of<typeof sample>;
const sample = object({
  id: required(defines('sample')),
  title: text,
  content: required(givenContent),
  /** What an application knows, as one object. */
  sources: anything,
  /** By check: a value that fails it. */
  wrong: mapOf(text),
});

/** An axis that a plate spreads out, or `situation`. */
const spread = written<string>(ID_SCHEMA, (name, { names }) =>
  name === 'situation' ? name : names.now('axis', name),
);

export type PlateDocument = Of<typeof plate>;
const plate = object({
  id: required(defines('plate')),
  title: text,
  /** Axis ids, outermost first, or `situation`. */
  across: required(list(spread)),
  down: required(list(spread)),
  hold: settings,
  /** Of an axis, or of `situation`: the values that it shows, in their order; all in the component's order where it is absent. */
  values: mapOf(list(text, { least: 1 }), {
    goesWith: 'last',
    pair: (name, ids, { names }) => {
      const isSituation = name === 'situation';
      const now = isSituation ? name : names.now('axis', name);
      const left = mapEntries(ids, each =>
        isSituation ? names.now('situation', each) : names.now('value', each, name),
      );
      return now === null || left.length === 0 ? null : [now, left];
    },
  }),
  sample: refersTo('sample', id),
  caption: text,
});

const slot = written<string>({ type: 'string' }, (name, { names }) => names.slot(name));
const ruleOrNested = written<string>({ type: 'string' }, (name, { names }) => names.rule(name));

/** That the order of two rules is meant: where both apply, the second wins. */
export type DecisionDocument = Of<typeof decision>;
export const decision = object({
  /** Ids of the two rules, in their order. */
  rules: required(list(ruleOrNested, { least: 2, most: 2 })),
  /** `part.property`; all that the two contest when absent. */
  properties: vital(list(slot, { goesWith: 'last' })),
  because: required(text),
});

/** Lists of a component from which a derived one can leave something out; an entry of the base's id replaces that one. */
export const LISTS = {
  axes: list(axis),
  limits: list(limit),
  rules: list(rule, { most: QUOTAS.rules }),
  situations: list(situation),
  samples: list(sample),
  plates: list(plate),
  content: list(shared('content', content)),
  parameters: list(parameter),
  walkthroughs: list(walkthrough),
};
export type WithoutList = keyof typeof LISTS;

/** What the entries of these lists are. */
export const LIST_ENTRIES = Object.fromEntries(
  Object.entries(LISTS).map(([name, shape]) => [name, definedBy(shape)]),
) as Readonly<Record<WithoutList, NameKind>>;

/** Ids of what is left out, by list. */
const without = object(
  Object.fromEntries(
    Object.keys(LISTS).map(name => [
      name,
      list(refersTo(LIST_ENTRIES[name as WithoutList]), { goesWith: 'last' }),
    ]),
  ) as { readonly [List in WithoutList]: Shape<readonly string[]> },
  { isGone: isEmptied },
);

const everything = object({
  format: required(format('periwinkle-component/1')),
  id: required(keepsReferringTo('component', id)),
  title: text,
  /** Place in the contents, levels parted by `/`: `Entry/Free text`. */
  group: text,
  summary: text,
  /** Id of the base. */
  extends: orNull(keepsReferringTo('component')),
  content: LISTS.content,
  parameters: LISTS.parameters,
  anatomy: partReference,
  anatomyEdits: list(anatomyEdit, { called: 'change of parts' }),
  axes: LISTS.axes,
  limits: LISTS.limits,
  rules: LISTS.rules,
  situations: LISTS.situations,
  samples: LISTS.samples,
  plates: LISTS.plates,
  decisions: list(decision, { called: 'decision' }),
  behaviour,
  walkthroughs: LISTS.walkthroughs,
  guide: mapOf(text),
  without,
});

/** A component document as it may be written, derived or not (`periwinkle-component/1`). Everything optional has an empty meaning. */
export type WrittenComponent = Of<typeof everything>;

/** A component that says everything itself, or what a derived one stands for. */
export interface ComponentDocument extends Omit<
  WrittenComponent,
  'anatomy' | 'anatomyEdits' | 'axes' | 'rules' | 'without'
> {
  readonly anatomy: PartDocument;
  readonly axes?: readonly AxisDocument[];
  readonly rules?: readonly RuleDocument[];
}

/** A component that takes everything of another and says what differs; what it stands for is a `ComponentDocument`. */
export interface DerivedDocument extends Omit<WrittenComponent, 'extends' | 'anatomy'> {
  readonly extends: string;
}

/** What a component without a base must say itself. Types stand in the shape, once. */
const WITHOUT_BASE: Schema = {
  if: { properties: { extends: { type: 'string' } }, required: ['extends'] },
  else: {
    required: ['anatomy'],
    properties: {
      axes: { items: { required: ['kind'] } },
      rules: {
        items: {
          required: ['when', 'set'],
          properties: { set: { additionalProperties: { additionalProperties: { type: 'string' } } } },
        },
      },
    },
  },
};

/** What people call one entry of a list, wherever that lies in a component. */
export const ENTRY_WORDS: Readonly<Record<string, string>> = {
  ...entryWords(everything.members),
  ...entryWords(axis.members),
  ...entryWords(part.members!),
  ...entryWords(behaviour.members),
};

/** The component's own lists. */
export type ComponentList = WithoutList | 'anatomyEdits' | 'decisions';
export const COMPONENT_LISTS = Object.keys(entryWords(everything.members)) as ComponentList[];

export const component = narrowed(everything, {
  ...WITHOUT_BASE,
  $defs: { part: part.schema, content: content.schema, given },
});
