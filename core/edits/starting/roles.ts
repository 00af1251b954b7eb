import type { Part } from '../../components/anatomy/part';
import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { resolve } from '../../cascade/resolve';
import type { Combination } from '../../space/space';
import type { Token } from '../../tokens/token-set';

/** Parts of a field by what they do in it, whatever they are called. */
type RolePart = 'root' | 'frame' | 'control' | 'label' | 'message' | 'icon';

/** What a value does in a field, and how a system's own token for it is found. */
export interface TokenRole {
  readonly id: string;
  readonly title: string;
  /** Token type. */
  readonly type: 'color' | 'dimension' | 'fontFamily' | 'shadow';
  /** Where fields that are there use it. */
  readonly use: { readonly place: RolePart; readonly property: string; readonly wants: Combination };
  /** Words of its name: one of each row. */
  readonly words: readonly (readonly string[])[];
  /** As a token's text where a system has none; `null` of what a field does without then. */
  readonly otherwise: string | null;
  /** What a rule sets then in its place. */
  readonly instead?: Readonly<Record<string, string>>;
}

const SIZES = ['small', 'medium', 'large'] as const;
type Size = (typeof SIZES)[number];

const TEXT = ['text', 'ink', 'foreground', 'content'];
const LINE = ['line', 'border', 'stroke', 'frame'];
const SURFACE = ['surface', 'background', 'fill', 'ground'];
const OFF = ['off', 'disabled', 'inactive'];
const WRONG = ['wrong', 'error', 'danger', 'invalid', 'critical'];
const RIGHT = ['right', 'valid', 'success', 'approved', 'positive'];

const ink = (
  id: string,
  title: string,
  use: TokenRole['use'],
  words: readonly string[],
  otherwise: string,
): TokenRole => ({
  id: `text.${id}`,
  title,
  type: 'color',
  use,
  words: [TEXT, words],
  otherwise,
});
const line = (
  id: string,
  title: string,
  wants: Combination,
  words: readonly string[],
  otherwise: string,
): TokenRole => ({
  id: `line.${id}`,
  title,
  type: 'color',
  use: { place: 'frame', property: 'border-top-color', wants },
  words: [LINE, words],
  otherwise,
});
const sized = (
  id: string,
  title: string,
  place: RolePart,
  property: string,
  words: readonly string[],
  values: readonly [string, string, string],
): TokenRole[] =>
  SIZES.map((size, index) => ({
    id: `${id}.${size}`,
    title: `${title}, ${size}`,
    type: 'dimension',
    use: { place, property, wants: { size } },
    words: [words, SIZE_WORDS[size]],
    otherwise: values[index]!,
  }));
const SIZE_WORDS: Readonly<Record<Size, readonly string[]>> = {
  small: ['small', 's', 'sm', 'compact'],
  medium: ['medium', 'm', 'md', 'base', 'default'],
  large: ['large', 'l', 'lg', 'big'],
};

