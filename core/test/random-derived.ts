import fc from 'fast-check';
import type {
  AxisChangeDocument,
  AxisDocument,
  ComponentDocument,
  DerivedDocument,
  OverlayDocument,
} from '../documents/component-document';
import { plainDerived } from './naive-derivation';
import { valuesOf } from './random-component';
import { ON_PART, rulesOver, settlingComponent, systemOf, TEXTS, type RandomSystem } from './random-system';

/** Random chains of derived components: fewer and other values, axes left out and added, rules laid over, left out, put between. */

/** What may become of an axis: nothing, left out, other values. */
const axisChange = (
  axis: AxisDocument,
  isHeld: (value: string) => boolean,
  fresh: string,
): fc.Arbitrary<AxisChangeDocument | 'out' | null> => {
  const values = valuesOf(axis);
  const rest = axis.default ?? values[0]!;
  // A value that a limit of the base holds stays, since without it nothing would be left to hold.
  const fixed = values.filter(value => value === rest || isHeld(value));
  const free = values.filter(value => !fixed.includes(value));
  const chosen = fc
    .subarray(free)
    .map(left => values.filter(value => fixed.includes(value) || left.includes(value)));
  const listed = (ids: readonly string[]) => ({ id: axis.id, values: ids.map(id => ({ id })) });
  const changed =
    axis.kind === 'state'
      ? chosen.map(listed)
      : chosen
          .chain(ids => fc.shuffledSubarray(ids, { minLength: ids.length }))
          .chain(ids => fc.constantFrom(ids, [...ids, fresh]))
          .chain(ids => fc.constantFrom(listed(ids), { ...listed(ids), default: ids.at(-1)! }));
  const mayGo = values.every(value => value === rest || !isHeld(value));
  return fc.oneof(
    { weight: 3, arbitrary: fc.constant(null) },
    { weight: 2, arbitrary: changed },
    ...(mayGo ? [{ weight: 1, arbitrary: fc.constant('out' as const) }] : []),
  );
};

const overlayOf = (
  { id, set }: { id: string; set: object },
  parts: readonly string[],
): fc.Arbitrary<OverlayDocument> => {
  const there = Object.entries(set).flatMap(([part, own]) =>
    parts.includes(part) ? Object.keys(own as object).map(property => [part, property, null] as const) : [],
  );
  const added = fc
    .constantFrom(...parts)
    .chain(part => fc.constantFrom(...ON_PART[part]!).map(property => [part, property] as const))
    .chain(([part, property]) =>
      fc
        .constantFrom(...TEXTS[property]!.filter(text => !text.includes('@label')))
        .map(text => [part, property, text] as const),
    );
  return fc
    .tuple(fc.subarray(there, { maxLength: 1 }), fc.array(added, { maxLength: 2 }))
    .map(([out, more]) => {
      const own: Record<string, Record<string, string | null>> = {};
      for (const [part, property, text] of [...out, ...more]) (own[part] ??= {})[property] = text;
      return { id, set: own };
    });
};

const subset = <Item>(items: readonly Item[], most: number): fc.Arbitrary<Item[]> =>
  fc.subarray([...items], { maxLength: Math.min(most, items.length) });

function derivedFrom(base: ComponentDocument, level: number): fc.Arbitrary<DerivedDocument> {
  const axes = base.axes ?? [];
  const limits = base.limits ?? [];
  const heldIn =
    (axis: AxisDocument) =>
    (value: string): boolean =>
      limits.some(({ holds }) => [holds[axis.id] ?? []].flat().includes(value));
  const id = `d${level}`;
  const added: AxisDocument = {
    id: `n${level}`,
    kind: 'option',
    values: [{ id: `${id}a` }, { id: `${id}b` }],
  };
  const parts = partsOf(base);
  return fc
    .record({
      changes: fc.tuple(...axes.map(axis => axisChange(axis, heldIn(axis), `${axis.id}${id}`))),
      more: subset([added], 1),
      loses: parts.includes('label') ? fc.boolean() : fc.constant(false),
      out: subset(base.rules ?? [], 1),
    })
    .chain(({ changes, more, loses, out }) => {
      const own: DerivedDocument = {
        format: 'periwinkle-component/1',
        id,
        extends: base.id,
        ...(loses ? { anatomyEdits: [{ remove: 'label' }] } : {}),
        axes: [...changes.flatMap(change => (change === null || change === 'out' ? [] : [change])), ...more],
        without: {
          axes: axes.flatMap((axis, index) => (changes[index] === 'out' ? [axis.id] : [])),
          rules: out.map(rule => rule.id),
        },
      };
      // What the base's rules say as far as it is left; only on that can something be laid.
      const plain = plainDerived(base, own);
      const left = (plain.rules ?? []).filter(rule => Object.keys(rule.set).length > 0);
      const here = loses ? parts.filter(part => part !== 'label') : parts;
      return fc
        .record({
          laid: subset(left, 3).chain(rules => fc.tuple(...rules.map(rule => overlayOf(rule, here)))),
          fresh: rulesOver(plain.axes ?? []).map(rules =>
            rules.slice(0, 3).map((rule, index) => ({
              ...rule,
              id: `${id}r${index}`,
              set: Object.fromEntries(Object.entries(rule.set).filter(([part]) => here.includes(part))),
            })),
          ),
          behind: fc.array(fc.option(fc.nat(), { nil: null }), { minLength: 3, maxLength: 3 }),
        })
        .map(({ laid, fresh, behind }) => ({
          ...own,
          rules: [
            ...laid,
            ...fresh
              .filter(
                rule => Object.keys(rule.set).length > 0 && !JSON.stringify(rule.set).includes('@label'),
              )
              .map((rule, index) => {
                const place = behind[index] ?? null;
                return place === null || left.length === 0
                  ? rule
                  : { ...rule, after: left[place % left.length]!.id };
              }),
          ],
        }));
    });
}

const partsOf = ({ anatomy }: ComponentDocument): string[] => [
  anatomy.part,
  ...(anatomy.children ?? []).map(child => child.part),
];

interface Chain {
  readonly component: ComponentDocument;
  readonly written: readonly (ComponentDocument | DerivedDocument)[];
}

const oneMore = ({ component, written }: Chain): fc.Arbitrary<Chain> =>
  derivedFrom(component, written.length).map(own => {
    const plain = plainDerived(component, own);
    const loses = own.anatomyEdits !== undefined;
    const children = (component.anatomy.children ?? []).filter(child => !loses || child.part !== 'label');
    return {
      component: { ...plain, anatomy: { ...component.anatomy, children } },
      written: [...written, own],
    };
  });

const chains = settlingComponent
  .map((base): Chain => ({ component: base, written: [base] }))
  .chain(chain =>
    fc.integer({ min: 1, max: 3 }).chain(length => {
      let all: fc.Arbitrary<Chain> = fc.constant(chain);
      for (let level = 0; level < length; level++) all = all.chain(oneMore);
      return all;
    }),
  );

/** Systems whose last component is derived; `component` is what it stands for. */
export const randomDerived: fc.Arbitrary<RandomSystem> = systemOf(chains);
