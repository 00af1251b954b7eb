import { isObject } from '../../json/json';
import type {
  ComponentDocument,
  LimitDocument,
  RuleDocument,
  SituationDocument,
} from '../../documents/component-document';
import type { PartDocument } from '../../documents/part-document';
import type { Documents } from '../../documents/document-kinds';
import { compileSystem, type System } from '../../components/system';
import type { Component } from '../../components/component';
import { addComponent, type ComponentName } from '../component-edits';
import { newTokenPatch, tokenLayers } from '../new-token';
import { CannotRestructure, type StructuralEdit } from '../restructure';
import { applyPatch } from '../../patch/patch';
import { readTokenText } from '../../tokens/token-text';
import { DRAWINGS, type Drawing } from './drawings';
import { ROLES } from './roles';
import { BUTTON, STARTING_POINTS, type StartingPoint } from './starting-points';

/** Keys of the tokens that serve the roles; a role without one is made. */
export type RoleTokens = ReadonlyMap<string, string | null>;

const TITLE_OF_BUTTON = 'Field button';

/** The starting point of an id. Throws where there is none. */
export function startingPoint(id: string): StartingPoint {
  const found = STARTING_POINTS.find(each => each.id === id);
  if (!found) throw new CannotRestructure(`There is no starting point “${id}”.`);
  return found;
}

/**
 * Makes a component from a starting point, on the system's own tokens. What it needs and the system has not is made with it: tokens for
 * roles, drawings, the button that it nests.
 */
export const startComponent =
  (point: StartingPoint, name: ComponentName, tokens: RoleTokens, behind?: string): StructuralEdit =>
  system => {
    const { documents, keys } = withTokens(system, rolesIn(point, tokens), tokens);
    const has = (role: string): boolean => keys.has(role);
    const drawn = new Map(documents);
    for (const drawing of [...(point.drawings ?? []), ...JUDGING]) {
      const path = `icons/${drawing}.svg`;
      if (!drawn.has(path)) drawn.set(path, DRAWINGS[drawing]);
    }
    const known = point.nestsButton ? drawnButton(system) : null;
    let now: Documents = drawn;
    if (point.nestsButton && !known)
      now = addComponent(filled(fieldButton(freeId(system, 'field-button'), has), keys))(compileSystem(now));
    const button = known?.id ?? freeId(system, 'field-button');
    return addComponent(filled(documentOf(point, name, button, has), keys), behind)(compileSystem(now));
  };

const JUDGING: readonly Drawing[] = ['alert', 'check'];

/** Ids of the roles that a starting point stands on, where a system has these tokens. */
export function rolesIn(point: StartingPoint, tokens: RoleTokens): string[] {
  const has = (role: string): boolean => Boolean(tokens.get(role));
  const document = documentOf(point, { id: 'x', title: 'X' }, 'x', has);
  const text = JSON.stringify([document, point.nestsButton ? fieldButton('y', has) : null]);
  return ROLES.map(({ id }) => id).filter(id => text.includes(`{${id}}`));
}

/** A button that a system has already, which shows a drawing and is called something. */
function drawnButton({ components }: System): Component | null {
  const isOne = ({ anatomy, document, space }: Component): boolean =>
    anatomy.bearer?.kind.kind === 'action' &&
    ['name', 'icon'].every(key => document.content?.some(({ id }) => id === key)) &&
    document.content!.length === 2 &&
    ['size', 'availability'].every(id => space.axes.some(axis => axis.id === id));
  return components.find(isOne) ?? null;
}

function freeId({ components }: System, id: string): string {
  const taken = new Set(components.map(each => each.id));
  let free = id;
  for (let number = 2; taken.has(free); number++) free = `${id}-${number}`;
  return free;
}