/** Roles that the rules of a new field stand on. Adding one is adding a row. */
export const ROLES: readonly TokenRole[] = [
  ink(
    'body',
    'What was entered',
    { place: 'control', property: 'color', wants: { content: 'filled' } },
    ['body', 'primary', 'default', 'strong'],
    '#1d1d24',
  ),
  ink('label', 'Label', { place: 'label', property: 'color', wants: {} }, ['label', 'heading'], '#1d1d24'),
  ink(
    'hint',
    'Placeholder and hints',
    { place: 'control', property: 'color', wants: { content: 'empty' } },
    ['hint', 'placeholder', 'secondary', 'muted', 'faint'],
    '#5f5f6b',
  ),
  ink(
    'off',
    'Text that is off',
    { place: 'control', property: 'color', wants: { availability: 'disabled', content: 'filled' } },
    OFF,
    '#7c7c88',
  ),
  ink(
    'wrong',
    'A complaint',
    { place: 'message', property: 'color', wants: { validity: 'invalid', content: 'filled' } },
    WRONG,
    '#a5222f',
  ),
  ink(
    'right',
    'An approval',
    { place: 'message', property: 'color', wants: { validity: 'valid', content: 'filled' } },
    RIGHT,
    '#1f6b45',
  ),
  line('rest', 'Line at rest', {}, ['rest', 'default', 'field', 'base'], '#767682'),
  line('over', 'Line while pointed at', { pointer: 'over' }, ['over', 'hover'], '#30303a'),
  line('focus', 'Line or ring of the focus', { focus: 'keyboard' }, ['focus', 'focused', 'ring'], '#2a5bb8'),
  line('wrong', 'Line of a mistake', { validity: 'invalid', content: 'filled' }, WRONG, '#a5222f'),
  line('right', 'Line of an approval', { validity: 'valid', content: 'filled' }, RIGHT, '#1f6b45'),
  line('off', 'Line that is off', { availability: 'disabled' }, OFF, '#c9c9d1'),
  {
    id: 'surface.field',
    title: 'Surface of a field',
    type: 'color',
    use: { place: 'frame', property: 'background-color', wants: {} },
    words: [SURFACE, ['field', 'input', 'default', 'sheet']],
    otherwise: '#ffffff',
  },
  {
    id: 'surface.over',
    title: 'Surface while pointed at',
    type: 'color',
    use: { place: 'frame', property: 'background-color', wants: { pointer: 'over' } },
    words: [SURFACE, ['over', 'hover']],
    otherwise: '#f7f7fa',
  },
  {
    id: 'surface.off',
    title: 'Surface that is off',
    type: 'color',
    use: { place: 'frame', property: 'background-color', wants: { availability: 'disabled' } },
    words: [SURFACE, OFF],
    otherwise: '#f1f1f4',
  },
  {
    id: 'line.width',
    title: 'Width of lines',
    type: 'dimension',
    use: { place: 'frame', property: 'border-top-width', wants: {} },
    words: [
      [...LINE, 'width'],
      ['width', 'thin', 'hair', 'line'],
    ],
    otherwise: '1px',
  },
  ...sized('height', 'Height', 'frame', 'height', ['height'], ['28px', '36px', '44px']),
  ...sized(
    'inset',
    'Room before and after',
    'frame',
    'padding-left',
    ['inset', 'padding'],
    ['8px', '10px', '14px'],
  ),
  ...sized(
    'corner',
    'Corner',
    'frame',
    'border-top-left-radius',
    ['corner', 'radius'],
    ['3px', '4px', '5px'],
  ),
  ...sized(
    'type',
    'Size of text',
    'root',
    'font-size',
    ['text', 'type', 'font', 'size'],
    ['13px', '15px', '17px'],
  ),
  {
    id: 'type.note',
    title: 'Size of labels and notes',
    type: 'dimension',
    use: { place: 'message', property: 'font-size', wants: { validity: 'invalid', content: 'filled' } },
    words: [
      ['text', 'type', 'font', 'size'],
      ['note', 'small', 'caption'],
    ],
    otherwise: '13px',
  },
  {
    id: 'type.family',
    title: 'Typeface',
    type: 'fontFamily',
    use: { place: 'root', property: 'font-family', wants: {} },
    words: [
      ['family', 'typeface', 'font'],
      ['text', 'body', 'sans', 'default', 'base'],
    ],
    otherwise: null,
  },
  {
    id: 'ring.focus',
    title: 'Ring of the focus',
    type: 'shadow',
    use: { place: 'frame', property: 'box-shadow', wants: { focus: 'keyboard' } },
    words: [
      ['ring', 'focus'],
      ['ring', 'plain', 'focus', 'default'],
    ],
    otherwise: null,
    instead: {
      'outline-style': 'solid',
      'outline-width': 'calc(2 * {line.width})',
      'outline-color': '{line.focus}',
      'outline-offset': '{line.width}',
    },
  },
  {
    id: 'gap.outside',
    title: 'Room between label, frame and message',
    type: 'dimension',
    use: { place: 'root', property: 'row-gap', wants: {} },
    words: [
      ['gap', 'space', 'room'],
      ['outside', 'stack', 'small'],
    ],
    otherwise: '5px',
  },
  {
    id: 'gap.inside',
    title: 'Room between what stands in the frame',
    type: 'dimension',
    use: { place: 'frame', property: 'column-gap', wants: {} },
    words: [
      ['gap', 'space', 'room'],
      ['inside', 'row', 'medium'],
    ],
    otherwise: '8px',
  },
  {
    id: 'icon.size',
    title: 'Size of drawings',
    type: 'dimension',
    use: { place: 'icon', property: 'width', wants: {} },
    words: [
      ['icon', 'glyph'],
      ['size', 'icon', 'medium', 'default'],
    ],
    otherwise: '16px',
  },
];

