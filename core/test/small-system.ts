import { compileSystem, type System } from '../components/system';

/** What a small system for a test holds; everything has a plain default. */
export interface SmallSystem {
  /** Tokens in every context. */
  readonly tokens?: object;
  /** By modifier and context, the first being the default. */
  readonly modifiers?: Readonly<Record<string, Readonly<Record<string, object>>>>;
  /** What one rule sets that always holds, by part. */
  readonly set?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Members of the component's document beside those. */
  readonly component?: object;
  readonly documents?: readonly (readonly [path: string, document: unknown])[];
}

const RESOLVER = 'tokens/r.resolver.json';

/** A system with prefix `p` and, unless it has documents of its own, a component `f`: a stack that holds a row with a control. */
export function smallDocuments(parts: SmallSystem): Map<string, unknown> {
  const { tokens = {}, modifiers = {}, set = {}, component = {}, documents } = parts;
  const contexts = Object.entries(modifiers).map(([name, own]) => [
    name,
    {
      default: Object.keys(own)[0],
      contexts: Object.fromEntries(Object.entries(own).map(([context, tree]) => [context, [tree]])),
    },
  ]);
  const field = {
    format: 'periwinkle-component/1',
    id: 'f',
    anatomy: {
      part: 'root',
      kind: 'stack',
      children: [{ part: 'frame', kind: 'row', children: [{ part: 'inner', kind: 'control' }] }],
    },
    rules: Object.keys(set).length > 0 ? [{ id: 'r', when: {}, set }] : [],
    ...component,
  };
  return new Map<string, unknown>([
    ['system.json', { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'p', resolver: RESOLVER }],
    [
      RESOLVER,
      {
        version: '2025.10',
        sets: { base: { sources: [tokens] } },
        modifiers: Object.fromEntries(contexts) as object,
        resolutionOrder: [
          { $ref: '#/sets/base' },
          ...Object.keys(modifiers).map(name => ({ $ref: `#/modifiers/${encodeURIComponent(name)}` })),
        ],
      },
    ],
    ...(documents ?? [['components/f.component.json', field] as const]),
  ]);
}

export const smallSystem = (parts: SmallSystem): System => compileSystem(smallDocuments(parts));