/** Documents with a token for each role that has none. */
function withTokens(
  system: System,
  needed: readonly string[],
  tokens: RoleTokens,
): { readonly documents: Documents; readonly keys: ReadonlyMap<string, string> } {
  const manifest = system.documents.get('system.json');
  const resolver = isObject(manifest) ? (manifest['resolver'] as string | undefined) : undefined;
  const layers = tokenLayers(system.documents, resolver);
  const file = (layers.findLast(({ files }) => files.length === 1 && files[0]!.context === null) ?? layers[0])
    ?.files[0]?.file;
  const taken = new Set(system.tokens.usual().byKey.keys());
  const keys = new Map<string, string>();
  const documents = new Map(system.documents);
  for (const role of ROLES) {
    if (!needed.includes(role.id)) continue;
    const known = tokens.get(role.id);
    if (known) {
      keys.set(role.id, known);
      continue;
    }
    if (role.otherwise === null) continue;
    if (file === undefined)
      throw new CannotRestructure('There is no token file in which what is missing could be made.');
    const read = readTokenText(role.type, role.otherwise);
    if (!read.ok) throw new CannotRestructure(read.message);
    const [name, patch] = freshToken(documents.get(file), role.id, role.type, read.value, taken);
    documents.set(file, applyPatch(documents.get(file), patch).document);
    keys.set(role.id, name);
  }
  return { documents, keys };
}

/** A name that is free, with the patch that puts a token there: `field.line.rest`, with a number where something is in the way. */
function freshToken(
  document: unknown,
  role: string,
  type: string,
  value: unknown,
  taken: ReadonlySet<string>,
): [string, NonNullable<ReturnType<typeof newTokenPatch>>] {
  for (let number = 1; ; number++) {
    const name = `field${number === 1 ? '' : number}.${role}`;
    const patch = taken.has(name) ? null : newTokenPatch(document, name, type, value);
    if (patch) return [name, patch];
  }
}

/** A document with tokens in the places of roles. */
function filled(document: ComponentDocument, keys: ReadonlyMap<string, string>): ComponentDocument {
  const put = (value: unknown): unknown => {
    if (typeof value === 'string')
      return value.replace(/\{([a-z.]+)\}/g, (whole, role: string) => {
        const key = keys.get(role);
        return key === undefined ? whole : `{${key}}`;
      });
    if (Array.isArray(value)) return value.map(put);
    if (!isObject(value)) return value;
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, put(each)]));
  };
  return { ...document, rules: put(document.rules) as RuleDocument[] };
}

const SIZES: NonNullable<ComponentDocument['axes']>[number] = {
  id: 'size',
  kind: 'option',
  title: 'Size',
  description: 'Height, room, type and corner together.',
  values: [{ id: 'small' }, { id: 'medium' }, { id: 'large' }],
  default: 'medium',
};

const STATES = ['pointer', 'focus', 'content', 'validity', 'requirement', 'availability'];

const LIMITS: readonly LimitDocument[] = [
  {
    while: { availability: 'disabled' },
    holds: { pointer: 'away', focus: 'out' },
    because: 'A disabled control takes no focus and answers no pointer.',
  },
  {
    while: { availability: ['readonly', 'disabled'] },
    holds: { validity: 'none' },
    because: 'Only what can be changed is judged.',
  },
  {
    while: { content: 'empty' },
    holds: { validity: ['none', 'invalid'] },
    because: 'Nothing entered cannot have been approved.',
  },
];

const SITUATIONS: readonly SituationDocument[] = [
  {
    id: 'at-rest',
    title: 'At rest',
    when: { content: 'empty' },
    means: 'Nobody is at it and nothing has been entered.',
  },
  {
    id: 'pointed-at',
    title: 'Pointed at',
    when: { pointer: 'over' },
    means: 'Says that pressing does something; nothing moves.',
  },
  { id: 'focused', title: 'Focused', when: { focus: 'keyboard' }, means: 'The next key goes here.' },
  {
    id: 'typing',
    title: 'Being filled',
    when: { content: 'filled', focus: 'keyboard' },
    means: 'Someone is typing. Nothing is judged until they leave.',
  },
  {
    id: 'filled',
    title: 'Filled',
    when: { content: 'filled' },
    means: 'Something was entered and nothing has been said about it.',
  },
  {
    id: 'invalid',
    title: 'Invalid',
    when: { content: 'filled', validity: 'invalid' },
    means: 'Left with an entry that cannot be accepted. The message says what to do.',
  },
  {
    id: 'correcting',
    title: 'Being corrected',
    when: { content: 'filled', validity: 'invalid', focus: 'keyboard' },
    means: 'Wrong when left, and the person is back in it.',
  },
  {
    id: 'approved',
    title: 'Approved',
    when: { content: 'filled', validity: 'valid' },
    means: 'Looked up and accepted.',
  },
  {
    id: 'readonly',
    title: 'Read-only',
    when: { content: 'filled', availability: 'readonly' },
    means: 'Settled elsewhere. It can be read, focused and copied.',
  },
  {
    id: 'disabled',
    title: 'Disabled',
    when: { content: 'filled', availability: 'disabled' },
    means: 'It has no part in this form as things stand.',
  },
];

