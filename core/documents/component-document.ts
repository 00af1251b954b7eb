/** A component document as it is stored (`periwinkle-component/1`). Everything optional has an empty meaning. */
export interface ComponentDocument {
  readonly format: string;
  readonly id: string;
  readonly title?: string;
  /** Place in the contents, levels parted by `/`: `Entry/Free text`. */
  readonly group?: string;
  readonly summary?: string;
  readonly extends?: string | null;
  readonly anatomy: PartDocument;
  readonly content?: readonly ContentDocument[];
  readonly parameters?: readonly ParameterDocument[];
  readonly axes?: readonly AxisDocument[];
  readonly limits?: readonly LimitDocument[];
  readonly rules?: readonly RuleDocument[];
  readonly situations?: readonly SituationDocument[];
  readonly samples?: readonly SampleDocument[];
  readonly plates?: readonly PlateDocument[];
  readonly decisions?: readonly DecisionDocument[];
  readonly behaviour?: BehaviourDocument;
  readonly walkthroughs?: readonly WalkthroughDocument[];
  readonly guide?: { readonly [section: string]: string };
}

/** A component that takes everything of another and says what differs; what it stands for is a `ComponentDocument`. */
export interface DerivedDocument extends Omit<ComponentDocument, 'extends' | 'anatomy' | 'axes' | 'rules'> {
  /** Id of the base. */
  readonly extends: string;
  readonly anatomyEdits?: readonly AnatomyEditDocument[];
  readonly axes?: readonly AxisChangeDocument[];
  readonly rules?: readonly OverlayDocument[];
  /** Ids of what is left out, by list. */
  readonly without?: { readonly [List in WithoutList]?: readonly string[] };
}

/** Lists of a component from which a derived one can leave something out. */
export const WITHOUT_LISTS = [
  'axes',
  'limits',
  'rules',
  'situations',
  'samples',
  'plates',
  'content',
  'parameters',
  'walkthroughs',
] as const;
export type WithoutList = (typeof WITHOUT_LISTS)[number];

/** An axis of the base with what differs, or one of its own. */
export type AxisChangeDocument = Omit<AxisDocument, 'kind'> & Partial<Pick<AxisDocument, 'kind'>>;

/** A rule of its own, or, under the id of a base's rule and without a condition, what is laid over that one. */
export interface OverlayDocument extends Omit<RuleDocument, 'when' | 'set'> {
  readonly when?: ConditionDocument;
  /** `null` takes an entry out. */
  readonly set?: { readonly [part: string]: { readonly [property: string]: string | null } };
}

/** One edit of a base's anatomy: one verb, and where. */
export interface AnatomyEditDocument {
  readonly insert?: PartDocument;
  readonly remove?: string;
  readonly move?: string;
  readonly replace?: string;
  readonly by?: PartDocument;
  readonly change?: string;
  readonly to?: { readonly [member: string]: unknown };
  readonly wrap?: readonly string[];
  readonly in?: PartDocument;
  readonly before?: string;
  readonly after?: string;
  readonly into?: string;
}

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

export interface AxisDocument {
  readonly id: string;
  readonly kind: 'option' | 'state';
  readonly title?: string;
  readonly description?: string;
  readonly values?: readonly {
    readonly id: string;
    readonly title?: string;
    readonly description?: string;
  }[];
  readonly default?: string;
}

/** Axes mapped to a value or a list of values; an absent axis is free. */
export interface ConditionDocument {
  readonly [axis: string]: string | readonly string[];
}

export interface LimitDocument {
  /** Needed only where something refers to it. */
  readonly id?: string;
  readonly while: ConditionDocument;
  readonly holds: ConditionDocument;
  readonly because?: string;
}

export interface RuleDocument {
  readonly id: string;
  readonly when: ConditionDocument;
  /** Id of the rule behind which it stands, among rules that were written elsewhere. */
  readonly after?: string;
  /** Part, then property, then the value as text. */
  readonly set: { readonly [part: string]: { readonly [property: string]: string } };
  readonly note?: string;
}

export interface SituationDocument {
  readonly id: string;
  readonly title?: string;
  readonly when: ConditionDocument;
  /** When it appears, and why it exists. */
  readonly means?: string;
}

/** What users of a component can set. */
export interface ParameterDocument {
  readonly id: string;
  readonly title?: string;
  /** A token type; no composite one. */
  readonly type: string;
  /** Any value of that type. */
  readonly default: string;
  readonly description?: string;
}

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

