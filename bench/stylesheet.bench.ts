/** Size of the demo's shipped stylesheet against the plainest ones that say the same. */
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { SHIPPED } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText, type StyleBlock } from '@periwinkle/core/output/stylesheet/stylesheet';
import { winsOnAllowed } from '@periwinkle/core/cascade/winning-rules';
import { resolverFor } from '@periwinkle/core/cascade/resolve';
import { slotsOf } from '@periwinkle/core/cascade/slots';
import { NOWHERE } from '@periwinkle/core/space/extent';
import { demoSystem } from '@periwinkle/core/test/demo';

const system = demoSystem();
const component = system.components[0]!;
const { space } = component;
const say = (text: string): void => void process.stdout.write(text + '\n');

const sheet = componentStylesheet({
  system,
  component,
  scheme: SHIPPED,
});
const own = sheet.blocks.filter(block => !block.key.startsWith('reset') && block.within === undefined);
const declarationsOf = (blocks: readonly StyleBlock[]): number =>
  blocks.reduce((sum, block) => sum + block.declarations.length, 0);
const published = own.flatMap(block => block.declarations).filter(([name]) => name.startsWith('--_')).length;
const bytes = (blocks: readonly StyleBlock[]): number => stylesheetText({ ...sheet, blocks }).length;

// (a) A block for each allowed combination and part, with everything it comes to.
const around = { tokens: system.tokens.usual(), rootFontSize: system.rootFontSize };
const resolver = resolverFor(component, around);
let blockDeclarations = 0;
let blockBytes = 0;
for (const box of space.extents.boxesOf(space.allowed)) {
  const walk = (axis: number, indices: number[]): void => {
    if (axis < box.length) {
      for (let value = 0; value < space.axes[axis]!.values.length; value++)
        if ((box[axis]! >> value) & 1) walk(axis + 1, [...indices, value]);
      return;
    }
    const condition = Object.entries(space.written(indices)).map(([id, value]) => `[data-${id}="${value}"]`);
    for (const [part, outcomes] of Object.entries(resolver.outcomes(indices))) {
      const declarations = Object.entries(outcomes).map(
        ([name, { value, token }]) => [name, token ? `var(--${system.prefix}-${token})` : value] as const,
      );
      blockDeclarations += declarations.length;
      const selector = `.qs-text-field-${part}:where(.qs-text-field${condition.join('')} *)`;
      blockBytes += bytes([{ key: '', selector, declarations }]) - bytes([]);
    }
  };
  walk(0, []);
}

// (b) Distinct triples of condition, property and value that can win somewhere.
const triples = new Set<string>();
for (const slot of slotsOf(component).all) {
  winsOnAllowed(component, slot).forEach((where, place) => {
    const { rule, setting } = slot.speakers[place]!;
    if (where !== NOWHERE)
      triples.add(`${rule.region.join()} ${setting.part}.${setting.property.name} ${setting.text}`);
  });
}

say(
  `The demo's text field as shipped, without the reset: ${declarationsOf(own)} declarations (${published} of them private), ${bytes(own)} bytes`,
);
say(
  `  (a) against a block per combination: 1 declaration for ${(blockDeclarations / declarationsOf(own)).toFixed(0)}, 1 byte for ${(blockBytes / bytes(own)).toFixed(0)}`,
);
say(
  `  (b) against the ${triples.size} distinct triples that can win: ${(declarationsOf(own) / triples.size).toFixed(2)} declarations each, ${((declarationsOf(own) - published) / triples.size).toFixed(2)} without private ones`,
);