const anatomyOf = ({
  control,
  before = [],
  after = [],
  heading = [],
  anatomy,
}: StartingPoint): PartDocument =>
  anatomy ?? {
    part: 'root',
    kind: 'stack',
    title: 'Field',
    description: 'everything together',
    children: [
      {
        part: 'heading',
        kind: 'row',
        description: 'label and mark on one line',
        children: [
          { part: 'label', kind: 'label', description: 'names the field', content: 'label' },
          { part: 'mark', kind: 'text', description: 'says in a word what is asked for', content: 'mark' },
          ...heading,
        ],
      },
      {
        part: 'frame',
        kind: 'row',
        description: 'one line, one corner, one height per size',
        children: [
          ...before,
          {
            part: 'control',
            kind: 'control',
            description: 'where people enter; a press in the frame lands here',
            content: 'value',
            ...control,
          },
          ...after,
        ],
      },
      {
        part: 'footer',
        kind: 'row',
        description: 'closes up when there is nothing to say',
        children: [
          {
            part: 'alert',
            kind: 'icon',
            description: 'says it again without colour',
            content: 'messageIcon',
          },
          { part: 'message', kind: 'text', description: 'what is wrong and what to do', content: 'message' },
        ],
      },
    ],
  };

type Has = (role: string) => boolean;

/** How the focus shows: by the system's ring, else by an outline. */
const focusRing = (has: Has, offset: string): Record<string, string> =>
  has('ring.focus')
    ? { 'box-shadow': '{ring.focus}' }
    : {
        'outline-style': 'solid',
        'outline-width': 'calc(2 * {line.width})',
        'outline-color': '{line.focus}',
        'outline-offset': offset,
      };

/** The plain field's rules. Those that speak of one property hold in regions of their own, so that none is contested. */
const plainRules = (hasContent: boolean, has: Has): RuleDocument[] => [
  {
    id: 'base',
    when: {},
    set: {
      root: {
        gap: '{gap.outside}',
        'font-size': '{type.medium}',
        ...(has('type.family') ? { 'font-family': '{type.family}' } : {}),
        color: '{text.body}',
      },
      heading: { gap: '{gap.inside}', 'align-items': 'baseline', 'font-size': '{type.note}' },
      label: { color: '{text.label}', 'font-weight': '600' },
      mark: { color: '{text.hint}' },
      frame: {
        height: '{height.medium}',
        'padding-inline': '{inset.medium}',
        gap: '{gap.inside}',
        'align-items': 'center',
        'border-width': '{line.width}',
        'border-style': 'solid',
        'border-color': '{line.rest}',
        'border-radius': '{corner.medium}',
        'background-color': '{surface.field}',
        cursor: 'text',
      },
      control: {
        height: 'calc(@frame.height - 2 * @frame.border-width)',
        'border-radius': 'calc(@frame.border-radius - @frame.border-width)',
        color: '{text.body}',
      },
      footer: { present: 'false', gap: '{gap.inside}', 'align-items': 'center', 'font-size': '{type.note}' },
      alert: { width: '{icon.size}', height: '{icon.size}' },
    },
  },
  {
    id: 'small',
    when: { size: 'small' },
    set: {
      root: { 'font-size': '{type.small}' },
      frame: {
        height: '{height.small}',
        'padding-inline': '{inset.small}',
        'border-radius': '{corner.small}',
      },
    },
  },
  {
    id: 'large',
    when: { size: 'large' },
    set: {
      root: { 'font-size': '{type.large}' },
      frame: {
        height: '{height.large}',
        'padding-inline': '{inset.large}',
        'border-radius': '{corner.large}',
      },
    },
  },
  ...(hasContent
    ? [
        {
          id: 'empty',
          when: { content: 'empty', availability: ['enabled', 'readonly'] },
          set: { control: { color: '{text.hint}', 'caret-color': '{text.body}' } },
          note: 'The placeholder takes the control’s colour.',
        },
      ]
    : []),
  {
    id: 'over',
    when: { pointer: 'over', validity: 'none', availability: 'enabled' },
    set: { frame: { 'border-color': '{line.over}', 'background-color': '{surface.over}' } },
  },
  {
    id: 'focused',
    when: { focus: 'keyboard' },
    set: {
      frame: focusRing(has, '{line.width}'),
    },
  },
  {
    id: 'invalid',
    when: { validity: 'invalid' },
    set: {
      frame: { 'border-color': '{line.wrong}' },
      footer: { present: 'true', color: '{text.wrong}' },
    },
  },
  {
    id: 'valid',
    when: { validity: 'valid' },
    set: {
      frame: { 'border-color': '{line.right}' },
      footer: { present: 'true', color: '{text.right}' },
    },
  },
  {
    id: 'readonly',
    when: { availability: 'readonly' },
    set: { frame: { 'border-style': 'dashed', 'background-color': 'transparent' } },
  },
  {
    id: 'disabled',
    when: { availability: 'disabled' },
    set: {
      label: { color: '{text.off}' },
      frame: { 'border-color': '{line.off}', 'background-color': '{surface.off}', cursor: 'not-allowed' },
      control: { color: '{text.off}' },
    },
  },
];