/** Text for a content key, or one text per axis value (`{ "invalid": "…" }`). */
export type SampleText = string | { readonly [value: string]: string };

export interface SampleDocument {
  readonly id: string;
  readonly title?: string;
  /** A list's entries hold content by key, and under `is` the values of axes that they set. */
  readonly content: { readonly [key: string]: SampleText | readonly unknown[] };
  /** What an application knows, as one object. */
  readonly sources?: { readonly [name: string]: unknown };
  /** By check: a value that fails it. */
  readonly wrong?: { readonly [check: string]: string };
}

export interface PlateDocument {
  readonly id: string;
  readonly title?: string;
  /** Axis ids, outermost first, or `situation`. */
  readonly across: readonly string[];
  readonly down: readonly string[];
  readonly hold?: { readonly [axis: string]: string };
  /** Of an axis, or of `situation`: the values that it shows, in their order; all in the component's order where it is absent. */
  readonly values?: { readonly [axis: string]: readonly string[] };
  readonly sample?: string;
  readonly caption?: string;
}

/** That the order of two rules is meant: where both speak, the second has the last word. */
export interface DecisionDocument {
  /** Ids of the two rules, in their order. */
  readonly rules: readonly string[];
  /** `part.property`; all that the two contest when absent. */
  readonly properties?: readonly string[];
  readonly because: string;
}

/** How a field comes into its states. */
export interface BehaviourDocument {
  readonly value?: ValueDocument;
  /** By what they do (`reveal`, `less`): parts. */
  readonly parts?: { readonly [role: string]: string };
  readonly checks?: readonly CheckDocument[];
  readonly judging?: JudgingDocument;
  readonly moves?: readonly MoveDocument[];
}

/** The kind of value that a field holds, and within which ends. */
export interface ValueDocument {
  readonly kind: string;
  readonly least?: number;
  /** Of texts, in characters. */
  readonly most?: number;
  /** Whether nothing can be entered beyond `most`. */
  readonly stop?: boolean;
  readonly step?: number;
  readonly length?: number;
  readonly of?: string;
  readonly several?: boolean;
}

/** A number, or the value of another field of the form, by its name. */
export type Bound = number | { readonly field: string };

/** What makes an entry wrong. */
export interface CheckDocument {
  readonly id: string;
  readonly kind: string;
  readonly pattern?: string;
  readonly least?: Bound;
  readonly most?: Bound;
  /** In characters: exactly so many, or between two numbers. */
  readonly length?: number | { readonly least?: number; readonly most?: number };
  /** Name of another field of the form. */
  readonly equals?: string;
  /** What the application is asked. */
  readonly ask?: string;
  /** Key of the content that says what is wrong. */
  readonly message?: string;
  readonly because?: string;
}

export const COMPLAINING = ['leaving', 'sending', 'typing'] as const;
export const FORGIVING = ['typing', 'leaving', 'sending'] as const;

/** When a field complains, when it takes that back, and whether it approves. */
export interface JudgingDocument {
  readonly complain?: (typeof COMPLAINING)[number];
  readonly forgive?: (typeof FORGIVING)[number];
  readonly approve?: boolean;
}

/** What an act does beyond what the kind of value knows. */
export interface MoveDocument {
  readonly id: string;
  readonly on: string;
  readonly when?: ConditionDocument;
  readonly do: readonly string[];
  readonly because?: string;
}

/** Acts in their order, to be played. */
export interface WalkthroughDocument {
  readonly id: string;
  readonly title?: string;
  readonly sample?: string;
  readonly set?: { readonly [axis: string]: string };
  readonly acts: readonly string[];
  readonly shows?: string;
}

/** `system.json` (`periwinkle-system/1`). */
export interface SystemDocument {
  readonly format: string;
  readonly id: string;
  readonly title: string;
  /** Begins every class name and custom property. */
  readonly prefix: string;
  /** CSS px that one rem stands for. */
  readonly rootFontSize?: number;
  /** Path of the resolver document, from the system's folder. */
  readonly resolver?: string;
  /** Colours of the page that fields stand on, as `{token}`: painted where a context is switched. */
  readonly page?: { readonly surface?: string; readonly ink?: string };
  readonly subtitle?: string;
  /** Component ids in the reader's order; those not named follow. */
  readonly order?: readonly string[];
}
