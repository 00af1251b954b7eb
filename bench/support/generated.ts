import { seededRandom } from '@periwinkle/core/cascade/covering/random';
import type {
  ComponentDocument,
  DerivedDocument,
  LimitDocument,
  RuleDocument,
} from '@periwinkle/core/documents/component-document';

/** Components and systems of any size, the same every time, for the benchmarks. */

const PARTS = ['root', 'heading', 'label', 'frame', 'leading', 'control', 'trailing', 'footer', 'message'];
const COLORS = ['color', 'background-color', 'border-color', 'outline-color'];
const SIZES = [
  'padding-inline',
  'padding-block',
  'border-radius',
  'height',
  'border-width',
  'outline-offset',
];
const PLAIN = ['opacity', 'flex-grow', 'flex-shrink'];
const TOKENS = 120;

export interface Shape {
  readonly id: string;
  /** Number of values of each option axis. */
  readonly axes: readonly number[];
  readonly rules: number;
  readonly limits: number;
}

export function generatedComponent({ id, axes, rules, limits }: Shape, seed: number): ComponentDocument {
  const random = seededRandom(seed);
  const pick = (count: number): number => Math.floor(random() * count);
  const value = (axis: number): string => `v${pick(axes[axis]!)}`;
  const condition = (most: number): Record<string, string | string[]> => {
    const named = new Set(Array.from({ length: 1 + pick(most) }, () => pick(axes.length)));
    return Object.fromEntries(
      [...named].map(axis => [
        `x${axis}`,
        pick(3) === 0 ? [...new Set([value(axis), value(axis)])] : value(axis),
      ]),
    );
  };
  const settings = (): Record<string, Record<string, string>> => {
    const set: Record<string, Record<string, string>> = {};
    const one = (names: readonly string[]): string => names[pick(names.length)]!;
    for (let count = 1 + pick(4); count > 0; count--) {
      const own = (set[one(PARTS)] ??= {});
      const kind = pick(3);
      if (kind === 0) own[one(COLORS)] = `{t.color.c${pick(TOKENS)}}`;
      else if (kind === 1) own[one(SIZES)] = `{t.size.s${pick(TOKENS)}}`;
      else own[one(PLAIN)] = String(pick(10) / 10);
    }
    return set;
  };
  // Conditions of limits name axes of the second half, what they hold is in the first and may always rest at its first
  // value: so none works against another, in any order.
  const half = Math.floor(axes.length / 2);
  const limit = (): LimitDocument => {
    const held = pick(half);
    const named = half + pick(axes.length - half);
    return {
      while: { [`x${named}`]: value(named) },
      holds: { [`x${held}`]: [...new Set(['v0', value(held)])] },
    };
  };
  return {
    format: 'periwinkle-component/1',
    id,
    anatomy: {
      part: 'root',
      kind: 'stack',
      children: [
        { part: 'heading', kind: 'row', children: [{ part: 'label', kind: 'label', content: 'label' }] },
        {
          part: 'frame',
          kind: 'row',
          children: [
            { part: 'leading', kind: 'icon', content: 'icon' },
            { part: 'control', kind: 'control' },
            { part: 'trailing', kind: 'text', content: 'unit' },
          ],
        },
        { part: 'footer', kind: 'row', children: [{ part: 'message', kind: 'text', content: 'message' }] },
      ],
    },
    axes: axes.map((size, axis) => ({
      id: `x${axis}`,
      kind: 'option',
      values: Array.from({ length: size }, (_, index) => ({ id: `v${index}` })),
    })),
    limits: Array.from({ length: limits }, limit),
    rules: Array.from({ length: rules }, (_, index): RuleDocument => ({
      id: `r${index}`,
      when: index === 0 ? {} : condition(3),
      set: settings(),
    })),
  };
}

const colour = (index: number): object => ({
  colorSpace: 'srgb',
  components: [(index % 7) / 7, (index % 11) / 11, (index % 13) / 13],
});

/** Raw tokens, and as many roles that refer to them. */
function generatedTokens(): Record<string, unknown> {
  const many = (make: (index: number) => readonly [string, unknown]): object =>
    Object.fromEntries(Array.from({ length: TOKENS }, (_, index) => make(index))) as object;
  return {
    raw: {
      color: { $type: 'color', ...many(index => [`c${index}`, { $value: colour(index) }]) },
      size: { $type: 'dimension', ...many(index => [`s${index}`, { $value: { value: index, unit: 'px' } }]) },
    },
    t: {
      color: { $type: 'color', ...many(index => [`c${index}`, { $value: `{raw.color.c${index}}` }]) },
      size: { $type: 'dimension', ...many(index => [`s${index}`, { $value: `{raw.size.s${index}}` }]) },
    },
  };
}

export const generatedSystem = (
  components: readonly (ComponentDocument | DerivedDocument)[],
): Map<string, unknown> =>
  new Map<string, unknown>([
    ['system.json', { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'p' }],
    ['tokens/all.tokens.json', generatedTokens()],
    ...components.map(component => [`components/${component.id}.component.json`, component] as const),
  ]);

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Time of an act in ms. */
export function timed(act: () => void): number {
  const start = performance.now();
  act();
  return performance.now() - start;
}