/** Only what the parts that are there can have said of them. */
function rulesOf(
  point: StartingPoint,
  parts: ReadonlySet<string>,
  axes: ReadonlySet<string>,
  has: Has,
): RuleDocument[] {
  const over = point.over ?? {};
  const plain = plainRules(axes.has('content'), has).map(rule => {
    const set: Record<string, Record<string, string>> = {};
    for (const [part, properties] of [...Object.entries(rule.set), ...Object.entries(over[rule.id] ?? {})])
      if (parts.has(part)) set[part] = { ...set[part], ...properties };
    return { ...rule, set };
  });
  return [...plain, ...(point.rules ?? [])];
}

const partNames = (part: PartDocument): string[] => [part.part, ...(part.children ?? []).flatMap(partNames)];

const askedIn = (condition: Readonly<Record<string, unknown>>, axes: ReadonlySet<string>): boolean =>
  Object.keys(condition).every(axis => axes.has(axis));

function documentOf(
  point: StartingPoint,
  { id, title, group }: ComponentName,
  button: string,
  has: Has,
): ComponentDocument {
  const states = STATES.filter(state => !point.without?.includes(state));
  const axes = [SIZES, ...states.map(axisOfState), ...(point.axes ?? [])];
  const known = new Set(axes.map(axis => axis.id));
  const anatomy = withButton(anatomyOf(point), button);
  const plates = [
    {
      id: 'sizes',
      title: 'Sizes against situations',
      across: ['situation'],
      down: ['size'],
      sample: point.sample.id,
    },
    ...(point.plates ?? []),
  ];
  return {
    format: 'periwinkle-component/1',
    id,
    title,
    ...(group === undefined ? {} : { group }),
    summary: point.summary,
    ...(point.content ? { content: point.content } : {}),
    anatomy,
    axes,
    limits: [...LIMITS, ...(point.limits ?? [])].filter(
      limit => askedIn(limit.while, known) && askedIn(limit.holds, known),
    ),
    rules: rulesOf(point, new Set(partNames(anatomy)), known, has),
    situations: [
      ...SITUATIONS.flatMap(situation => withinAxes(situation, known)),
      ...(point.situations ?? []),
    ],
    samples: [point.sample],
    plates,
    guide: point.guide,
  };
}

const axisOfState = (id: string): NonNullable<ComponentDocument['axes']>[number] =>
  id === 'availability'
    ? { id, kind: 'state', values: ['enabled', 'readonly', 'disabled'].map(value => ({ id: value })) }
    : { id, kind: 'state' };

