import { SCRIPTS } from 'periwinkle:shipped';
import { behaves } from '../behaviour/behaves';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import type { OutputFile } from '../emit/outputs';
import { planToShip } from './plan-to-ship';

/** Kinds of value that have a module of their own; what all others need is in the base. */
const MODULES: readonly string[] = ['amount', 'choice', 'code', 'count', 'search', 'time', 'toggle'];

/** The scripts of some components, with the modules that they share. */
export function behaviourFiles(system: System, components: readonly Component[]): OutputFile[] {
  const behaving = components.filter(behaves);
  if (behaving.length === 0) return [];
  const shared = new Set(
    behaving.flatMap(component => [...needed('base.js'), ...needed(`${moduleOf(component)}.js`)]),
  );
  return [
    ...[...shared].sort().map(name => ({ path: `behaviour/shared/${name}`, text: SCRIPTS[name]!.text })),
    ...behaving.map(component => ({
      path: `behaviour/${component.id}.js`,
      text: moduleText(system, component),
    })),
  ];
}

/** A file and all that it asks for. */
const needed = (name: string): string[] => [name, ...(SCRIPTS[name]?.needs ?? []).flatMap(needed)];

function moduleOf({ document }: Component): string {
  const kind = document.behaviour?.value?.kind ?? '';
  return MODULES.includes(kind) ? kind : kind === 'area' ? 'area' : 'text';
}

function moduleText(system: System, component: Component): string {
  const kind = moduleOf(component);
  const plan = JSON.stringify(planToShip(system, component));
  return `// ${oneLine(component.title)} of ${oneLine(system.title)}: attach(root, { value, onChange, ask, locale }) brings its markup to life.
import { attachWith } from './shared/base.js';
import { shipped } from './shared/${kind}.js';

const plan = ${plan};

export const attach = (root, options) => attachWith(plan, shipped, root, options);
`;
}

const oneLine = (text: string): string => text.replace(/[\r\n\u2028\u2029]/g, ' ');
