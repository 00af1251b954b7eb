/** Kinds of part: boxes lay out their children, leaves show content. */
export interface PartKind {
  readonly kind: string;
  readonly box: boolean;
  /** HTML element that stands for it. */
  readonly element: string;
  /** `display` (and direction) of the part in the parts' reset. */
  readonly layout: readonly (readonly [property: string, value: string])[];
  readonly words: string;
}

/** Adding a kind of part is adding a row. */
export const PART_KINDS: readonly PartKind[] = [
  {
    kind: 'row',
    box: true,
    element: 'div',
    layout: [
      ['display', 'flex'],
      ['flex-direction', 'row'],
    ],
    words: 'a row of parts',
  },
  {
    kind: 'stack',
    box: true,
    element: 'div',
    layout: [
      ['display', 'flex'],
      ['flex-direction', 'column'],
    ],
    words: 'parts one below another',
  },
  { kind: 'label', box: false, element: 'label', layout: [['display', 'block']], words: 'names the control' },
  { kind: 'text', box: false, element: 'span', layout: [['display', 'block']], words: 'words' },
  {
    kind: 'icon',
    box: false,
    element: 'span',
    layout: [['display', 'flex']],
    words: 'decoration, lets the pointer through',
  },
  {
    kind: 'control',
    box: false,
    element: 'input',
    layout: [['display', 'block']],
    words: 'where people enter',
  },
  { kind: 'action', box: false, element: 'button', layout: [['display', 'flex']], words: 'a button' },
];

const BY_KIND = new Map(PART_KINDS.map(row => [row.kind, row]));

export function partKind(kind: string): PartKind | undefined {
  return BY_KIND.get(kind);
}

/** Elements a control may be. */
export const CONTROL_ELEMENTS = ['input', 'textarea', 'select', 'button'] as const;