/** A situation as far as a field has its axes; none where nothing of its condition is left, or it is one of the others then. */
function withinAxes(situation: SituationDocument, axes: ReadonlySet<string>): SituationDocument[] {
  if (askedIn(situation.when, axes)) return [situation];
  const when = Object.fromEntries(Object.entries(situation.when).filter(([axis]) => axes.has(axis)));
  if (situation.id === 'at-rest') return [{ ...situation, when }];
  return Object.keys(when).length === 0 || situation.id === 'typing' ? [] : [{ ...situation, when }];
}

function withButton(part: PartDocument, id: string): PartDocument {
  const children = part.children?.map(child => withButton(child, id));
  const component = part.component === BUTTON ? id : part.component;
  return {
    ...part,
    ...(component === undefined ? {} : { component }),
    ...(children ? { children } : {}),
  };
}

/** The button that fields nest, where a system has none of its kind. */
const fieldButton = (id: string, has: Has): ComponentDocument => ({
  format: 'periwinkle-component/1',
  id,
  title: TITLE_OF_BUTTON,
  group: 'Pieces',
  summary: 'One act inside a field.',
  content: [
    { id: 'name', kind: 'text', title: 'What it does', required: true },
    { id: 'icon', kind: 'icon', title: 'Drawing', required: true },
  ],
  anatomy: {
    part: 'root',
    kind: 'row',
    title: 'Button and drawing',
    description: 'one above the other',
    children: [
      {
        part: 'button',
        kind: 'action',
        description: 'what is pressed; its words are for readers',
        content: 'name',
      },
      { part: 'icon', kind: 'icon', description: 'lets the press through', content: 'icon' },
    ],
  },
  axes: [
    SIZES,
    { id: 'pointer', kind: 'state' },
    { id: 'focus', kind: 'state' },
    { id: 'availability', kind: 'state', values: [{ id: 'enabled' }, { id: 'disabled' }] },
  ],
  limits: [LIMITS[0]!],
  rules: [
    {
      id: 'base',
      when: {},
      set: {
        root: {
          position: 'relative',
          width: 'calc(@root.height)',
          height: 'calc({height.medium} - {gap.inside})',
          'flex-shrink': '0',
          'align-items': 'center',
          'justify-content': 'center',
        },
        button: {
          position: 'absolute',
          inset: '0px',
          overflow: 'hidden',
          'text-indent': '100%',
          'white-space': 'nowrap',
          'border-radius': '{corner.medium}',
          cursor: 'pointer',
        },
        icon: { position: 'relative', width: '{icon.size}', height: '{icon.size}', color: '{text.hint}' },
      },
      note: 'The words stand beside what is seen, where readers find them.',
    },
    {
      id: 'small',
      when: { size: 'small' },
      set: { root: { height: 'calc({height.small} - {gap.inside})' } },
    },
    {
      id: 'large',
      when: { size: 'large' },
      set: { root: { height: 'calc({height.large} - {gap.inside})' } },
    },
    { id: 'over', when: { pointer: 'over' }, set: { icon: { color: '{text.body}' } } },
    {
      id: 'focused',
      when: { focus: 'keyboard' },
      set: {
        button: focusRing(has, '0px'),
      },
    },
    {
      id: 'disabled',
      when: { availability: 'disabled' },
      set: { button: { cursor: 'not-allowed' }, icon: { color: '{text.off}' } },
    },
  ],
  situations: [
    { id: 'at-rest', title: 'At rest', when: {}, means: 'It can be pressed.' },
    {
      id: 'pointed-at',
      title: 'Pointed at',
      when: { pointer: 'over' },
      means: 'Pressing does what it says.',
    },
    { id: 'focused', title: 'Focused', when: { focus: 'keyboard' }, means: 'The next key presses it.' },
    {
      id: 'disabled',
      title: 'Disabled',
      when: { availability: 'disabled' },
      means: 'There is nothing for it to do.',
    },
  ],
  samples: [{ id: 'clear', title: 'Clear', content: { name: 'Clear', icon: 'check' } }],
  plates: [
    {
      id: 'sizes',
      title: 'Sizes against situations',
      across: ['situation'],
      down: ['size'],
      sample: 'clear',
    },
  ],
  guide: {
    use: 'Inside a field, for what concerns its entry.',
    avoid: 'Not for what concerns the whole form.',
  },
});