/** A role with the token that a system has for it; `null` where it has none. */
export interface FoundRole {
  readonly role: TokenRole;
  /** As a reference names it. */
  readonly token: string | null;
  /** Whether fields use it so, or it is only called so. */
  readonly by: 'use' | 'name' | null;
}

/** What of a system's tokens serves each role: as its fields use them, else as they are called. */
export function findRoles(system: System): FoundRole[] {
  const tokens = system.tokens.usual();
  const models = modelFields(system);
  const context = { tokens, rootFontSize: system.rootFontSize };
  const known = [...tokens.byKey.values()];
  return ROLES.map(role => {
    for (const component of models) {
      const part = partAt(component, role.use.place);
      const path = part && usedToken(component, part, role, context);
      const token = path && known.find(each => each.path === path && each.type === role.type);
      if (token) return { role, token: token.key, by: 'use' };
    }
    const named = namedToken(known, role);
    return { role, token: named?.key ?? null, by: named ? 'name' : null };
  });
}

/** Components in which people enter something, those first from which most are derived. */
function modelFields({ components }: System): Component[] {
  const followers = (component: Component): number =>
    components.filter(each => each.derivation?.bases.some(base => base.id === component.id)).length;
  return components
    .filter(({ anatomy }) => anatomy.control?.nested === null)
    .toSorted((a, b) => followers(b) - followers(a));
}

function partAt({ anatomy }: Component, place: RolePart): Part | undefined {
  const { control, root, parts } = anatomy;
  switch (place) {
    case 'root':
      return root;
    case 'control':
      return control ?? undefined;
    case 'frame': {
      const frame = control && anatomy.outer(control);
      return frame === root ? undefined : (frame ?? undefined);
    }
    case 'label':
      return parts.find(part => part.kind.kind === 'label');
    case 'message':
      return parts.find(part => part.content === 'message') ?? parts.find(part => part.name === 'message');
    case 'icon':
      return parts.find(
        part => part.kind.kind === 'icon' && anatomy.outer(part) === (control && anatomy.outer(control)),
      );
  }
}

/** The token that a part's property comes to, if it is just that; said of its own, or taken over from around it. */
function usedToken(
  component: Component,
  part: Part,
  { use }: TokenRole,
  context: Parameters<typeof resolve>[2],
): string | undefined {
  const axes = new Set(component.space.axes.map(axis => axis.id));
  const wants = Object.fromEntries(Object.entries(use.wants).filter(([axis]) => axes.has(axis)));
  // What cannot be asked of a field says nothing of the role.
  if (Object.keys(wants).length < Object.keys(use.wants).length) return undefined;
  const { parts } = resolve(component, wants, context);
  for (let here: Part | undefined = part; here; here = component.anatomy.outer(here)) {
    const outcome = parts[here.name]?.[use.property] ?? parts[here.name]?.[shorthands[use.property] ?? ''];
    if (outcome) return outcome.token;
    if (!INHERITED.has(use.property)) return undefined;
  }
  return undefined;
}

const INHERITED = new Set(['color', 'font-size']);
const shorthands: Readonly<Record<string, string>> = {
  'border-top-color': 'border-color',
  'border-top-width': 'border-width',
  'padding-left': 'padding-inline',
  'border-top-left-radius': 'border-radius',
  'row-gap': 'gap',
  'column-gap': 'gap',
};

/** The token whose name has a word of each row; the shortest of those, roles before raw values. */
function namedToken(tokens: readonly Token[], { type, words }: TokenRole): Token | undefined {
  const isNamed = ({ key }: Token): boolean => {
    const pieces = key.toLowerCase().split(/[^a-z0-9]+/);
    return words.every(row => row.some(word => pieces.includes(word)));
  };
  return tokens
    .filter(token => token.type === type && isNamed(token))
    .toSorted((a, b) => a.key.length - b.key.length)[0];
}
