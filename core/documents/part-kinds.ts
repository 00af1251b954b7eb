/** Kinds of part: boxes lay out their children, leaves show content. */
export interface PartKind {
  readonly kind: string;
  readonly box: boolean;
  /** HTML element that stands for it. */
  readonly element: string;
  /** `display` of the part while it is there. */
  readonly display: string;
  /** Where a property begins otherwise than on most parts, by its name. */
  readonly initial: Readonly<Record<string, string>>;
  readonly words: string;
}

/** Adding a kind of part is adding a row. */
export const PART_KINDS: readonly PartKind[] = [
  {
    kind: 'row',
    box: true,
    element: 'div',
    display: 'flex',
    initial: {},
    words: 'a row of parts',
  },
  {
    kind: 'stack',
    box: true,
    element: 'div',
    display: 'flex',
    initial: { 'flex-direction': 'column' },
    words: 'parts one below another',
  },
  { kind: 'label', box: false, element: 'label', display: 'block', initial: {}, words: 'names the control' },
  { kind: 'text', box: false, element: 'span', display: 'block', initial: {}, words: 'words' },
  {
    kind: 'icon',
    box: false,
    element: 'span',
    display: 'flex',
    initial: { 'flex-shrink': '0', 'pointer-events': 'none' },
    words: 'decoration, lets the pointer through',
  },
  {
    kind: 'control',
    box: false,
    element: 'input',
    display: 'block',
    initial: { 'flex-grow': '1', 'flex-basis': '0px', width: '100%' },
    words: 'where people enter',
  },
  { kind: 'action', box: false, element: 'button', display: 'flex', initial: {}, words: 'a button' },
];

const BY_KIND = new Map(PART_KINDS.map(row => [row.kind, row]));

const control = BY_KIND.get('control')!;

/** A control among parts one below another: its own height counts there, which a basis would stand in the place of. */
const CONTROL_IN_STACK: PartKind = { ...control, initial: { ...control.initial, 'flex-basis': 'auto' } };

/** A kind of part as it begins in a part of another kind. */
export const kindWithin = (kind: PartKind, outer: PartKind): PartKind =>
  kind === control && outer.kind === 'stack' ? CONTROL_IN_STACK : kind;

/** What a property is where no rule speaks, on a part of this kind. */
export const initialOf = (
  property: { readonly name: string; readonly initial: string },
  kind: PartKind,
): string => kind.initial[property.name] ?? property.initial;

export function partKind(kind: string): PartKind | undefined {
  return BY_KIND.get(kind);
}

/** Types of input that show a picker or a mark of their own, and never a placeholder. */
const WITHOUT_PLACEHOLDER: ReadonlySet<string> = new Set(
  'date datetime-local month week time color range checkbox radio file hidden button submit reset image'.split(
    ' ',
  ),
);

/** Whether an element shows a placeholder while it is empty, by which a browser tells that it is. */
export const showsPlaceholder = (element: string, type: string | null): boolean =>
  element === 'textarea' || (element === 'input' && !WITHOUT_PLACEHOLDER.has(type ?? 'text'));

/** Elements a control may be. */
export const CONTROL_ELEMENTS = ['input', 'textarea', 'select', 'button'] as const;
