/**
 * How much of the demo's family is inherited or nested rather than written again; and what its stylesheets come to against the
 * same family flattened, in which each nested component stands in its parent's file as a copy of its own file.
 */
import { gzipSync } from 'node:zlib';
import type { Component } from '@periwinkle/core/components/component';
import { namesOf } from '@periwinkle/core/render/names';
import { componentCssText } from '@periwinkle/core/output/outputs';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { SHIPPED } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText, type StyleBlock } from '@periwinkle/core/output/stylesheet/stylesheet';
import type { PartDocument } from '@periwinkle/core/documents/part-document';
import { reuse, reuseOf, type Reuse, type Share } from '@periwinkle/core/cascade/questions/reuse';
import { demoSystem } from '../e2e/support/demo';

const AIM = 2 / 3;
const system = demoSystem();

const percent = ({ all, own }: Share): string => `${(((all - own) / all) * 100).toFixed(0)} %`;
const together = ({ parts, rules, axes }: Reuse): Share => ({
  all: parts.all + rules.all + axes.all,
  own: parts.own + rules.own + axes.own,
});
const line = (words: string, found: Reuse): string =>
  `  ${words}: parts ${percent(found.parts)}, rules ${percent(found.rules)}, axes ${percent(found.axes)}, together ${percent(together(found))} of ${together(found).all}\n`;

process.stdout.write(
  `Inherited or nested, of ${system.components.length} components (aim ${(AIM * 100).toFixed(0)} %)\n`,
);
for (const component of system.components)
  process.stdout.write(line(component.title, reuseOf(component, system.fileOf.get(component.id)!)));
process.stdout.write(line('All', reuse(system)));

/** A stylesheet without what is said of nested parts. */
function ownCss(component: Component): string {
  const names = namesOf(system).component(component.id);
  const nested = component.anatomy.parts
    .filter(part => part.nested !== null)
    .map(part => names.part(part.name));
  const isNested = (selector: string): boolean => {
    const classes = new Set([...selector.matchAll(/\.([\w-]+)/g)].map(([, name]) => name!));
    return nested.some(name => classes.has(name));
  };
  const sheet = componentStylesheet({ system, component, scheme: SHIPPED });
  return stylesheetText({
    ...sheet,
    blocks: sheet.blocks.flatMap((block): StyleBlock[] => {
      const kept = block.selector.split(/,\s*(?![^(]*\))/).filter(each => !isNested(each));
      return kept.length > 0 ? [{ ...block, selector: kept.join(',\n') }] : [];
    }),
  });
}

/** Components that the parts of a tree use. */
const usedIn = ({ component, children = [] }: PartDocument): string[] => [
  ...(component === undefined ? [] : [component]),
  ...children.flatMap(usedIn),
];

/** The file of a component with a copy of the file of each component that is nested in it, however deep. */
function flattenedCss(component: Component): string {
  return [
    ownCss(component),
    ...usedIn(component.document.anatomy).map(id =>
      flattenedCss(system.components.find(each => each.id === id)!),
    ),
  ].join('');
}

const parents = system.components.filter(({ anatomy }) => anatomy.parts.some(part => part.nested !== null));
const size = (texts: readonly string[]): { plain: number; packed: number } => ({
  plain: Buffer.byteLength(texts.join('')),
  packed: gzipSync(texts.join('')).length,
});
const kB = (bytes: number): string => `${(bytes / 1000).toFixed(1)} kB`;
const compared = (title: string, components: readonly Component[]): void => {
  const ours = size(components.map(each => componentCssText(system, each)));
  const flat = size(components.map(flattenedCss));
  process.stdout.write(
    `  ${title}: ${kB(ours.plain)} against ${kB(flat.plain)} (ratio ${(ours.plain / flat.plain).toFixed(2)}), packed ${kB(ours.packed)} against ${kB(flat.packed)} (ratio ${(ours.packed / flat.packed).toFixed(2)})\n`,
  );
};
process.stdout.write('Stylesheets against the same flattened\n');
for (const component of parents) compared(component.title, [component]);
compared('All', system.components);
