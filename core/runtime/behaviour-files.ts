import { SCRIPTS } from 'periwinkle:shipped';
import { behaves } from '../behaviour/behaves';
import { BEHAVIOUR_KINDS } from '../behaviour/kinds/value-kinds';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { OutputFile } from '../output/outputs';
import { compares, EXTRAS } from './needed-extras';
import { planToShip } from './plan-to-ship';
import type { ShippedPlan } from './shipped-plan';

/** The scripts of some components, with the modules that they share. */
export function behaviourFiles(system: System, components: readonly Component[]): OutputFile[] {
  const behaving = components.filter(behaves);
  if (behaving.length === 0) return [];
  const plans = new Map(behaving.map(component => [component, planToShip(system, component)]));
  const shared = new Set(
    behaving.flatMap(component =>
      partsOf(component, plans.get(component)!).flatMap(file => needed(`${file}.js`)),
    ),
  );
  return [
    ...[...shared].sort().map(name => ({ path: `behaviour/shared/${name}`, text: SCRIPTS[name]!.text })),
    ...behaving.map(component => ({
      path: `behaviour/${component.id}.js`,
      text: moduleText(system, component, plans.get(component)!),
    })),
  ];
}

/** A file and all that it asks for. */
const needed = (name: string): string[] => [name, ...(SCRIPTS[name]?.needs ?? []).flatMap(needed)];

/** A kind of value has a module of its own, or does with what all texts have. */
function moduleOf({ document }: Component): string {
  const kind = document.behaviour?.value?.kind ?? '';
  return Object.hasOwn(BEHAVIOUR_KINDS, kind) && Object.hasOwn(SCRIPTS, `${kind}.js`) ? kind : 'text';
}

const extrasOf = (plan: ShippedPlan): typeof EXTRAS => EXTRAS.filter(({ isNeeded }) => isNeeded(plan));

/** Names of the shared modules that a component asks for. */
const partsOf = (component: Component, plan: ShippedPlan): string[] => [
  'base',
  moduleOf(component),
  ...extrasOf(plan).map(({ file }) => file),
  ...(compares(plan) ? ['comparing'] : []),
];

function moduleText(system: System, component: Component, plan: ShippedPlan): string {
  const extras = extrasOf(plan);
  const imports = [
    `import { attachWith } from './shared/base.js';`,
    `import { shipped } from './shared/${moduleOf(component)}.js';`,
    ...extras.map(({ file, name }) => `import { ${name} } from './shared/${file}.js';`),
    ...(compares(plan) ? [`import { COMPARING as comparing } from './shared/comparing.js';`] : []),
  ];
  const given = [
    '...shipped',
    ...(compares(plan) ? ['comparing'] : []),
    `extras: [${extras.map(({ name }) => name).join(', ')}]`,
  ];
  return `// ${oneLine(component.title)} of ${oneLine(system.title)}: attach(root, { value, onChange, ask, locale }) brings its markup to life.
${imports.join('\n')}

const plan = ${JSON.stringify(plan)};
const kind = { ${given.join(', ')} };

export const attach = (root, options) => attachWith(plan, kind, root, options);
`;
}

const oneLine = (text: string): string => text.replace(/[\r\n\u2028\u2029]/g, ' ');
